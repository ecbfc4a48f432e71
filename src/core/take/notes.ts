import { fitLine, median, quantile } from '../signal/stats';
import { HOP_S } from '../voice/types';
import { Contour, filled, framesIn, phrases } from './contour';
import { noteShape } from './note-shape';
import { NoteSpan, Range, SungNote } from './types';

const CHANGE_COST = 10;
const MISFIT_CEILING = 1.5;
const MIN_NOTE_S = 0.08;

/**
 * Split singing into notes by dynamic programming: each frame pays for its distance from a whole semitone
 * (squared, up to a ceiling) and each change of note pays once, so that vibrato and slides between notes make none.
 */
export function noteSpans(contour: Contour): NoteSpan[] {
  return phrases(contour, 0.04, MIN_NOTE_S).flatMap(([start, end]) => notesOfPhrase(filled(contour, start, end), start));
}

/** The notes with how each was sung. */
export function sungNotes(contour: Contour): SungNote[] {
  return noteSpans(contour).map((note) => {
    const [from, to] = [note.startS, note.endS].map((s) => Math.round(s / HOP_S));
    return { ...note, ...noteShape(contour, from, to, note.midi + note.cents / 100) };
  });
}

function notesOfPhrase(midi: Float64Array, startFrame: number): NoteSpan[] {
  let low = Infinity;
  let high = -Infinity;
  for (const m of midi) {
    low = Math.min(low, m);
    high = Math.max(high, m);
  }
  const first = Math.floor(low);
  const states = Math.ceil(high) - first + 1;
  const n = midi.length;
  const back = new Int16Array(n * states);
  let cost = new Float64Array(states);
  let next = new Float64Array(states);
  for (let i = 0; i < n; i++) {
    let cheapest = 0;
    for (let s = 1; s < states; s++) if (cost[s] < cost[cheapest]) cheapest = s;
    for (let s = 0; s < states; s++) {
      const stay = cost[s];
      const change = cost[cheapest] + CHANGE_COST;
      const keep = i === 0 || stay <= change;
      back[i * states + s] = keep ? s : cheapest;
      next[s] = (keep ? stay : change) + Math.min(MISFIT_CEILING, 4 * (midi[i] - first - s) ** 2);
    }
    [cost, next] = [next, cost];
  }
  let state = 0;
  for (let s = 1; s < states; s++) if (cost[s] < cost[state]) state = s;
  const chosen = new Int16Array(n);
  for (let i = n - 1; i >= 0; i--) {
    chosen[i] = state;
    state = back[i * states + state];
  }
  const runs: [from: number, to: number][] = [];
  for (let i = 0; i < n;) {
    let j = i;
    while (j < n && chosen[j] === chosen[i]) j++;
    runs.push([i, j]);
    i = j;
  }
  return settled(midi, runs)
    .filter(([from, to]) => (to - from) * HOP_S >= MIN_NOTE_S)
    .map(([from, to]) => {
      const inset = Math.floor((to - from) * INSET);
      const centre = median(midi.subarray(from + inset, to - inset));
      const nominal = Math.round(centre);
      return {
        startS: (startFrame + from) * HOP_S,
        endS: (startFrame + to) * HOP_S,
        midi: nominal,
        cents: Math.round((centre - nominal) * 1000) / 10,
      };
    });
}

/** Share of a note at each end that isn't asked for its pitch. */
const INSET = 0.15;
/** A pitch that still moves this fast (semitones a second) toward the note after it is that note, settling: a scoop, or a flip's overshoot. */
const SETTLING_ST_PER_S = 2.5;
const SETTLING_S = 0.2;
const SETTLING_ST = 2.2;

/** Runs of one semitone with those that only settle joined to the one they settle on. */
function settled(midi: Float64Array, runs: [from: number, to: number][]): [from: number, to: number][] {
  const out: [from: number, to: number][] = [];
  let waiting: [from: number, to: number] | null = null;
  runs.forEach(([own, to], r) => {
    const from = waiting ? waiting[0] : own;
    waiting = null;
    const next = runs[r + 1];
    if (next && (to - own) * HOP_S < SETTLING_S && settlesOn(midi, own, to, next)) waiting = [from, to];
    else out.push([from, to]);
  });
  return out;
}

function settlesOn(midi: Float64Array, from: number, to: number, next: [from: number, to: number]): boolean {
  const goal = median(midi.subarray(next[0], next[1]));
  const away = goal - median(midi.subarray(from, to));
  if (Math.abs(away) > SETTLING_ST) return false;
  // A quarter off each end: the blur of the steps before and after.
  const inset = Math.floor((to - from) / 4);
  const part = midi.subarray(from + inset, to - inset);
  if (part.length < 2) return true;
  const { slope } = fitLine(
    Array.from(part, (_, i) => i * HOP_S),
    part,
  );
  return slope * Math.sign(away) > SETTLING_ST_PER_S;
}

/** A pitch counts for the range where it was phonated this long without a leap, and not so far under the take's own voice: not a room's tail, not a slip. */
const PHONATED_S = 0.1;
const UNDER_VOICE_DB = 40;
const LEAP_ST = 1.5;

/** Lowest and highest pitch phonated without a break for PHONATED_S; null when there is none. */
export function phonatedRange(contour: Contour, levelDb: ArrayLike<number>): Range | null {
  const width = framesIn(PHONATED_S);
  const sung: number[] = [];
  for (let i = 0; i < contour.length; i++) if (!Number.isNaN(contour[i])) sung.push(levelDb[i]);
  const least = quantile(sung, 0.95) - UNDER_VOICE_DB;
  let lowestMidi = Infinity;
  let highestMidi = -Infinity;
  for (let i = 0; i + width <= contour.length; i++) {
    let low = Infinity;
    let high = -Infinity;
    for (let j = i; j < i + width; j++) {
      const m = contour[j];
      const leapt = j > i && Math.abs(m - contour[j - 1]) > LEAP_ST;
      if (Number.isNaN(m) || leapt || levelDb[j] < least) {
        low = NaN;
        break;
      }
      low = Math.min(low, m);
      high = Math.max(high, m);
    }
    if (Number.isNaN(low)) continue;
    highestMidi = Math.max(highestMidi, low);
    lowestMidi = Math.min(lowestMidi, high);
  }
  return highestMidi > -Infinity ? { lowestMidi, highestMidi } : null;
}

/** Semitones of a held note's centre within which its frames lie, all but a few. */
const HELD_WITHIN = 0.6;

/** How far apart the values of two sets of one size lie at least. */
function apart(a: Float64Array, b: Float64Array): number {
  let [lowA, highA, lowB, highB] = [a[0], a[0], b[0], b[0]];
  for (let i = 1; i < a.length; i++) {
    lowA = Math.min(lowA, a[i]);
    highA = Math.max(highA, a[i]);
    lowB = Math.min(lowB, b[i]);
    highB = Math.max(highB, b[i]);
  }
  return Math.max(lowA - highB, lowB - highA);
}

/** Lowest and highest pitch held at least 0.5 s within 50 cents of its centre (vibrato averaged out). */
export function heldRange(contour: Contour): Range | null {
  const width = framesIn(0.5);
  const outsiders = Math.floor(0.15 * width);
  let lowestMidi = Infinity;
  let highestMidi = -Infinity;
  for (const [start, end] of phrases(contour, 0.03, 0.5)) {
    const midi = filled(contour, start, end);
    for (let i = 0; i + width <= midi.length; i += 4) {
      const part = midi.subarray(i, i + width);
      // Of either end's frames one at least must lie near the centre: a glide is told without sorting.
      if (apart(part.subarray(0, outsiders + 1), part.subarray(width - outsiders - 1)) > 2 * HELD_WITHIN) continue;
      const centre = median(part);
      let outside = 0;
      for (const m of part) if (Math.abs(m - centre) > HELD_WITHIN) outside++;
      if (outside > outsiders) continue;
      const [first, second] = [part.subarray(0, width >> 1), part.subarray(width >> 1)].map(median);
      if (Math.abs(second - first) > 0.5) continue;
      lowestMidi = Math.min(lowestMidi, centre);
      highestMidi = Math.max(highestMidi, centre);
    }
  }
  return highestMidi > -Infinity ? { lowestMidi, highestMidi } : null;
}
