import { fitLine, median } from '../signal/stats';
import { Check, framesOf, Hearing, sungFrames } from './hearing';
import type { KeyHeard } from './types';

/** A key ends this much softer than the same notes were earlier: it fades. Earlier is before this share of a key. */
const FADED_DB = 10;
const EARLIER = 0.5;
/** Where no earlier note lies near it, the end of the last note against its beginning, and the key's loudest against its end. */
const FADES_IN_NOTE_DB = 2.5;
const FADED_IN_ALL_DB = 12;
/** A voice is about this much softer a semitone lower (common practice, no source: 7 dB an octave). */
const NATURAL_DB_PER_ST = 0.6;
/** The letting go itself tells nothing. */
const LETTING_GO_S = 0.08;
const SAME_NOTE_ST = 1.2;
/** The last note's beginning, once it has arrived, and its end: so much of it each. */
const ARRIVED_S = 0.08;
const BEGINS_SHARE = 0.4;
const LEAST_FRAMES = 8;

export const faded: Check = {
  fault: 'faded',
  verdict: 'not yet',
  look(key, hearing) {
    const end = keyEnd(key, hearing);
    if (!end) return null;
    const at = { midi: key.notes[key.notes.length - 1].midi };
    // The same pitch earlier, in whatever key: vowel and room are alike there.
    const earlier = hearing.earlier.filter((f) => Math.abs(f.midi - end.midi) <= SAME_NOTE_ST).map((f) => f.levelDb);
    if (earlier.length >= LEAST_FRAMES) {
      const by = median(earlier) - end.levelDb;
      return by > FADED_DB ? { ...at, by } : null;
    }
    const by = end.loudest.levelDb - end.levelDb - NATURAL_DB_PER_ST * Math.max(0, end.loudest.midi - end.midi);
    return by > FADED_IN_ALL_DB && end.within > FADES_IN_NOTE_DB ? { ...at, by } : null;
  },
};

interface Frame {
  midi: number;
  levelDb: number;
}

const middleOf = (frames: readonly Frame[]): Frame => ({
  midi: median(frames.map((f) => f.midi)),
  levelDb: median(frames.map((f) => f.levelDb)),
});

/** Sounding frames of a part of a key, from one share of it to another. */
function partOf(key: KeyHeard, { trace, midi }: Pick<Hearing, 'trace' | 'midi'>, from: number, to: number): Frame[] {
  const sung = sungFrames(key, trace);
  if (!sung) return [];
  const last = sung[1] - Math.round(LETTING_GO_S / trace.hopS);
  const at = (share: number) => Math.round(sung[0] + (last - sung[0]) * share);
  const out: Frame[] = [];
  for (let i = at(from); i < at(to); i++) if (midi[i] > 0) out.push({ midi: midi[i], levelDb: trace.levelDb[i] });
  return out;
}

/** Sounding frames of the first halves of all keys. */
export const earlierIn = (keys: readonly KeyHeard[], of: Pick<Hearing, 'trace' | 'midi'>): Frame[] =>
  keys.flatMap((key) => partOf(key, of, 0, EARLIER));

/** Where a key ends, how loud it was at its loudest, and how far its last note fell; null where too little sounds. */
function keyEnd(key: KeyHeard, hearing: Hearing): (Frame & { loudest: Frame; within: number }) | null {
  const last = key.notes[key.notes.length - 1];
  const [from, to] = framesOf({ startS: last.startS + ARRIVED_S, endS: last.endS - LETTING_GO_S }, hearing.trace);
  const between = (share: number, until: number): Frame[] => {
    const out: Frame[] = [];
    for (let i = Math.round(from + share * (to - from)); i < from + until * (to - from); i++)
      if (hearing.midi[i] > 0) out.push({ midi: hearing.midi[i], levelDb: hearing.trace.levelDb[i] });
    return out;
  };
  const [begins, end] = [between(0, BEGINS_SHARE), between(1 - BEGINS_SHARE, 1)];
  const tenths = Array.from({ length: 8 }, (_, t) => partOf(key, hearing, t / 10, (t + 1) / 10)).filter(
    (f) => f.length >= LEAST_FRAMES / 2,
  );
  if (end.length < LEAST_FRAMES / 2 || tenths.length === 0) return null;
  const loudest = tenths.map(middleOf).reduce((a, b) => (b.levelDb > a.levelDb ? b : a));
  return { ...middleOf(end), loudest, within: begins.length >= LEAST_FRAMES / 2 ? middleOf(begins).levelDb - middleOf(end).levelDb : 0 };
}

/** A note that stands out of the line through the others by more than this jumps out (tuned on clean simulated voices in rooms). */
const OUT_OF_LINE_DB = 10;
export const jumpedOut: Check = {
  fault: 'jumped-out',
  verdict: 'not yet',
  applies: ({ asked }) => asked.exercise.measure === 'even',
  look(key) {
    const notes = key.notes.filter((n) => n.levelDb !== null);
    if (notes.length < 3) return null;
    const x = notes.map((n) => n.midi);
    const line = fitLine(
      x,
      notes.map((n) => n.levelDb!),
    );
    const off = notes.map((n) => n.levelDb! - line.intercept - line.slope * n.midi);
    const most = off.reduce((m, o, i) => (Math.abs(o) > Math.abs(off[m]) ? i : m), 0);
    return Math.abs(off[most]) > OUT_OF_LINE_DB ? { midi: notes[most].midi, by: off[most] } : null;
  },
};

/** At one effort a voice grows by about a decibel a semitone: less than half of that is softer. */
const NOT_SOFTER_DB_PER_ST = 0.4;

export const notSofter: Check = {
  fault: 'not-softer',
  verdict: 'not yet',
  applies: ({ asked }) => asked.exercise.measure === 'softer-up',
  look(key) {
    const notes = key.notes.filter((n) => n.levelDb !== null);
    if (notes.length < 3) return null;
    const { slope } = fitLine(
      notes.map((n) => n.midi),
      notes.map((n) => n.levelDb!),
    );
    return slope > NOT_SOFTER_DB_PER_ST ? { midi: key.notes[key.notes.length - 1].midi, by: slope } : null;
  },
};
