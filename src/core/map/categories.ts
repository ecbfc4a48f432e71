import { noteName } from '../music/pitch';
import { CategoryFit, Passaggio, VoiceMap } from './types';

/**
 * Voice categories by primo and secondo passaggio (R. Miller, The Structure of Singing, 1986, and Training Tenor Voices,
 * 1993; from memory) and the compass each is usually written for (common practice, no source).
 */
export const CATEGORIES = [
  { name: 'low bass', primo: 55.5, secondo: 60.5, low: 38, high: 62 },
  { name: 'lyric bass', primo: 57, secondo: 62, low: 40, high: 64 },
  { name: 'dramatic baritone', primo: 58, secondo: 63, low: 42, high: 66 },
  { name: 'lyric baritone', primo: 59, secondo: 64, low: 43, high: 67 },
  { name: 'spinto tenor', primo: 61, secondo: 66, low: 47, high: 71 },
  { name: 'lyric tenor', primo: 62, secondo: 67, low: 48, high: 72 },
  { name: 'light tenor', primo: 64, secondo: 69, low: 50, high: 74 },
  { name: 'contralto', primo: 66, secondo: 74, low: 53, high: 77 },
  { name: 'mezzo', primo: 64.5, secondo: 76.5, low: 57, high: 81 },
  { name: 'soprano', primo: 63, secondo: 78, low: 60, high: 84 },
] as const;

const SHOWN = 3;
/** Not shown when the best fits so much better. */
const LEAST_SHARE = 0.03;
/** One standard deviation of a passaggio within a category, and of a range limit (training moves it), semitones. */
const PASSAGGIO_SPREAD = 1.5;
const LIMIT_SPREAD = 3;

/**
 * Categories that fit what was heard, best first, each with its reasons: an indication for the coach, never a verdict. Fits
 * are relative to one another (the best is at most 1). Empty when neither a change nor the range is known.
 */
export function fittingCategories({ passaggi, extreme }: Pick<VoiceMap, 'passaggi' | 'extreme'>): CategoryFit[] {
  if (passaggi.length === 0 || !extreme) return [];
  return CATEGORIES.map((c): CategoryFit => {
    let cost = limitCost(extreme.low.midi - c.low) + limitCost(extreme.high.midi - c.high);
    const because: string[] = [];
    for (const p of passaggi) {
      const [name, at] = nearest(p, c);
      const off = (p.midi - at) / Math.hypot(PASSAGGIO_SPREAD, (p.highMidi - p.lowMidi) / 3.3);
      cost += 0.5 * Math.min(9, off * off);
      if (Math.abs(p.midi - at) < 1.5) because.push(`the change at ${noteName(p.midi)} lies by its ${name} (${noteName(at)})`);
    }
    if (Math.abs(extreme.low.midi - c.low) <= 3) because.push(`the low end is ${noteName(extreme.low.midi)}`);
    if (Math.abs(extreme.high.midi - c.high) <= 3) because.push(`the top is ${noteName(extreme.high.midi)}`);
    return { name: c.name, fit: Math.exp(-cost), because };
  })
    .filter((c) => c.because.length > 0)
    .sort((a, b) => b.fit - a.fit)
    .filter((c, _, [best]) => c.fit >= LEAST_SHARE * best.fit)
    .slice(0, SHOWN);
}

const limitCost = (off: number) => 0.5 * Math.min(9, (off / LIMIT_SPREAD) ** 2);

function nearest(p: Passaggio, { primo, secondo }: (typeof CATEGORIES)[number]): ['primo' | 'secondo', number] {
  return Math.abs(p.midi - primo) <= Math.abs(p.midi - secondo) ? ['primo', primo] : ['secondo', secondo];
}
