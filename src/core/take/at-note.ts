import type { Direction, Trace } from './types';

/** Where a take sings a note: from, to (seconds). */
export interface Passage {
  fromS: number;
  toS: number;
}

/** Sung within so much of a note is on it, semitones. */
const NEAR_ST = 0.5;
/** A pass is no shorter than this, seconds, and holes up to that are bridged. */
const LEAST_S = 0.03;
const HOLE_S = 0.05;
/** Which way a pitch goes is looked for so far on both sides, seconds. */
const AROUND_S = 0.15;

/** Which way the pitch goes at a moment; null where it stands, or isn't sung. */
export function directionAt({ hopS, midi }: Pick<Trace, 'hopS' | 'midi'>, timeS: number): Direction | null {
  const at = Math.round(timeS / hopS);
  const reach = Math.round(AROUND_S / hopS);
  const sung = (from: number, step: number) => {
    for (let i = from; Math.abs(i - from) <= reach && i >= 0 && i < midi.length; i += step) if (midi[i] > 0) return midi[i];
    return null;
  };
  const [a, b] = [sung(Math.max(0, at - reach), 1), sung(Math.min(midi.length - 1, at + reach), -1)];
  if (a === null || b === null || Math.abs(b - a) < NEAR_ST) return null;
  return b > a ? 'up' : 'down';
}

/**
 * Where a take is on a note, going the way asked for where it does (null: any way), the longest there is; null where it never is.
 * Two singers, or one singer's two days, are set side by side on one note by it.
 */
export function passageAt(trace: Pick<Trace, 'hopS' | 'midi'>, note: number, direction: Direction | null = null): Passage | null {
  const { hopS, midi } = trace;
  const found: (Passage & { direction: Direction | null })[] = [];
  let from = -1;
  let last = -1;
  const close = () => {
    const [fromS, toS] = [from * hopS, (last + 1) * hopS];
    if (from >= 0 && toS - fromS >= LEAST_S) found.push({ fromS, toS, direction: directionAt(trace, (fromS + toS) / 2) });
    from = -1;
  };
  for (let i = 0; i < midi.length; i++) {
    if (midi[i] > 0 && Math.abs(midi[i] - note) <= NEAR_ST) {
      if (from < 0) from = i;
      last = i;
    } else if (from >= 0 && (i - last) * hopS > HOLE_S) close();
  }
  close();
  const alike = found.filter((p) => p.direction === direction);
  const [longest] = (direction && alike.length ? alike : found).sort((a, b) => b.toS - b.fromS - (a.toS - a.fromS));
  return longest ? { fromS: longest.fromS, toS: longest.toS } : null;
}
