import { median } from '../signal/stats';
import type { Trace } from '../take/types';
import { phrasesOf } from './phrases';
import { barAt, secondsAt, Song } from './types';

/** One note of the song as it was sung. A note sung twice (begun again) stands twice. */
export interface SungSongNote {
  /** Index of the note in the song. */
  note: number;
  startS: number;
  endS: number;
  /** Seconds of it that sounded. */
  soundedS: number;
  /** Pitch it settled on, MIDI, in the octave asked for; null where too little sounded. */
  sungMidi: number | null;
  /** Off the note asked, cents; null where too little sounded. */
  cents: number | null;
}

/** A take laid over its song. */
export interface Followed {
  notes: SungSongNote[];
  /** Semitones it was really sung higher than written; octaves of the voice's own included. */
  semitones: number;
  /** How far the whole of it lay beside that, cents: who sings alone has a tuning of their own. */
  tuningCents: number;
  /** Seconds a crotchet really took, of those the song says. */
  pace: number;
  /** Times it was begun again, or jumped on. */
  jumps: number;
  /** Mean cost of a sounding frame; over `FOLLOWED` it isn't this song. */
  cost: number;
}

/** Frames are this long at first; longer when song and take together would take too much memory. */
const FRAME_S = 0.02;
/** Keys are tried with longer ones. */
const KEY_FRAME_S = 0.06;
const MOST_CELLS = 12e6;
/**
 * Costs of a frame of 20 ms; with what follows tuned on 40 takes of Festival's on words and 40 of our own simulator in drawn rooms, where each
 * may be a third more or less and alters little. A pitch off by so much costs no more; sound between notes; silence in a note; a rest.
 */
const MOST_OFF_ST = 2;
const PER_ST = 0.5;
const UNASKED = 1;
const SILENT = 0.1;
const RESTS = 0.02;
/** A note sung on another pitch than its own: once, and a frame. Its length then tells where it lies, not what its neighbours' pitches are nearest to. */
const ASTRAY = 8;
const ASTRAY_FRAME = 0.25;
/** For so long after a note begins a room may still give back the one before, at this cost a frame. */
const RINGS_S = 0.15;
const RINGS = 0.5;
/** A gap between notes that none is written between; a jump to the beginning of a bar after a pause. */
const GAP = 2.5;
const JUMP = 25;
/** To begin elsewhere than at the beginning. */
const BEGINS_INSIDE = 4;
const JUMP_PAUSE_S = 0.25;
/** A note lasts this share of what is written at least and at most; how free its length is, as a deviation of its logarithm. */
const LEAST = 0.35;
const MOST = 2.6;
const FREE_FIRST = 0.35;
const FREE_THEN = 0.18;
const LENGTH_WEIGHT = 2;
/** Local pace is the middle of so many notes on each side. */
const AROUND = 2;
/** What is so much softer than what sounds near it is a room's tail, not a note (it lasts longer than a consonant). */
const TAIL_DB = 16;
const TAIL_NEAR_S = 0.6;
/** A level that dips by more than the first of these against both sides says that a note begins, by the second all but surely; what that is worth. */
const DIP_DB = [1.5, 6] as const;
const DIP_REACH_S = 0.12;
const DIP_WORTH = 3.5;
/** A take that costs more than this a frame was not this song (80 takes in rooms of two makers: up to 0.2; of 240 that weren’t, two under 0.3); one that costs less than the second is in the right key. */
export const FOLLOWED = 0.3;
const GOOD_FIT = 0.15;
const OCTAVE = 12;
/** What is tried beside the key asked for: its octaves, then the keys around it, then those around its octaves. */
const AROUND_ST = [1, -1, 2, -2, 3, -3, 4, -4, 5, -5, 6, -6];
const OTHER_KEYS = [-OCTAVE, OCTAVE, ...AROUND_ST, ...[-OCTAVE, OCTAVE].flatMap((octave) => AROUND_ST.map((st) => octave + st))];
/** The beginning of a note is on its way, its end on its way out. */
const ARRIVING_S = 0.08;
const LEAVING_S = 0.03;
const LEAST_TOLD = 3;

/**
 * Lay a take over its song: each note's beginning and end by dynamic programming over notes with their lengths (a hidden semi-Markov
 * model, Viterbi), free in tempo, with gaps, wrong notes, and jumps to the beginning of any bar after a pause, so that whoever
 * begins again is followed. `semitones`: the key that was chosen; another one is found when it was sung in another. Null when what
 * was sung isn't this song.
 */
export function followSong(song: Song, trace: Pick<Trace, 'hopS' | 'midi' | 'levelDb'>, semitones = 0): Followed | null {
  const frames = framesOf(trace, song.notes.length, FRAME_S);
  const coarse = framesOf(trace, song.notes.length, KEY_FRAME_S);
  if (!frames || !coarse || frames.voiced === 0 || coarse.voiced === 0) return null;
  const asWritten = song.notes.map(() => 1);
  const tried = (by: number) => ({ by, ...viterbi(song, coarse, by, asWritten, { free: FREE_FIRST, astray: false }) });
  let best = tried(semitones);
  for (const by of OTHER_KEYS) {
    if (best.cost <= GOOD_FIT) break;
    const other = tried(semitones + by);
    if (other.cost < best.cost) best = other;
  }
  // Once more, with the pace each place was sung at and the tuning of the whole.
  const off = tuning(song, coarse, best.spans, best.by);
  const { spans } = viterbi(song, frames, best.by + off, pacesOf(song, best.spans, coarse.frameS), { free: FREE_THEN, astray: true });
  const cost = misfit(song, frames, spans, best.by + off);
  if (cost > FOLLOWED || spans.length === 0) return null;
  const notes = spans.map((s) => sungNote(song, trace, s, frames.frameS, best.by));
  return {
    notes,
    semitones: best.by,
    tuningCents: Math.round(100 * off),
    pace: median(pacesOf(song, spans, frames.frameS)),
    jumps: spans.filter((s, i) => i > 0 && s.note !== spans[i - 1].note + 1).length,
    cost,
  };
}

interface Frames {
  frameS: number;
  count: number;
  /** 0 where nothing is sung. */
  midi: Float32Array;
  /** What a beginning there is worth. */
  begins: Float32Array;
  voiced: number;
}

function framesOf({ hopS, midi, levelDb }: Pick<Trace, 'hopS' | 'midi' | 'levelDb'>, notes: number, leastS: number): Frames | null {
  const seconds = midi.length * hopS;
  if (seconds === 0) return null;
  const frameS = Math.max(leastS, Math.ceil((seconds * notes) / MOST_CELLS / FRAME_S) * FRAME_S);
  const by = Math.round(frameS / hopS);
  const count = Math.floor(midi.length / by);
  const out = new Float32Array(count);
  const begins = new Float32Array(count);
  const reach = Math.round(DIP_REACH_S / hopS);
  const near = Math.round(TAIL_NEAR_S / hopS);
  const voicedDb = levelDb.map((db, i) => (midi[i] > 0 ? db : -Infinity));
  const isTail = (i: number) => voicedDb[i] < loudest(voicedDb, i - near, i + near + 1) - TAIL_DB;
  let voiced = 0;
  for (let f = 0; f < count; f++) {
    const sung: number[] = [];
    for (let i = f * by; i < (f + 1) * by; i++) if (midi[i] > 0 && !isTail(i)) sung.push(midi[i]);
    // A frame sounds when half of it does.
    if (sung.length * 2 >= by) {
      out[f] = median(sung);
      voiced++;
    }
    begins[f] = dipAt(levelDb, midi, f * by, by, reach);
  }
  return { frameS, count, midi: out, begins, voiced };
}

function loudest(levelDb: readonly number[], from: number, to: number): number {
  let most = -Infinity;
  for (let i = Math.max(0, from); i < Math.min(levelDb.length, to); i++) most = Math.max(most, levelDb[i]);
  return most;
}

/** What it is worth to begin a note at a frame: where sound comes back after a consonant, or the level dips. */
function dipAt(levelDb: readonly number[], midi: readonly number[], at: number, by: number, reach: number): number {
  const sounds = (from: number, to: number) => {
    for (let i = Math.max(0, from); i < Math.min(midi.length, to); i++) if (midi[i] > 0) return true;
    return false;
  };
  if (!sounds(at, at + by)) return 0;
  if (!sounds(at - by, at)) return DIP_WORTH;
  const lowest = -Math.max(...Array.from({ length: 2 * by }, (_, i) => -(levelDb[Math.max(0, at - by + i)] ?? 0)));
  const dip = Math.min(loudest(levelDb, at - reach, at), loudest(levelDb, at, at + reach)) - lowest;
  return DIP_WORTH * Math.min(1, Math.max(0, (dip - DIP_DB[0]) / (DIP_DB[1] - DIP_DB[0])));
}

interface Span {
  note: number;
  /** Frames from, to (exclusive). */
  from: number;
  to: number;
}

/** What it costs up to each frame (count + 1 of them) to rest, to sing a note astray, and to sing each note. */
interface Costs {
  rests: Float64Array;
  elsewhere: Float64Array;
  notes: NoteCosts[];
}

interface NoteCosts {
  /** On its pitch, up to each frame. */
  own: Float64Array;
  /** What less (negative) where it begins at a frame and the note before still rings. */
  ringing: Float64Array;
  /** What it is to be sung astray from a frame on, beside being sung as written. */
  stray: Float64Array;
}

/** `by`: semitones higher than written, with fractions. */
function costsUpTo(song: Song, { frameS, count, midi }: Frames, by: number): Costs {
  const scale = frameS / FRAME_S;
  const upTo = (frame: (t: number) => number) => {
    const sums = new Float64Array(count + 1);
    for (let t = 0; t < count; t++) sums[t + 1] = sums[t] + scale * frame(t);
    return sums;
  };
  const rests = upTo((t) => (midi[t] > 0 ? UNASKED : RESTS));
  const elsewhere = upTo((t) => (midi[t] > 0 ? ASTRAY_FRAME : SILENT));
  const pitched = new Map<number, Float64Array>();
  for (const { midi: pitch } of song.notes)
    if (!pitched.has(pitch))
      pitched.set(
        pitch,
        upTo((t) => (midi[t] > 0 ? offBy(midi[t] - pitch - by) : SILENT)),
      );
  const lag = Math.round(RINGS_S / frameS);
  const approached = new Map<string, NoteCosts>();
  const notes = song.notes.map(({ midi: pitch }, i): NoteCosts => {
    const before = song.notes[Math.max(0, i - 1)].midi;
    const name = `${before} ${pitch}`;
    const known = approached.get(name);
    if (known) return known;
    const own = pitched.get(pitch)!;
    const less = upTo((t) => (midi[t] > 0 ? Math.min(0, RINGS + offBy(midi[t] - before - by) - offBy(midi[t] - pitch - by)) : 0));
    const ringing = less.map((sum, t) => less[Math.min(count, t + lag)] - sum);
    const costs = { own, ringing, stray: own.map((sum, t) => sum - ringing[t] - elsewhere[t]) };
    approached.set(name, costs);
    return costs;
  });
  return { rests, elsewhere, notes };
}

/**
 * The cheapest way through the song. `by`: semitones, with fractions; `paces`: of each note, how much longer than written; `free`: how
 * free its length is; `astray`: whether a note may be sung on another pitch.
 */
function viterbi(
  song: Song,
  frames: Frames,
  by: number,
  paces: readonly number[],
  { free, astray }: { free: number; astray: boolean },
): { spans: Span[]; cost: number } {
  const { frameS, count, begins, voiced } = frames;
  const { notes } = song;
  const n = notes.length;
  const costs = costsUpTo(song, frames, by);
  const { rests, elsewhere } = costs;
  const barStarts = new Set<number>(phrasesOf(song).map((p) => p.first));
  for (let i = 1; i < n; i++) if (barAt(song, notes[i].start) !== barAt(song, notes[i - 1].start)) barStarts.add(i);
  const lengths = notes.map((note, i) => {
    const written = ((secondsAt(song, note.start + note.beats) - secondsAt(song, note.start)) * paces[i]) / frameS;
    const least = Math.max(1, Math.floor(written * LEAST));
    const cost = Float64Array.from({ length: Math.max(1, Math.ceil(written * MOST) - least + 1) }, (_, d) => {
      const ratio = Math.log((least + d) / written) / free;
      return (LENGTH_WEIGHT * ratio * ratio) / 2;
    });
    return { least, cost };
  });
  const width = count + 1;
  /** Where a note may begin, relative to what its pitch has cost by then; how long it was when it ended; what came before it. */
  const starts = new Float32Array(n * width).fill(Infinity);
  const lasted = new Uint16Array(n * width);
  const cameFrom = new Int32Array(n * width).fill(-1);
  let ends = new Float64Array(n).fill(Infinity);
  /** The cheapest end of the note before so far, without what resting has cost since. */
  const gapFrom = new Float64Array(n).fill(Infinity);
  const gapAt = new Int32Array(n);
  let anyEnd = Infinity;
  let anyAt = -1;
  const pause = Math.round(JUMP_PAUSE_S / frameS);
  const recent: { cost: number; at: number }[] = [];
  let final = { cost: Infinity, at: -1 };
  for (let t = 0; t <= count; t++) {
    const now = new Float64Array(n).fill(Infinity);
    let best = { cost: Infinity, at: -1 };
    for (let i = 0; i < n; i++) {
      const { least, cost } = lengths[i];
      const row = i * width;
      const { own, stray } = costs.notes[i];
      let cheapest = Infinity;
      let long = 0;
      let cheapestAstray = Infinity;
      let longAstray = 0;
      const most = Math.min(cost.length, t - least + 1);
      for (let d = 0; d < most; d++) {
        const from = t - least - d;
        const c = starts[row + from] + cost[d];
        if (c < cheapest) {
          cheapest = c;
          long = least + d;
        }
        if (astray && c + stray[from] < cheapestAstray) {
          cheapestAstray = c + stray[from];
          longAstray = least + d;
        }
      }
      if (cheapest === Infinity) continue;
      now[i] = cheapest + own[t];
      const wrong = cheapestAstray + elsewhere[t] + ASTRAY;
      if (wrong < now[i]) [now[i], long] = [wrong, longAstray];
      lasted[row + t] = long;
      if (now[i] < best.cost) best = { cost: now[i], at: row + t };
      const whole = now[i] + rests[count] - rests[t];
      if (whole < final.cost) final = { cost: whole, at: row + t };
    }
    ends = now;
    recent.push({ cost: best.cost - rests[t], at: best.at });
    const paused = recent[t - pause];
    if (paused && paused.cost < anyEnd) [anyEnd, anyAt] = [paused.cost, paused.at];
    for (let i = 0; i < n; i++) {
      const row = i * width;
      let cost = Infinity;
      let from = -1;
      if (i > 0) {
        const rested = notes[i].start - notes[i - 1].start - notes[i - 1].beats > 1e-6;
        // Straight on; where a rest is written that is a slip.
        cost = ends[i - 1] + (rested ? GAP : 0);
        from = (i - 1) * width + t;
        if (ends[i - 1] - rests[t] < gapFrom[i]) {
          gapFrom[i] = ends[i - 1] - rests[t];
          gapAt[i] = t;
        }
        const after = gapFrom[i] + rests[t] + (rested ? 0 : GAP);
        if (after < cost) [cost, from] = [after, (i - 1) * width + gapAt[i]];
      }
      if (barStarts.has(i)) {
        const fresh = rests[t] + (i === 0 ? 0 : BEGINS_INSIDE);
        if (fresh < cost) [cost, from] = [fresh, -2];
        const jumped = anyEnd + rests[t] + JUMP;
        if (jumped < cost) [cost, from] = [jumped, anyAt];
      }
      if (cost === Infinity) continue;
      starts[row + t] = cost - costs.notes[i].own[t] - (t < count ? begins[t] : 0) + costs.notes[i].ringing[t];
      cameFrom[row + t] = from;
    }
  }
  const spans: Span[] = [];
  for (let at = final.at; at >= 0;) {
    const note = Math.floor(at / width);
    const to = at - note * width;
    const from = to - lasted[at];
    spans.push({ note, from, to });
    at = cameFrom[note * width + from];
  }
  // What beginnings were worth told one way from another; how well any of them fits is told without.
  const worth = spans.reduce((sum, { from }) => sum + begins[from], 0);
  return { spans: spans.reverse(), cost: ((final.cost + worth) * FRAME_S) / (Math.max(1, voiced) * frameS) };
}

/** Mean cost of a sounding frame, wherever it was laid: what tells whether this was the song at all. */
function misfit(song: Song, { count, midi, voiced }: Frames, spans: readonly Span[], by: number): number {
  const laid = new Float32Array(count).fill(UNASKED);
  for (const { note, from, to } of spans) for (let t = from; t < to; t++) laid[t] = offBy(midi[t] - song.notes[note].midi - by);
  let sum = 0;
  for (let t = 0; t < count; t++) if (midi[t] > 0) sum += laid[t];
  return sum / Math.max(1, voiced);
}

const offBy = (st: number) => PER_ST * Math.min(MOST_OFF_ST, Math.abs(st));

/** How far the sung pitches lie beside the notes, semitones: their middle, where most agree. */
function tuning(song: Song, { midi }: Frames, spans: readonly Span[], by: number): number {
  const off: number[] = [];
  for (const { note, from, to } of spans) for (let t = from; t < to; t++) if (midi[t] > 0) off.push(midi[t] - song.notes[note].midi - by);
  const middle = off.length ? median(off) : 0;
  return Math.abs(middle) <= 0.5 ? middle : 0;
}

/** How much longer than written each note was sung: the middle of those around it; notes not sung as the nearest that were. */
function pacesOf(song: Song, spans: readonly Span[], frameS: number): number[] {
  const own = new Map<number, number>();
  for (const { note, from, to } of spans) {
    const written = secondsAt(song, song.notes[note].start + song.notes[note].beats) - secondsAt(song, song.notes[note].start);
    own.set(note, ((to - from) * frameS) / written);
  }
  const all = median([...own.values(), ...(own.size ? [] : [1])]);
  return song.notes.map((_, i) => {
    const near: number[] = [];
    for (let j = i - AROUND; j <= i + AROUND; j++) if (own.has(j)) near.push(own.get(j)!);
    return near.length >= 3 ? median(near) : all;
  });
}

function sungNote(
  song: Song,
  { hopS, midi }: Pick<Trace, 'hopS' | 'midi'>,
  { note, from, to }: Span,
  frameS: number,
  by: number,
): SungSongNote {
  const [a, b] = [Math.round((from * frameS) / hopS), Math.round((to * frameS) / hopS)];
  const sung: number[] = [];
  let sounded = 0;
  const arriving = Math.min(ARRIVING_S / hopS, (b - a) / 3);
  const leaving = Math.min(LEAVING_S / hopS, (b - a) / 6);
  for (let i = a; i < b; i++) {
    if (!(midi[i] > 0)) continue;
    sounded++;
    if (i >= a + arriving && i < b - leaving) sung.push(midi[i]);
  }
  const told = sung.length >= LEAST_TOLD ? median(sung) : null;
  return {
    note,
    startS: a * hopS,
    endS: b * hopS,
    soundedS: sounded * hopS,
    sungMidi: told,
    cents: told === null ? null : Math.round(100 * (told - song.notes[note].midi - by)),
  };
}
