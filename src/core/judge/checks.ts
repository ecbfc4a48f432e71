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
  /** Sounding frames of the first halves of the keys, for what comes later at the same pitch. */
  earlier: readonly { midi: number; levelDb: number }[];
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

/** A stop is silence as well: the level falls this far under the key's own, however long a room rings. Elsewhere only the pitch was lost. */
const SILENCE_DB = 9;

const stopped: Check = {
  fault: 'stopped',
  verdict: 'not yet',
  look(key, hearing) {
    const { trace, audible } = hearing;
    const sung = sungFrames(key, trace);
    if (!sung) return null;
    const quiet = (from: number, to: number) => fallsSilent(key, hearing, from, to);
    const most = (audible.consonants ? CONSONANT_HOLE_S : HOLE_S) / trace.hopS;
    for (let i = sung[0], silent = 0; i <= sung[1]; i++) {
      if (!(trace.midi[i] > 0)) silent++;
      else {
        if (silent >= most && quiet(i - silent, i)) return { midi: noteAt(key, (i - silent) * trace.hopS).midi, by: silent * trace.hopS };
        silent = 0;
      }
    }
    const missing = missingNote(key);
    return missing && quiet(...silentTime(key, missing, trace)) ? { midi: missing.midi } : null;
  },
};

/** A note that hardly sounded. Where a note is sung again the two share their time. */
function missingNote(key: KeyHeard): NoteHeard | null {
  const last = key.notes.length - 1;
  const again = (i: number) => [i - 1, i + 1].some((k) => key.notes[k]?.midi === key.notes[i].midi && !key.notes[Math.min(i, k)].slide);
  return key.notes.find((n, i) => !again(i) && n.soundedS < (i === last ? LAST_NOTE_SHARE : NOTE_SHARE) * n.askedS) ?? null;
}

/** When a note should have sounded, as frames: from where it begins, for as long as it was asked. */
function silentTime(key: KeyHeard, note: NoteHeard, trace: Trace): [number, number] {
  const [from] = framesOf(note, trace);
  return [from, Math.min(trace.levelDb.length, from + Math.max(LEAST_LINE, Math.round(note.askedS / trace.hopS)))];
}

/** Whether the level falls well under what the key sounds at, for the most of some frames. */
function fallsSilent(key: KeyHeard, { trace, midi }: Hearing, from: number, to: number): boolean {
  const [a, b] = framesOf(key, trace);
  const sounding = trace.levelDb.slice(a, b).filter((_, i) => midi[a + i] > 0);
  const there = trace.levelDb.slice(from, to);
  return sounding.length > 0 && there.length > 0 && Math.min(...there) < median(sounding) - SILENCE_DB;
}

/** A note that is there, loud enough, and whose pitch was lost: nothing can be said of it. */
const pitchLost: Check = {
  fault: 'not-heard',
  verdict: 'not told',
  look(key, hearing) {
    const missing = missingNote(key);
    return missing && !fallsSilent(key, hearing, ...silentTime(key, missing, hearing.trace)) ? { midi: missing.midi } : null;
  },
};

/** Lines through so many frames on each side of a moment, beginning so many away from it, tell a leap (20 to 150 ms). */
const LINE_FROM = 2;
const LINE_TO = 15;
const LEAST_LINE = 7;
/** A leap from here on is heard as one; nothing else about the lines may stray as far. */
const LEAP_ST = 1.3;
const STRAY_ST = 0.3;
/** What leaps further was misread: published flips leap 2 to 6 semitones, and a step may add a third. */
const MOST_LEAP_ST = 9;
/** A step that was asked for hides what happens this near to it. */
const STEP_S = 0.13;
/** After a step a flip overshoots its note: by so much, within so long, for so long. */
const OVERSHOOT_ST = 0.75;
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
    const missing = key.notes.filter((n) => n.soundedS < NOTE_SHARE * n.askedS);
    if (key.share >= SOUNDED_SHARE && missing.length >= MANY * key.notes.length) return { midi: missing[0].midi };
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

const faded: Check = {
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
  pitchLost,
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
