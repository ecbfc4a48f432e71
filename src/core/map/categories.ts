import { said, Said, texts } from '../words/said';
import type { School } from './schools';
import { CategoryFit, Passaggio, VoiceMap } from './types';

/** Lower and higher voices, as the coach sorted them: categories of the other family are never held against a voice. */
export type Family = 'low' | 'high';

interface Category {
  name: string;
  family: Family;
  /** Where its changes lie, by name, MIDI. */
  changes: readonly (readonly [name: string, midi: number])[];
  low: number;
  high: number;
}

const passaggi = (primo: number, secondo: number) =>
  [
    ['primo', primo],
    ['secondo', secondo],
  ] as const;

/**
 * Voice categories by primo and secondo passaggio (R. Miller, The Structure of Singing, 1986, and Training Tenor Voices,
 * 1993; from memory) and the compass each is usually written for (common practice, no source).
 */
export const CATEGORIES: readonly Category[] = [
  { name: 'low bass', family: 'low', changes: passaggi(55.5, 60.5), low: 38, high: 62 },
  { name: 'lyric bass', family: 'low', changes: passaggi(57, 62), low: 40, high: 64 },
  { name: 'dramatic baritone', family: 'low', changes: passaggi(58, 63), low: 42, high: 66 },
  { name: 'lyric baritone', family: 'low', changes: passaggi(59, 64), low: 43, high: 67 },
  { name: 'spinto tenor', family: 'low', changes: passaggi(61, 66), low: 47, high: 71 },
  { name: 'lyric tenor', family: 'low', changes: passaggi(62, 67), low: 48, high: 72 },
  { name: 'light tenor', family: 'low', changes: passaggi(64, 69), low: 50, high: 74 },
  { name: 'contralto', family: 'high', changes: passaggi(66, 74), low: 53, high: 77 },
  { name: 'mezzo', family: 'high', changes: passaggi(64.5, 76.5), low: 57, high: 81 },
  { name: 'soprano', family: 'high', changes: passaggi(63, 78), low: 60, high: 84 },
];

/** Voices by where they hand over, as contemporary teaching counts bridges (common practice, no source). */
export const BRIDGED: readonly Category[] = [
  { name: 'deeper voice', family: 'low', changes: [['change', 61]], low: 40, high: 66 },
  { name: 'higher voice', family: 'low', changes: [['change', 64]], low: 48, high: 72 },
  { name: 'belting or pop voice', family: 'low', changes: [['hand-over', 70.5]], low: 48, high: 76 },
  { name: 'deeper voice', family: 'high', changes: [['change', 68]], low: 53, high: 77 },
  { name: 'higher voice', family: 'high', changes: [['change', 70]], low: 57, high: 84 },
  { name: 'belting or pop voice', family: 'high', changes: [['hand-over', 73]], low: 55, high: 84 },
  {
    name: 'very light, high voice',
    family: 'high',
    changes: [
      ['first bridge', 69],
      ['second bridge', 76],
      ['third bridge', 82],
      ['fourth bridge', 88],
    ],
    low: 60,
    high: 91,
  },
];

const SHOWN = 3;
/** Not shown when the best fits so much better. */
const LEAST_SHARE = 0.03;
/** One standard deviation of a passaggio within a category, and of a range limit (training moves it), semitones. */
const PASSAGGIO_SPREAD = 1.5;
const LIMIT_SPREAD = 3;

/**
 * Categories of a school that fit what was heard, best first, each with its reasons: an indication for the coach, never a verdict.
 * Compared are those of the voice's own family, by the changes and by what was held (what was merely touched may be falsetto).
 * Fits are relative to one another (the best is at most 1). Empty when no change is known, or only a first impression of one.
 */
export function fittingCategories(
  { passaggi: heard, usable }: Pick<VoiceMap, 'passaggi' | 'usable'>,
  school: School,
  family: Family,
): CategoryFit[] {
  const passaggi = heard.filter((p) => !p.impression);
  if (passaggi.length === 0) return [];
  const ends = texts([
    ['low', 'the lowest note held is {note}'],
    ['high', 'the highest note held is {note}'],
  ]);
  return (school.calls === 'passaggio' ? CATEGORIES : BRIDGED)
    .filter((c) => c.family === family)
    .map((c): CategoryFit => {
      let cost = 0;
      const because: Said[] = [];
      for (const p of passaggi) {
        const [name, at] = nearest(p, c);
        const off = (p.midi - at) / Math.hypot(PASSAGGIO_SPREAD, (p.highMidi - p.lowMidi) / 3.3);
        cost += 0.5 * Math.min(9, off * off);
        if (Math.abs(p.midi - at) < 1.5)
          because.push(said('the change at {note} lies by its {name} ({at})', { note: { note: p.midi }, name, at: { note: at } }));
      }
      for (const [end, words] of ends) {
        if (!usable) continue;
        cost += limitCost(usable[end].midi - c[end]);
        if (Math.abs(usable[end].midi - c[end]) <= 3) because.push(said(words, { note: { note: usable[end].midi } }));
      }
      return { name: c.name, fit: Math.exp(-cost), because };
    })
    .filter((c) => c.because.length > 0)
    .sort((a, b) => b.fit - a.fit)
    .filter((c, _, [best]) => c.fit >= LEAST_SHARE * best.fit)
    .slice(0, SHOWN);
}

const limitCost = (off: number) => 0.5 * Math.min(9, (off / LIMIT_SPREAD) ** 2);

/** The category's change that one of the voice lies nearest to. */
const nearest = (p: Passaggio, { changes }: Category) =>
  changes.reduce((a, b) => (Math.abs(p.midi - b[1]) < Math.abs(p.midi - a[1]) ? b : a));
