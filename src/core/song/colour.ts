import type { Trace } from '../take/types';

/** A colour that is known in fewer frames of a note isn't. */
const LEAST_FRAMES = 4;

/** The colour of one sung note: the middle of its timbre scores; null where it didn't tell. */
export function colourIn({ startS, endS }: { startS: number; endS: number }, { hopS, head, midi }: Trace): number | null {
  const scores: number[] = [];
  for (let i = Math.round(startS / hopS); i < Math.min(head.length, Math.round(endS / hopS)); i++)
    if (midi[i] > 0 && head[i] !== 0) scores.push(head[i]);
  if (scores.length < LEAST_FRAMES) return null;
  scores.sort((a, b) => a - b);
  return Math.round(100 * scores[scores.length >> 1]) / 100;
}
