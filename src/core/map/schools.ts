import { said, Said, texts } from '../words/said';
/**
 * Schools of teaching, by what they hold and what they call a change of register (common practice, no source). Evidence is
 * pooled the same way for all: a school names what was heard, and orders the work.
 */
export const SCHOOLS = [
  {
    id: 'classical',
    name: 'Classical, two passaggi',
    calls: 'passaggio',
    holds: 'Round the vowel before the first passaggio, shade it toward closed at the second, and keep the intensity even.',
  },
  {
    id: 'bridges',
    name: 'Many bridges',
    calls: 'bridge',
    holds: 'Chest, mix and head, each with its own adjustment; narrow, bright shapes high up.',
  },
  {
    id: 'chest-first',
    name: 'Chest first (belt)',
    calls: 'bridge',
    holds: 'Stretch chest and the belted middle as high as is safe before handing over; learn to connect early afterwards.',
  },
  {
    id: 'early-connect',
    name: 'Early connect (light)',
    calls: 'bridge',
    holds: 'Hand over as low as possible and bring head down: a light sound throughout.',
  },
  {
    id: 'release-first',
    name: 'Release first (for those who push)',
    calls: 'bridge',
    holds: 'For four to six weeks let the tone become a little breathy on the way through, until squeezing is gone; then rebuild core.',
  },
  {
    id: 'covered',
    name: 'Covered',
    calls: 'passaggio',
    holds: 'A solid upper note that is not shouted, with a darker timbre from the first passaggio on.',
  },
] as const;

export type School = (typeof SCHOOLS)[number];
export type SchoolId = School['id'];
export const SCHOOL_IDS = SCHOOLS.map((s) => s.id);
export const schoolById = (id: SchoolId): School => SCHOOLS.find((s) => s.id === id)!;

const BRIDGES = texts(['first bridge', 'second bridge', 'third bridge', 'fourth bridge', 'fifth bridge', 'sixth bridge']);
const PASSAGGI = texts({ primo: 'primo passaggio', secondo: 'secondo passaggio' });

/** A change further than this from where a school's passaggio is expected isn't called by its name. */
const SAME_PASSAGGIO_ST = 3;

/**
 * What a school calls the changes of a voice, from low to high: bridges are counted upward; a passaggio is the primo or the
 * secondo where it lies by the place expected for the voice (MIDI), and otherwise said to be what it is: the change from chest to
 * head (a woman's near A4 is neither her primo nor her secondo).
 */
export function changeNames(school: School, changes: number[], expected: { primo: number; secondo: number }): Said[] {
  if (school.calls === 'bridge')
    return changes.map((_, i) => (changes.length === 1 ? said('bridge') : (BRIDGES[i] ?? said('bridge {n}', { n: i + 1 }))));
  const isNearest = (midi: number, place: number) =>
    Math.abs(midi - place) <= SAME_PASSAGGIO_ST && changes.every((c) => Math.abs(c - place) >= Math.abs(midi - place));
  return changes.map((midi) => {
    const nearer = Math.abs(midi - expected.primo) <= Math.abs(midi - expected.secondo) ? 'primo' : 'secondo';
    return isNearest(midi, expected[nearer]) ? PASSAGGI[nearer] : said('change from chest to head');
  });
}
