import { fitLine, median } from '../signal/stats';
import { Check, framesOf, Hearing, ON_THE_WAY_S } from './hearing';
import { NOTE_SHARE } from './sounding';
import type { KeyHeard, NoteHeard } from './types';

/** A key that sounds for so much of its time, and so many of whose notes are not in it, is another tune. */
const SOUNDED_SHARE = 0.6;
const MANY = 1 / 3;
/** Half a semitone and a little: another note than was asked for. */
const WRONG_ST = 0.7;
/** A quarter tone off counts as out of tune (common practice, no source); a note or two in five may be. */
const OUT_OF_TUNE_ST = 0.5;
const MOST_IN_TUNE = 0.8;
/** A whole key may lie this far off. */
const KEY_OFF_ST = 0.4;
/** A note that is spoken first lies near its pitch only. */
const SPOKEN_BEATS = 0.6;
/** The ends of a slide may be missed by this much, short or past; the outermost frames are a swing of vibrato. */
const REACH_ST = 1.1;
const TURN_FRAMES = 1;
/** What lies about an octave outside of what was asked for was misread, not sung. */
const MISREAD_ST = 11;

const offBy = (n: NoteHeard) => (n.sungMidi === null ? null : n.sungMidi - n.midi);

/** Notes whose pitch counts: what is spoken first does not. */
const pitched = (key: KeyHeard, { asked }: Hearing): NoteHeard[] =>
  key.notes.filter(
    (n, i) => n.sungMidi !== null && !(asked.exercise.family === 'speech' && i === 0 && asked.exercise.steps[i].beats < SPOKEN_BEATS),
  );

export const wrongNote: Check = {
  fault: 'wrong-note',
  verdict: 'not yet',
  look(key, hearing) {
    // It sounded, and nothing of it was what was asked for.
    if (key.notes.every((n) => n.soundedS === 0)) return { midi: key.notes[0].midi };
    const missing = key.notes.filter((n) => n.soundedS < NOTE_SHARE * n.askedS);
    if (key.share >= SOUNDED_SHARE && missing.length >= MANY * key.notes.length) return { midi: missing[0].midi };
    const wrong = pitched(key, hearing).find((n) => Math.abs(offBy(n)!) >= WRONG_ST);
    return wrong ? { midi: wrong.midi, by: offBy(wrong)! } : null;
  },
};

export const outOfTune: Check = {
  fault: 'out-of-tune',
  verdict: 'not yet',
  look(key, hearing) {
    const notes = pitched(key, hearing);
    if (notes.length === 0) return null;
    const off = notes.map((n) => offBy(n)!);
    const all = median(off);
    if (Math.abs(all) >= KEY_OFF_ST) return { midi: notes[0].midi, by: all };
    const far = notes.filter((_, i) => Math.abs(off[i]) > OUT_OF_TUNE_ST);
    return far.length > (1 - MOST_IN_TUNE) * notes.length ? { midi: far[0].midi, by: offBy(far[0])! } : null;
  },
};

export const missedTheEnd: Check = {
  fault: 'missed-the-end',
  verdict: 'not yet',
  look(key, { midi, trace }) {
    if (!key.notes.some((n) => n.slide)) return null;
    for (const [n, note] of key.notes.entries()) {
      const next = key.notes[n + 1];
      if (!note.slide || !next) continue;
      // A slide may begin a little before its time, and end in its next note's.
      const ends = endsOf(
        midi,
        framesOf({ startS: note.startS - ON_THE_WAY_S, endS: Math.min(next.endS, note.endS + ON_THE_WAY_S) }, trace),
      );
      const [low, high] = [Math.min(note.midi, next.midi), Math.max(note.midi, next.midi)];
      if (ends && high - ends.highest > REACH_ST) return { midi: high, by: ends.highest - high };
      if (ends && ends.lowest - low > REACH_ST) return { midi: low, by: low - ends.lowest };
    }
    const [low, high] = [Math.min(...key.notes.map((n) => n.midi)), Math.max(...key.notes.map((n) => n.midi))];
    const near = midi.map((m) => (m >= low - MISREAD_ST && m <= high + MISREAD_ST ? m : 0));
    const all = endsOf(near, framesOf(key, trace));
    if (all && all.highest - high > REACH_ST) return { midi: high, by: all.highest - high };
    return all && low - all.lowest > REACH_ST ? { midi: low, by: low - all.lowest } : null;
  },
};

/** Lowest and highest pitch sung in frames, the outermost left away; null where nothing is. */
function endsOf(midi: readonly number[], [from, to]: readonly [number, number]): { lowest: number; highest: number } | null {
  const sung = midi
    .slice(Math.max(0, from), to)
    .filter((m) => m > 0)
    .sort((a, b) => a - b);
  if (sung.length <= 2 * TURN_FRAMES) return null;
  return { lowest: sung[TURN_FRAMES], highest: sung[sung.length - 1 - TURN_FRAMES] };
}

/** A note asked for this long is held. */
const HELD_S = 1;
const HELD_SHARE = 0.7;
const DRIFT_ST = 0.5;

export const unsteady: Check = {
  fault: 'unsteady',
  verdict: 'not yet',
  applies: ({ asked }) => asked.exercise.measure === 'holds',
  look(key, { trace }) {
    for (const note of key.notes.filter((n) => !n.slide && n.askedS >= HELD_S)) {
      if (note.soundedS < HELD_SHARE * note.askedS) return { midi: note.midi };
      const [from, to] = framesOf(note, trace);
      const line = { x: [] as number[], y: [] as number[] };
      for (let i = from + 10; i < to - 10; i++)
        if (trace.midi[i] > 0) {
          line.x.push((i - from) / (to - from));
          line.y.push(trace.midi[i]);
        }
      if (line.x.length < 20) continue;
      const drift = fitLine(line.x, line.y).slope;
      if (Math.abs(drift) > DRIFT_ST) return { midi: note.midi, by: drift };
    }
    return null;
  },
};
