import { fitLine, median } from '../signal/stats';
import type { TakeEvent, Trace } from '../take/types';
import { handOver } from './hand-over';
import { Audible } from './sounds';
import type { Asked, Because, Fault, KeyHeard, KeyJudged, NoteHeard, Verdict } from './types';

/** All that is known when one key is judged. */
export interface Hearing {
  asked: Asked;
  audible: Audible;
  trace: Trace;
  /** Pitch of each frame of the trace, in the octave asked for; 0 where nothing is sung. */
  midi: readonly number[];
  events: readonly TakeEvent[];
  /** The change that the keys are to cross, in the octave asked for, and what was heard of the hand-over there in the whole take; null where none is asked for. */
  crossing: { changeMidi: number; handOver: ReturnType<typeof handOver> } | null;
}

/** One thing that can be wrong with a key: what it does to the verdict, and where it shows. */
export interface Check {
  fault: Fault;
  verdict: Exclude<Verdict, 'yes'>;
  /** Where it doesn't apply nothing is looked at. */
  applies?(hearing: Hearing): boolean;
  look(key: KeyHeard, hearing: Hearing): Omit<Because, 'fault'> | null;
}

/** Less of a key than this sounded: it was left out, not sung badly. */
const SUNG_SHARE = 0.25;
/** A note that sounds for less of its time than this was not sung; the last is let go early. */
const NOTE_SHARE = 0.4;
const LAST_NOTE_SHARE = 0.3;
/** A hole this long inside a key is a stop; between notes a consonant makes shorter ones (tuned on simulated voices in rooms). */
const HOLE_S = 0.16;
const CONSONANT_HOLE_S = 0.26;
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
const ON_THE_WAY_S = 0.3;

const framesOf = ({ startS, endS }: { startS: number; endS: number }, { hopS }: Trace): [number, number] => [
  Math.round(startS / hopS),
  Math.round(endS / hopS),
];

/** The note a moment lies in. */
const noteAt = (key: KeyHeard, timeS: number): NoteHeard => key.notes.find((n) => timeS < n.endS) ?? key.notes[key.notes.length - 1];

/** First and last sounding frame of a key. */
function sungFrames(key: KeyHeard, trace: Trace): [number, number] | null {
  const [from, to] = framesOf(key, trace);
  let [first, last] = [-1, -1];
  for (let i = from; i < to; i++)
    if (trace.midi[i] > 0) {
      if (first < 0) first = i;
      last = i;
    }
  return first < 0 ? null : [first, last];
}

const notSung: Check = {
  fault: 'not-sung',
  verdict: 'not told',
  look: (key) => (key.share < SUNG_SHARE ? {} : null),
};

const stopped: Check = {
  fault: 'stopped',
  verdict: 'not yet',
  look(key, { trace, audible }) {
    const last = key.notes.length - 1;
    // Where a note is sung again the two share their time.
    const again = (i: number) => [i - 1, i + 1].some((k) => key.notes[k]?.midi === key.notes[i].midi && !key.notes[Math.min(i, k)].slide);
    const missing = key.notes.find((n, i) => !again(i) && n.soundedS < (i === last ? LAST_NOTE_SHARE : NOTE_SHARE) * n.askedS);
    const sung = sungFrames(key, trace);
    if (!sung) return null;
    const most = (audible.consonants ? CONSONANT_HOLE_S : HOLE_S) / trace.hopS;
    for (let i = sung[0], silent = 0; i <= sung[1]; i++) {
      if (!(trace.midi[i] > 0)) silent++;
      else {
        if (silent >= most) return { midi: noteAt(key, (i - silent) * trace.hopS).midi, by: silent * trace.hopS };
        silent = 0;
      }
    }
    return missing ? { midi: missing.midi } : null;
  },
};

/** Lines through so many frames on each side of a moment, beginning so many away from it, tell a leap (20 to 150 ms). */
const LINE_FROM = 2;
const LINE_TO = 15;
const LEAST_LINE = 7;
/** A leap from here on is heard as one; nothing else about the lines may stray as far. */
const LEAP_ST = 1;
const STRAY_ST = 0.3;
/** What leaps further was misread: published flips leap 2 to 6 semitones, and a step may add a third. */
const MOST_LEAP_ST = 9;
/** A step that was asked for hides what happens this near to it. */
const STEP_S = 0.13;
/** After a step a flip overshoots its note: by so much, within so long, for so long. */
const OVERSHOOT_ST = 0.55;
const OVERSHOOT_S = 0.2;
const OVERSHOT_FRAMES = 3;
/** In a shorter note the next one is on its way before this one has settled. */
const SETTLED_S = 0.24;
const NEXT_S = 0.06;

const LEAPS: readonly TakeEvent['kind'][] = ['flip', 'crack'];

const leapt: Check = {
  fault: 'leapt',
  verdict: 'not yet',
  look(key, hearing) {
    return leapInSlide(key, hearing) ?? leapInNote(key, hearing) ?? overshoot(key, hearing) ?? eventIn(key, hearing, LEAPS);
  },
};

/** The confidence an event needs to count. */
const SURE = 0.5;

/** An event that was heard where it can be told from what was asked for: inside a slide, or between notes that are stepped. */
function eventIn(
  key: KeyHeard,
  { events }: Hearing,
  kinds: readonly TakeEvent['kind'][],
): (Omit<Because, 'fault'> & { heardMidi: number }) | null {
  const slides = key.notes.some((n) => n.slide);
  const found = events.find((e) => {
    if (
      !kinds.includes(e.kind) ||
      e.confidence < SURE ||
      Math.abs(e.toMidi - e.fromMidi) > MOST_LEAP_ST ||
      e.timeS < key.startS ||
      e.timeS > key.endS
    )
      return false;
    const n = key.notes.findIndex((note) => e.timeS < note.endS);
    if (!slides || n < 0) return !slides;
    const note = key.notes[n];
    return (
      note.slide &&
      (n === 0 || key.notes[n - 1].slide || e.timeS - note.startS > STEP_S) &&
      (key.notes[n + 1].slide || note.endS - e.timeS > STEP_S)
    );
  });
  return found ? { midi: noteAt(key, found.timeS).midi, by: Math.abs(found.toMidi - found.fromMidi), heardMidi: found.midi } : null;
}

/** Whether a note is stepped to from another pitch. */
const stepped = (key: KeyHeard, n: number): boolean =>
  n > 0 && (n === key.notes.length || (!key.notes[n - 1].slide && key.notes[n - 1].midi !== key.notes[n].midi));

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
    if (before.slide || note.slide || note.sungMidi === null || before.sungMidi === null || note.endS - note.startS < SETTLED_S) continue;
    const along = Math.sign(note.midi - before.midi);
    if (along === 0) continue;
    const settled = note.sungMidi;
    let over = 0;
    let most = 0;
    const to = Math.min(note.endS - NEXT_S, note.startS + OVERSHOOT_S) / hopS;
    for (let i = Math.round(note.startS / hopS); i < to; i++) {
      const by = along * (midi[i] - settled);
      if (midi[i] > 0 && by >= OVERSHOOT_ST && by <= MOST_LEAP_ST) {
        over++;
        most = Math.max(most, by);
      }
    }
    if (over >= OVERSHOT_FRAMES) return { midi: note.midi, by: most };
  }
  return null;
}

const offBy = (n: NoteHeard) => (n.sungMidi === null ? null : n.sungMidi - n.midi);

/** Notes whose pitch counts: what is spoken first does not. */
const pitched = (key: KeyHeard, { asked }: Hearing): NoteHeard[] =>
  key.notes.filter(
    (n, i) => n.sungMidi !== null && !(asked.exercise.family === 'speech' && i === 0 && asked.exercise.steps[i].beats < SPOKEN_BEATS),
  );

const wrongNote: Check = {
  fault: 'wrong-note',
  verdict: 'not yet',
  look(key, hearing) {
    // It sounded, and nothing of it was what was asked for.
    if (key.notes.every((n) => n.soundedS === 0)) return { midi: key.notes[0].midi };
    const wrong = pitched(key, hearing).find((n) => Math.abs(offBy(n)!) >= WRONG_ST);
    return wrong ? { midi: wrong.midi, by: offBy(wrong)! } : null;
  },
};

const outOfTune: Check = {
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

const missedTheEnd: Check = {
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
    const all = endsOf(midi, framesOf(key, trace));
    const [low, high] = [Math.min(...key.notes.map((n) => n.midi)), Math.max(...key.notes.map((n) => n.midi))];
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

/** A voice is about this much softer a semitone lower (common practice, no source: 7 dB an octave); what falls further fades. */
const NATURAL_DB_PER_ST = 0.6;
const FADED_DB = 13.5;
/** A key in so many pieces, so much of each sounding, shows where its level goes. */
const PIECES = 8;
const LEAST_PIECE_S = 0.05;

const faded: Check = {
  fault: 'faded',
  verdict: 'not yet',
  look(key, { trace, midi }) {
    const sung = sungFrames(key, trace);
    if (!sung) return null;
    const [from, to] = sung;
    const pieces = Array.from({ length: PIECES }, (_, p) => {
      const at = (share: number) => Math.round(from + (to - from) * share);
      const frames = Array.from({ length: at((p + 1) / PIECES) - at(p / PIECES) }, (_, i) => at(p / PIECES) + i).filter((i) => midi[i] > 0);
      if (frames.length * trace.hopS < LEAST_PIECE_S) return null;
      return { levelDb: median(frames.map((i) => trace.levelDb[i])), midi: median(frames.map((i) => midi[i])) };
    }).filter((p) => p !== null);
    const end = pieces.pop();
    if (!end || pieces.length < PIECES / 2) return null;
    const start = pieces.reduce((best, p) => (p.levelDb > best.levelDb ? p : best));
    const by = start.levelDb - end.levelDb - NATURAL_DB_PER_ST * Math.max(0, start.midi - end.midi);
    return by > FADED_DB ? { midi: key.notes[key.notes.length - 1].midi, by } : null;
  },
};

/** A note asked for this long is held. */
const HELD_S = 1;
const HELD_SHARE = 0.7;
const DRIFT_ST = 0.5;

const unsteady: Check = {
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

const changedAtOnce: Check = {
  fault: 'changed-at-once',
  verdict: 'not yet',
  applies: ({ asked, audible }) => asked.exercise.measure === 'blends' && audible.colour,
  look(key, hearing) {
    const found = eventIn(key, hearing, COLOUR_EVENTS);
    // What every voice may do once by the way is a change when it comes again at its place.
    const again = hearing.events.filter(
      (e) => COLOUR_EVENTS.includes(e.kind) && e.confidence >= SURE && found && Math.abs(e.midi - found.heardMidi) <= SAME_PLACE_ST,
    );
    return found && again.length >= LEAST_TIMES ? found : null;
  },
};

const COLOUR_EVENTS: readonly TakeEvent['kind'][] = ['timbre', 'dip'];
/** Ways up and down differ by hysteresis. */
const SAME_PLACE_ST = 2.5;
const LEAST_TIMES = 2;

/** A note that stands out of the line through the others by more than this jumps out (tuned on clean simulated voices in rooms). */
const OUT_OF_LINE_DB = 10;
const jumpedOut: Check = {
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

const notSofter: Check = {
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

/** A key crosses the change when it reaches so far to both sides of it. */
export const CROSSES_ST = 1.5;
const crosses = (key: KeyHeard, { crossing }: Hearing) =>
  crossing !== null &&
  key.notes.some((n) => n.midi <= crossing.changeMidi - CROSSES_ST) &&
  key.notes.some((n) => n.midi >= crossing.changeMidi + CROSSES_ST);

const chestCarried: Check = {
  fault: 'chest-carried',
  verdict: 'not yet',
  look: (key, hearing) =>
    crosses(key, hearing) && hearing.crossing!.handOver === 'carried' ? { midi: Math.round(hearing.crossing!.changeMidi) } : null,
};

const notHeard: Check = {
  fault: 'hand-over-not-heard',
  verdict: 'not told',
  look: (key, hearing) =>
    crosses(key, hearing) && hearing.crossing!.handOver === 'not told' ? { midi: Math.round(hearing.crossing!.changeMidi) } : null,
};

/** Weightiest first: what a singer should hear about a key is the first of these that it shows. */
export const CHECKS: readonly Check[] = [
  notSung,
  stopped,
  leapt,
  wrongNote,
  outOfTune,
  missedTheEnd,
  unsteady,
  faded,
  changedAtOnce,
  jumpedOut,
  notSofter,
  chestCarried,
  notHeard,
];

export function judgeKey(key: KeyHeard, hearing: Hearing): KeyJudged {
  const found = CHECKS.filter((c) => c.applies?.(hearing) ?? true).flatMap((check) => {
    const at = check.look(key, hearing);
    return at
      ? [
          {
            check,
            because: {
              fault: check.fault,
              ...(at.midi === undefined ? {} : { midi: at.midi }),
              ...(at.by === undefined ? {} : { by: at.by }),
            },
          },
        ]
      : [];
  });
  const first = found[0];
  return {
    tonicMidi: key.tonicMidi,
    verdict: first?.check.verdict ?? 'yes',
    because: first?.because ?? null,
    notes: key.notes.map((n) => {
      const own = found.find(({ because }) => because.midi === n.midi);
      return {
        ...n,
        verdict: own?.check.verdict ?? (first?.check.verdict === 'not told' ? 'not told' : 'yes'),
        because: own?.because ?? null,
      };
    }),
  };
}
