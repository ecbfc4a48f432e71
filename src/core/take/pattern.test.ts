import { PATTERNS } from '../music/patterns';
import { degreeToSemitones } from '../music/scale';
import { additiveTone } from '../sim/tones';
import { analyseTake } from './analyse';
import { alignPattern, placeIn } from './pattern';
import { SungNote } from './types';
import { allInEnglish } from '../format/say';

const SHAPE = { onsetS: 0, driftCents: 0, vibrato: null, unrestCents: 0 };

/** Notes of 0.3 s one after another, a breath of 0.6 s between keys. */
function sungIn(tonics: number[], degrees: number[], offCents = 0): SungNote[] {
  let t = 0;
  return tonics.flatMap((tonic) => {
    const notes = degrees.map((d): SungNote => {
      t += 0.3;
      return { startS: t - 0.3, endS: t, midi: tonic + degreeToSemitones(d), cents: offCents, ...SHAPE };
    });
    t += 0.6;
    return notes;
  });
}

test.each(Object.entries(PATTERNS))('%s is recognised in its keys', (name, degrees) => {
  const sung = alignPattern(sungIn([57, 58, 60], degrees, 18), null)!;
  expect(sung.name).toBe(name);
  expect(sung.keys.map((k) => k.tonicMidi)).toEqual([57, 58, 60]);
  for (const { notes, extra } of sung.keys) {
    expect(extra).toEqual([]);
    expect(notes.map((n) => n.cents)).toEqual(degrees.map(() => 18));
  }
});

test('each sung note has its key and degree', () => {
  const five = PATTERNS['five notes up and down'];
  const sung = alignPattern(sungIn([60, 62], five), null)!;
  expect([0, 4, five.length, five.length + 2].map((note) => placeIn(sung, note))).toEqual([
    { tonicMidi: 60, degree: 1 },
    { tonicMidi: 60, degree: 5 },
    { tonicMidi: 62, degree: 1 },
    { tonicMidi: 62, degree: 3 },
  ]);
  expect(placeIn(sung, 2 * five.length)).toBeNull();
});

test('a note left out, one too many and a wrong one are told apart, and move nothing else', () => {
  const five = PATTERNS['five notes up and down'];
  const notes = sungIn([60], five);
  notes.splice(2, 1); // the third is left out
  notes.splice(6, 0, { ...notes[5], midi: 73 }); // an odd one high up near the end
  const [key] = alignPattern(notes, { degrees: five })!.keys;
  expect(key.tonicMidi).toBe(60);
  expect(key.notes.flatMap((n, i) => (n.note === null ? [i] : []))).toEqual([2]);
  expect(key.extra).toEqual([6]);
  notes[4] = { ...notes[4], cents: 0, midi: notes[4].midi + 1 };
  expect(alignPattern(notes, { degrees: five })!.keys[0].notes[5].cents).toBe(100);
});

test('notes that follow no pattern are not forced into one', () => {
  const odd = [60, 66, 61, 70, 59, 71].map((midi, i): SungNote => ({ startS: i * 0.3, endS: i * 0.3 + 0.3, midi, cents: 0, ...SHAPE }));
  expect(alignPattern(odd, null)).toBeNull();
});

test('vibrato is told apart from drift', () => {
  // A4 for 2 s, sinking by 30 cents, swinging 45 cents each way 5.6 times a second.
  const swing = (t: number) => 45 * Math.sin(2 * Math.PI * 5.6 * t);
  const hz = (drift: number, depth: number) => (t: number) => 440 * 2 ** ((drift * (0.5 - t / 2) + depth * swing(t)) / 1200);
  const [note] = analyseTake(additiveTone({ seconds: 2, hz: hz(30, 1), snrDb: 50 }), 'sustain').findings.notes;
  expect(Math.abs(note.vibrato!.rateHz - 5.6)).toBeLessThan(0.15);
  expect(Math.abs(note.vibrato!.cents - 45)).toBeLessThan(4);
  expect(Math.abs(note.driftCents + 30)).toBeLessThan(6);
  expect(note.unrestCents).toBeLessThan(8);
  const [still] = analyseTake(additiveTone({ seconds: 2, hz: hz(30, 0), snrDb: 50 }), 'sustain').findings.notes;
  expect(still.vibrato).toBeNull();
});

describe('a take that isn’t what was asked for says so', () => {
  const slide = () => additiveTone({ seconds: 3, hz: (t) => 150 * 2 ** (t / 2), snrDb: 50 });
  const steps = () => additiveTone({ seconds: 3, hz: (t) => 220 * 2 ** (degreeToSemitones(1 + Math.floor(t / 0.6)) / 12), snrDb: 50 });
  const said = (pcm: ReturnType<typeof slide>, task: 'siren' | 'scale', asked = {}) =>
    allInEnglish(analyseTake(pcm, task, { asked }).findings.quality.reasons).join(' ');

  test('notes for a siren, a slide for a scale', () => {
    expect(said(steps(), 'siren')).toMatch(/separate notes/);
    expect(said(slide(), 'scale')).toMatch(/sounds like a slide/);
    expect(said(slide(), 'siren')).toBe('');
    expect(said(steps(), 'scale')).toBe('');
  });

  test('another key, another octave, another pattern', () => {
    const degrees = [1, 2, 3, 4, 5];
    expect(said(steps(), 'scale', { degrees, tonicMidi: 57 })).toBe('');
    expect(said(steps(), 'scale', { degrees, tonicMidi: 55 })).toMatch(/Sung in A, asked for in G/);
    expect(said(steps(), 'scale', { degrees, tonicMidi: 69 })).toMatch(/octave lower/);
    expect(said(steps(), 'scale', { degrees: [8, 5, 3, 1] })).toMatch(/don’t follow the pattern/);
  });
});
