import { KeyInTime, meantAt, renderKey, SoundingNote } from '../exercise/render';
import { median, quantile } from '../signal/stats';
import type { Trace } from '../take/types';
import { NEAR_ST, OCTAVE_ST, putRight, shiftTo } from './misread';
import type { Asked, KeyHeard, NoteHeard } from './types';

/** The first key may begin so much before, and so much after, where the follow-along has it: a take begins with its chord, or with the voice. */
const EARLIEST_S = 0.6;
const LATEST_S = 2.5;
/** Each key is looked for so far around that. */
const KEY_REACH_S = 0.6;
const STRIDE_S = 0.02;
/** A voice by itself takes so many times as long, as the piano that went before, the piano's own pace first (this house's). */
const PACES = [1, 0.8, 0.9, 1.12, 1.26, 1.41, 1.58];
/** Another pace than the piano's must agree better by this share. */
const PACE_GAIN = 0.03;
/** What sounds this near its note counts fully for where a key begins, what is this far not at all; semitones. */
const FAR_ST = 3;

/** Costs of a frame: a wrong pitch at most, silence in a note, voice where none was asked. */
const MOST_OFF_ST = 4;
const SILENT = 0.8;
/** A pitch misread by a whole ratio is there, and tells no more than silence. */
const MISREAD = 0.8;
const UNASKED = 1.2;
/** A note may come this much early or late; each further second costs so much a frame. */
const LEEWAY_S = 0.12;
const LATE_PER_S = 6;
/** Inside a slide each semitone is a place of its own, this wide for nothing. */
const SLIDE_FREE_ST = 0.5;

/** The beginning of a note is on its way, its end on its way out; seconds that don't tell its pitch, and the share of a short note they take at most. */
const ARRIVING_S = 0.09;
const LEAVING_S = 0.03;
const MOST_ON_THE_WAY = 0.4;
const LEAST_TOLD_FRAMES = 4;
/** A last note that is held on counts so much longer than it was asked for. */
const RINGING_S = 0.05;
/** The middle half of a take that is off by the same throughout lies within this, semitones. */
const ALIKE_ST = 0.8;

/** What aligning reads of a trace. */
type Curve = Pick<Trace, 'hopS' | 'midi' | 'levelDb'>;

/** One stretch of a key in time with one pitch meant. */
interface Place {
  note: number;
  midi: number;
  startS: number;
  endS: number;
  freeSt: number;
}

/**
 * Find each key and each of its notes in what was sung: the take is laid over the follow-along in time, then every key by dynamic
 * programming over its notes (a slide being one place a semitone), which allows for coming early and late but keeps the order.
 * A take sung in another octave throughout is read in the octave asked for.
 *
 * @returns a key for each asked, in order (those hardly sung have notes without sound), and the pitch of each frame in the octave
 * asked for, MIDI, 0 where nothing is sung; `octave`: semitones (a multiple of 12) it was sung higher than asked.
 */
export function alignKeys(asked: Asked, trace: Curve): { keys: KeyHeard[]; midi: readonly number[]; octave: number } {
  const { laid, begins, shift } = (asked.alone ? PACES : [1])
    .map((pace, i) => ({ ...laidOver(asked, asked.tempo / pace, trace), least: i === 0 ? 0 : PACE_GAIN }))
    .reduce((best, at) => (at.fit > best.fit * (1 + at.least) ? at : best));
  const { octave, off } = transposed(laid, begins, shift, trace);
  let midi = trace.midi.map((m) => (m > 0 ? m - octave : 0));
  const sung = (i: number) => midi[i] ?? 0;
  const inKey = (i: number) => (midi[i] > 0 ? midi[i] - off : 0);
  const keys = laid.map((key, k) => {
    const at = begins[k] + shift + bestOf(-KEY_REACH_S, KEY_REACH_S, (o) => fitOf(key, begins[k] + shift + o, trace.hopS, inKey)).at;
    const heard = keyHeard(key, at, trace, sung, inKey);
    // Where notes begin and end is told by pitch: what was misread hides it.
    const right = putRight(midi, heard.notes, trace.hopS);
    if (!right) return heard;
    midi = right;
    return keyHeard(key, at, trace, sung, inKey);
  });
  return { keys, midi, octave };
}

/** What is asked at a tempo, and where it lies over the take. */
function laidOver(asked: Asked, tempo: number, trace: Curve) {
  const laid = asked.keys.map((tonic) => renderKey(asked.exercise, tonic, tempo));
  const inTurn: number[] = [];
  laid.reduce((at, key, k) => ((inTurn[k] = at), at + key.totalS), 0);
  const begins = asked.startsS ?? inTurn;
  const { at: shift, worth } = bestShift(laid, begins, trace);
  // A slower pace meets more frames: what counts is the share of what could agree.
  return {
    laid,
    begins,
    shift,
    fit: worth / laid.reduce((s, key) => s + key.notes.reduce((n, { startS, endS }) => n + endS - startS, 0), 0),
  };
}

/** How well a key laid at a time agrees with what was sung there: sound where it was asked and near its pitch, silence around it. */
function fitOf(key: KeyInTime, at: number, hopS: number, sung: (i: number) => number): number {
  let fit = 0;
  for (let s = 0; s < key.totalS; s += STRIDE_S) {
    const midi = sung(Math.round((at + s) / hopS));
    const meant = meantAt(key.notes, s);
    if (!(midi > 0)) continue;
    fit += meant === null ? -1 : 2 - Math.min(1, offBy(midi, meant) / FAR_ST);
  }
  return fit;
}

/** Whatever octave it is in. */
const offBy = (midi: number, meant: number) => Math.abs(midi - meant - OCTAVE_ST * Math.round((midi - meant) / OCTAVE_ST));

function bestShift(laid: readonly KeyInTime[], begins: readonly number[], trace: Curve): Best {
  const chordS = laid[0]?.chordS ?? 0;
  const sung = (i: number) => trace.midi[i] ?? 0;
  return bestOf(-chordS - EARLIEST_S, LATEST_S, (o) => laid.reduce((sum, key, k) => sum + fitOf(key, begins[k] + o, trace.hopS, sung), 0));
}

interface Best {
  at: number;
  worth: number;
}

function bestOf(from: number, to: number, worth: (at: number) => number): Best {
  let best = { at: 0, worth: worth(0) };
  for (let at = from; at <= to; at += STRIDE_S) {
    const w = worth(at);
    if (w > best.worth) best = { at, worth: w };
  }
  return best;
}

/** How far off the whole take lies: octaves, which don't count, and what is left, semitones; 0 where it isn't alike throughout. */
function transposed(laid: readonly KeyInTime[], begins: readonly number[], shift: number, trace: Curve): { octave: number; off: number } {
  const off: number[] = [];
  laid.forEach((key, k) => {
    for (let s = 0; s < key.totalS; s += STRIDE_S) {
      const meant = meantAt(key.notes, s);
      const midi = trace.midi[Math.round((begins[k] + shift + s) / trace.hopS)];
      if (meant !== null && midi > 0) off.push(midi - meant);
    }
  });
  if (off.length === 0) return { octave: 0, off: 0 };
  const all = median(off);
  const octave = OCTAVE_ST * Math.round(all / OCTAVE_ST);
  const alike = quantile(off, 0.75) - quantile(off, 0.25) < ALIKE_ST;
  return { octave, off: alike ? all - octave : 0 };
}

/** Stretches of one pitch meant: a note, or a semitone of a slide. */
function placesOf({ notes }: KeyInTime, at: number): Place[] {
  return notes.flatMap((note, i): Place[] => {
    const next = notes[i + 1];
    const way = note.slide && next ? next.midi - note.midi : 0;
    const parts = Math.max(1, Math.round(Math.abs(way)));
    const longS = (note.endS - note.startS) / parts;
    return Array.from({ length: parts }, (_, p) => ({
      note: i,
      midi: note.midi + (way * (p + 0.5)) / parts,
      startS: at + note.startS + p * longS,
      endS: at + note.startS + (p + 1) * longS,
      freeSt: way === 0 ? 0 : SLIDE_FREE_ST,
    }));
  });
}

function keyHeard(key: KeyInTime, at: number, trace: Curve, sung: (i: number) => number, inKey: (i: number) => number): KeyHeard {
  const places = placesOf(key, at);
  const from = Math.max(0, Math.round((places[0].startS - KEY_REACH_S) / trace.hopS));
  const to = Math.min(trace.midi.length, Math.round((places[places.length - 1].endS + KEY_REACH_S) / trace.hopS));
  const bounds = follow(places, from, to, trace.hopS, inKey);
  // What rings on after its time is the room's.
  const end = Math.round((places[places.length - 1].endS + RINGING_S) / trace.hopS);
  bounds[places.length] = Math.max(bounds[places.length - 1], Math.min(bounds[places.length], end));
  const notes = key.notes.map((note, i): NoteHeard => {
    const own = places.flatMap((p, b) => (p.note === i ? [b] : []));
    const [a, b] = [bounds[own[0]], bounds[own[own.length - 1] + 1]];
    return noteHeard(note, i + 1 < key.notes.length && note.slide, a, b, trace, sung);
  });
  let voiced = 0;
  for (let i = from; i < to; i++) if (sung(i) > 0) voiced++;
  const share = (voiced * trace.hopS) / notes.reduce((s, n) => s + n.askedS, 0);
  return { tonicMidi: key.tonic, startS: notes[0].startS, endS: notes[notes.length - 1].endS, share, notes };
}

/** Frames at which each place begins, and the last ends, by the cheapest way through them in order (silence before and after). */
function follow(places: readonly Place[], from: number, to: number, hopS: number, sung: (i: number) => number): number[] {
  const states = places.length + 2;
  const frames = Math.max(0, to - from);
  const cost = (state: number, i: number) => {
    const midi = sung(i);
    if (state === 0 || state === states - 1) return midi > 0 ? UNASKED : 0;
    const { midi: meant, startS, endS, freeSt } = places[state - 1];
    const timeS = i * hopS;
    const late = Math.max(0, startS - timeS, timeS - endS);
    const off = Math.max(0, Math.abs(midi - meant) - freeSt);
    const pitch = off > MOST_OFF_ST && shiftTo(midi, meant, freeSt + NEAR_ST) !== null ? MISREAD : Math.min(MOST_OFF_ST, off);
    return (midi > 0 ? pitch : SILENT) + LATE_PER_S * Math.max(0, late - LEEWAY_S);
  };
  let best = new Float64Array(states).fill(Infinity);
  best[0] = 0;
  const cameOn: Uint8Array[] = [];
  for (let f = 0; f < frames; f++) {
    const next = new Float64Array(states);
    const came = new Uint8Array(states);
    for (let s = 0; s < states; s++) {
      const moved = s > 0 ? best[s - 1] : Infinity;
      came[s] = moved < best[s] ? 1 : 0;
      next[s] = Math.min(best[s], moved) + cost(s, from + f);
    }
    best = next;
    cameOn.push(came);
  }
  const bounds = new Array<number>(places.length + 1).fill(to);
  // A voice cut off at the take's end never comes to the silence after.
  let state = best[states - 1] <= best[states - 2] ? states - 1 : states - 2;
  for (let f = frames - 1; f >= 0 && state > 0; f--)
    if (cameOn[f][state]) {
      bounds[state - 1] = from + f;
      state--;
    }
  for (let s = state; s > 0; s--) bounds[s - 1] = from;
  return bounds;
}

function noteHeard(note: SoundingNote, slide: boolean, a: number, b: number, trace: Curve, sung: (i: number) => number): NoteHeard {
  const frames = Array.from({ length: Math.max(0, b - a) }, (_, i) => a + i).filter((i) => sung(i) > 0);
  const [arriving, leaving] = [ARRIVING_S, LEAVING_S].map((s) => Math.min(s / trace.hopS, (MOST_ON_THE_WAY * (b - a)) / 2));
  const core = slide ? frames : frames.filter((i) => i >= a + arriving && i < b - leaving);
  const told = core.length >= LEAST_TOLD_FRAMES;
  return {
    midi: note.midi,
    slide,
    askedS: note.endS - note.startS,
    startS: a * trace.hopS,
    endS: b * trace.hopS,
    soundedS: frames.length * trace.hopS,
    sungMidi: told && !slide ? median(core.map(sung)) : null,
    levelDb: told ? median(core.map((i) => trace.levelDb[i])) : null,
  };
}
