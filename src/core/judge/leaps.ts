import { fitLine, median } from '../signal/stats';
import type { TakeEvent } from '../take/types';
import { Check, eventIn, Hearing, MOST_LEAP_ST, noteAt, ON_THE_WAY_S, STEP_S, stepped, whereIn } from './hearing';
import type { Because, KeyHeard } from './types';

/** Lines through so many frames on each side of a moment, beginning so many away from it, tell a leap (20 to 150 ms). */
const LINE_FROM = 2;
const LINE_TO = 15;
const LEAST_LINE = 7;
/** A leap from here on is heard as one; nothing else about the lines may stray as far. */
const LEAP_ST = 1.3;
const STRAY_ST = 0.3;
/** After a step a flip overshoots its note: by so much, within so long, for so long. */
const OVERSHOOT_ST = 0.75;
const OVERSHOOT_S = 0.2;
const OVERSHOT_FRAMES = 3;
/** In a shorter note the next one is on its way before this one has settled. */
const SETTLED_S = 0.24;
const NEXT_S = 0.06;

const LEAPS: readonly TakeEvent['kind'][] = ['flip', 'crack'];

export const leapt: Check = {
  fault: 'leapt',
  verdict: 'not yet',
  look(key, hearing) {
    const inLine = leapInSlide(key, hearing) ?? leapInNote(key, hearing) ?? overshoot(key, hearing);
    if (inLine) return inLine;
    const event = eventIn(key, hearing, LEAPS);
    return event ? whereIn(key, event) : null;
  },
};

/** A leap where a slide goes on. */
function leapInSlide(key: KeyHeard, { midi, trace: { hopS } }: Hearing): Omit<Because, 'fault'> | null {
  let best: { by: number; frame: number } | null = null;
  key.notes.forEach((note, n) => {
    if (!note.slide) return;
    const from = note.startS + (stepped(key, n) ? STEP_S : 0);
    for (let i = Math.round(from / hopS); i < Math.round(note.endS / hopS); i++) {
      const before = lineAt(midi, i, i - LINE_TO, i - LINE_FROM);
      const after = lineAt(midi, i, i + LINE_FROM, i + LINE_TO);
      if (!before || !after || before.stray > STRAY_ST || after.stray > STRAY_ST) continue;
      const by = Math.abs(after.at - before.at);
      if (by >= LEAP_ST && by <= MOST_LEAP_ST && by > (best?.by ?? 0)) best = { by, frame: i };
    }
  });
  const found = best as { by: number; frame: number } | null;
  return found && { midi: midi[found.frame - LINE_FROM] || noteAt(key, found.frame * hopS).midi, by: found.by };
}

/** So long before and after a moment in a held note a swing of vibrato goes round once. */
const SWING_S = 0.2;

/** A leap inside a held note: its middle pitch over a swing of vibrato before, and after. */
function leapInNote(key: KeyHeard, { midi, trace: { hopS } }: Hearing): Omit<Because, 'fault'> | null {
  const swing = Math.round(SWING_S / hopS);
  for (const [n, note] of key.notes.entries()) {
    if (note.slide) continue;
    const arriving = key.notes[n - 1]?.slide ? ON_THE_WAY_S : STEP_S;
    const from = Math.round((note.startS + arriving) / hopS);
    const to = Math.round((note.endS - (stepped(key, n + 1) ? STEP_S + SWING_S : 0)) / hopS);
    for (let i = from + swing; i < to; i++) {
      const [before, after] = [midi.slice(i - swing, i), midi.slice(i + 1, i + 1 + swing)].map((part) => part.filter((m) => m > 0));
      if (before.length < swing / 2 || after.length < swing / 2) continue;
      const by = Math.abs(median(after) - median(before));
      if (by >= LEAP_ST && by <= MOST_LEAP_ST) return { midi: note.midi, by };
    }
  }
  return null;
}

/** A line through the sounding frames of [from, to], read at a frame, and how far its frames stray (median). */
function lineAt(midi: readonly number[], frame: number, from: number, to: number): { at: number; stray: number } | null {
  const x: number[] = [];
  const y: number[] = [];
  for (let i = Math.max(0, from); i <= Math.min(midi.length - 1, to); i++)
    if (midi[i] > 0) {
      x.push(i - frame);
      y.push(midi[i]);
    }
  if (x.length < LEAST_LINE) return null;
  const { slope, intercept } = fitLine(x, y);
  return { at: intercept, stray: median(y.map((v, i) => Math.abs(v - intercept - slope * x[i]))) };
}

/** A note overshot on arriving, along the way the step went. */
function overshoot(key: KeyHeard, { midi, trace: { hopS } }: Hearing): Omit<Because, 'fault'> | null {
  for (let n = 1; n < key.notes.length; n++) {
    const [before, note] = [key.notes[n - 1], key.notes[n]];
    if (before.slide || note.slide || note.sungMidi === null || before.sungMidi === null) continue;
    const by = overshotBy({ ...note, sungMidi: note.sungMidi }, Math.sign(note.midi - before.midi), midi, hopS);
    if (by > 0) return { midi: note.midi, by };
  }
  return null;
}

/**
 * How far, in semitones, a note that was stepped to was overshot before it settled (what a flip does at a step); 0 where it wasn't, or where
 * the note is too short to settle. `along`: which way the step went, 1 up, -1 down.
 */
export function overshotBy(
  { startS, endS, sungMidi }: { startS: number; endS: number; sungMidi: number },
  along: number,
  midi: readonly number[],
  hopS: number,
): number {
  if (along === 0 || endS - startS < SETTLED_S) return 0;
  let over = 0;
  let most = 0;
  const to = Math.min(endS - NEXT_S, startS + OVERSHOOT_S) / hopS;
  for (let i = Math.round(startS / hopS); i < to; i++) {
    const by = along * (midi[i] - sungMidi);
    if (midi[i] > 0 && by >= OVERSHOOT_ST && by <= MOST_LEAP_ST) {
      over++;
      most = Math.max(most, by);
    }
  }
  return over >= OVERSHOT_FRAMES ? most : 0;
}
