import { median, medianLine, quantile } from '../signal/stats';
import type { TakeEvent } from '../take/types';
import { goesItsWay } from '../take/way';
import { Check, eventIn, Hearing, MOST_LEAP_ST, noteAt, ON_THE_WAY_S, STEP_S, stepped, whereIn } from './hearing';
import type { Because, KeyHeard, KeyJudged } from './types';

/** Lines through so many frames on each side of a moment, beginning so many away from it, tell a leap (20 to 150 ms). */
const LINE_FROM = 2;
const LINE_TO = 15;
const LINE_FRAMES = LINE_TO - LINE_FROM;
const LEAST_LINE = 7;
/** A leap from here on is heard as one; nothing else about the lines may stray as far. */
const LEAP_ST = 1.3;
const STRAY_ST = 0.3;
/** After a step a flip overshoots its note: by so much, within so long, for so long. */
const OVERSHOOT_ST = 0.75;
const OVERSHOOT_S = 0.2;
const OVERSHOT_FRAMES = 3;
/** As many frames this near to its pitch, and the note has arrived: what comes after is no overshoot. */
const SETTLED_ST = 0.3;
/** In a shorter note the next one is on its way before this one has settled. */
const SETTLED_S = 0.24;
const NEXT_S = 0.06;

const LEAPS: readonly TakeEvent['kind'][] = ['flip', 'crack'];

export const leapt: Check = {
  fault: 'leapt',
  verdict: 'not yet',
  applies: ({ leapDoubted }) => !leapDoubted,
  look: leapIn,
};

export const leaptOnce: Check = {
  fault: 'leapt-once',
  verdict: 'not told',
  applies: ({ leapDoubted }) => leapDoubted,
  look: leapIn,
};

/**
 * A leap from here on counts wherever it is heard; a smaller one only where other keys show one, or don't pass there. Of 314 clean takes of
 * simulated voices in rooms 18 seemed to leap, 16 of them in one key of three, mostly by less; of 201 that flip 13 are doubted by this.
 */
const PLAIN_LEAP_ST = 2.5;
const OTHERS = 2;

/** Index of the key that alone leaps a little where two others pass without; -1 for none. */
export function doubtedLeap(keys: readonly Pick<KeyJudged, 'because' | 'notes'>[]): number {
  const leaping = keys.flatMap(({ because }, i) => (because?.fault === 'leapt' ? [i] : []));
  const { midi, by = Infinity } = keys[leaping[0]]?.because ?? {};
  if (leaping.length !== 1 || midi === undefined || by >= PLAIN_LEAP_ST) return -1;
  const pass = keys.filter(
    ({ because, notes }, i) =>
      i !== leaping[0] && because?.fault !== 'not-sung' && notes.some((n) => n.midi < midi) && notes.some((n) => n.midi > midi),
  );
  return pass.length >= OTHERS ? leaping[0] : -1;
}

function leapIn(key: KeyHeard, hearing: Hearing): Omit<Because, 'fault'> | null {
  const inLine = leapInSlide(key, hearing) ?? leapInNote(key, hearing) ?? overshoot(key, hearing);
  if (inLine) return inLine;
  const event = eventIn(key, hearing, LEAPS);
  return event ? whereIn(key, event) : null;
}

/** Back from where it goes a slide leaps by this much, and is still this far behind when a room has rung out. */
const BACK_ST = 2;
const STILL_BACK_ST = 1;
/** How far a slide had come is read from so many frames before; a quarter of them may be thrown ahead. */
const COME_FRAMES = 30;
const COME_SHARE = 0.75;

/** How a slide goes: from which frame on, up (1) or down (-1), and how far a frame as it was asked for, semitones. */
interface Way {
  from: number;
  along: number;
  perFrame: number;
}

/** How far a pitch at a frame lies ahead of where the slide had come before it. */
function aheadBy(midi: readonly number[], { from, along, perFrame }: Way, frame: number, at: number): number {
  const come: number[] = [];
  for (let i = Math.max(from, frame - COME_FRAMES); i <= frame - LINE_FROM; i++)
    if (midi[i] > 0) come.push(along * (midi[i] + perFrame * (frame - i)));
  return come.length > 0 ? along * at - quantile(come, COME_SHARE) : Infinity;
}

/** How far a slide that stood at a pitch at a frame still lies behind when a room has rung out. */
function stillBehindBy(midi: readonly number[], { along, perFrame }: Way, frame: number, at: number): number {
  const later: number[] = [];
  for (let i = frame + LINE_TO; i < frame + 2 * LINE_TO; i++) if (midi[i] > 0) later.push(along * (at + perFrame * (i - frame) - midi[i]));
  return later.length >= LEAST_LINE ? median(later) : 0;
}

/**
 * A leap where a slide goes on: ahead of how far the slide had come, the way it goes, or back, for longer than a room rings. What falls
 * back towards pitches already sung for a moment, and comes forward again, is what still rings of them.
 */
function leapInSlide(key: KeyHeard, { midi, trace: { hopS } }: Hearing): Omit<Because, 'fault'> | null {
  let best: { by: number; frame: number } | null = null;
  // What lies after one moment lies before a later one.
  const lines = new Map<number, Line | null>();
  const line = (from: number) => {
    if (!lines.has(from)) lines.set(from, lineFrom(midi, from));
    return lines.get(from) ?? null;
  };
  for (const [n, note] of key.notes.entries()) {
    const next = key.notes[n + 1];
    if (!note.slide || !next) continue;
    const way: Way = {
      from: Math.round((note.startS + (stepped(key, n) ? STEP_S : 0)) / hopS),
      along: Math.sign(next.midi - note.midi),
      perFrame: ((next.midi - note.midi) / Math.max(hopS, note.askedS)) * hopS,
    };
    const to = Math.round(note.endS / hopS);
    for (let i = way.from; i < to; i++) {
      const [before, after] = [line(i - LINE_TO), line(i + LINE_FROM)];
      if (!before || !after || before.stray > STRAY_ST || after.stray > STRAY_ST) continue;
      const [came, went] = [before.at(i), after.at(i)];
      const leap = way.along * (went - came);
      const isBack = -leap >= BACK_ST && stillBehindBy(midi, way, i, came) >= STILL_BACK_ST;
      const by = leap > 0 ? Math.min(leap, aheadBy(midi, way, i, went)) : isBack ? -leap : 0;
      if (by < LEAP_ST || by > MOST_LEAP_ST || by <= (best?.by ?? 0)) continue;
      if (!goesItsWay(midi, i, went - came, way.from, to)) best = { by, frame: i };
    }
  }
  return best && { midi: midi[best.frame - LINE_FROM] || noteAt(key, best.frame * hopS).midi, by: best.by };
}

/** So long before and after a moment in a held note a swing of vibrato goes round once. */
const SWING_S = 0.2;
/** The note before rings on so long in a room that outlasts a softer note, and the next may come as early: pitches between the two are no leap. */
const RINGS_S = 0.45;
const RINGS_ST = 0.5;
/** Whether a pitch lies away from a note, towards another and not past it. */
const isTowards = (midi: number, note: number, other: number) =>
  Math.abs(midi - note) > RINGS_ST &&
  Math.sign(midi - note) === Math.sign(other - note) &&
  Math.abs(midi - note) < Math.abs(other - note) + RINGS_ST;

/** A leap inside a held note: its middle pitch over a swing of vibrato before, and after. */
function leapInNote(key: KeyHeard, { midi, trace: { hopS } }: Hearing): Omit<Because, 'fault'> | null {
  const swing = Math.round(SWING_S / hopS);
  const rings = RINGS_S / hopS;
  for (const [n, note] of key.notes.entries()) {
    if (note.slide) continue;
    const arriving = key.notes[n - 1]?.slide ? ON_THE_WAY_S : STEP_S;
    const from = Math.round((note.startS + arriving) / hopS);
    const to = Math.round((note.endS - (stepped(key, n + 1) ? STEP_S + SWING_S : 0)) / hopS);
    for (let i = from + swing; i < to; i++) {
      const [before, after] = [midi.slice(i - swing, i), midi.slice(i + 1, i + 1 + swing)].map((part) => part.filter((m) => m > 0));
      if (before.length < swing / 2 || after.length < swing / 2) continue;
      const by = Math.abs(median(after) - median(before));
      if (by < LEAP_ST || by > MOST_LEAP_ST) continue;
      const neighbours = [...(i < from + rings ? [key.notes[n - 1]] : []), ...(i > to - rings ? [key.notes[n + 1]] : [])];
      if (neighbours.some((other) => other && [before, after].some((part) => isTowards(median(part), note.midi, other.midi)))) continue;
      return { midi: note.midi, by };
    }
  }
  return null;
}

/** A line through pitch: what it is at a frame, and how far its own frames stray from it (median). */
interface Line {
  at(frame: number): number;
  stray: number;
}

/**
 * A line through the sounding frames of [from, from + LINE_FRAMES] that a few frames which a room pulls away don't tilt.
 */
function lineFrom(midi: readonly number[], from: number): Line | null {
  const x: number[] = [];
  const y: number[] = [];
  for (let i = Math.max(0, from); i <= Math.min(midi.length - 1, from + LINE_FRAMES); i++)
    if (midi[i] > 0) {
      x.push(i);
      y.push(midi[i]);
    }
  if (x.length < LEAST_LINE) return null;
  const { slope, intercept } = medianLine(x, y);
  return { at: (frame) => intercept + slope * frame, stray: median(y.map((v, i) => Math.abs(v - intercept - slope * x[i]))) };
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
  let settled = 0;
  const to = Math.min(endS - NEXT_S, startS + OVERSHOOT_S) / hopS;
  for (let i = Math.round(startS / hopS); i < to && settled < OVERSHOT_FRAMES; i++) {
    if (!(midi[i] > 0)) continue;
    const by = along * (midi[i] - sungMidi);
    settled = Math.abs(by) <= SETTLED_ST ? settled + 1 : 0;
    if (by >= OVERSHOOT_ST && by <= MOST_LEAP_ST) {
      over++;
      most = Math.max(most, by);
    }
  }
  return over >= OVERSHOT_FRAMES ? most : 0;
}
