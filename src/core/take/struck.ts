import { fitLine, median, quantile } from '../signal/stats';
import { HARMONICS, HOP_S, NO_HARMONIC_DB, VoiceTrack } from '../voice/types';
import { Contour, framesIn } from './contour';
import { noteSpans } from './notes';

/** A voice wanders; a string or a bar stays within this many cents of a straight line two times in three. */
const STEADY_CENTS = 3.5;
const DRIFT_CENTS_PER_S = 12;
const DECAY_DB_PER_S = -5;
/** One that dies away so plainly and so long may waver more: strings beat against each other. */
const PLAIN_DECAY_DB_PER_S = -10;
const PLAIN_LOOK_S = 0.6;
const PLAIN_STEADY_CENTS = 6;
const ATTACK_DB = 8;
/** While one string rings the next stands out less. */
const ATTACK_WHILE_RINGING_DB = 3;
/** The decay is judged on this much of the tone at most, and at least. */
const LONGEST_LOOK_S = 1.2;
const SHORTEST_LOOK_S = 0.08;
/** Something new may have begun when the level rises this far over the quietest since: strings that beat rise too, but faintly. */
const RISE_DB = 6;
const BEATING_BELOW_PEAK_DB = 18;
const BEATING_RISE_DB = 20;
/** Ringing this far under its peak is followed wherever the tracker wanders. */
const FAINT_DB = 30;
const SAME_PITCH_ST = 0.8;
/** A shorter tone may as well be a still voice; notes nearer than this are joined. */
const PLAIN_STRING_S = 0.4;
const JOINED_S = 0.05;

/**
 * Take the sound of struck or plucked instruments (a piano giving the note, a metronome's beep) out of `contour`: tones
 * that start at once, die away and hold their pitch more steadily than any voice, with their ringing, until something new
 * begins. Returns the share of voiced frames taken out.
 */
export function removeStruck(track: VoiceTrack, contour: Contour): number {
  let voiced = 0;
  for (const m of contour) if (!Number.isNaN(m)) voiced++;
  let removed = 0;
  let ringing = 0;
  const strings: { midi: number; levelDb: number }[] = [];
  /** What was taken out on little evidence, until what follows it is known. */
  let doubtful: { from: number; sung: Float64Array } | null = null;
  for (const note of noteSpans(contour)) {
    const start = Math.round(note.startS / HOP_S);
    const end = Math.round(note.endS / HOP_S);
    if (end <= ringing) continue;
    const afterDoubtful: typeof doubtful = doubtful && start - ringing < framesIn(JOINED_S) ? doubtful : null;
    doubtful = null;
    // A string is struck out of silence or while another rings; what follows a voice without a gap is that voice.
    const joins = start - ringing > framesIn(0.1) && sungBefore(contour, start);
    const struck = heardAgain(track, contour, start, end, strings)
      ? { until: end }
      : joins
        ? null
        : struckTone(track, contour, Math.max(start, ringing), end, start - ringing < framesIn(0.1) && ringing > 0);
    if (!struck) {
      // A voice goes on from note to note without a gap: what it goes on from was its own.
      if (afterDoubtful) {
        contour.set(afterDoubtful.sung, afterDoubtful.from);
        removed -= afterDoubtful.sung.filter((m) => !Number.isNaN(m)).length;
        strings.pop();
      }
      continue;
    }
    const last = Math.max(start, struck.until - 1);
    strings.push({ midi: note.midi + note.cents / 100, levelDb: track.levelDb[last] });
    // The blur before the stroke belongs to it.
    let from = start;
    while (from > start - framesIn(0.05) && !Number.isNaN(contour[from - 1])) from--;
    ringing = struck.until;
    if (ringing - from < framesIn(PLAIN_STRING_S)) doubtful = { from, sung: contour.slice(from, ringing) };
    for (let i = from; i < ringing; i++) {
      if (Number.isNaN(contour[i])) continue;
      removed++;
      contour[i] = NaN;
    }
  }
  return voiced ? removed / voiced : 0;
}

/** Whether somebody sang (nothing was taken out) within 80 ms before a frame. */
function sungBefore(contour: Contour, frame: number): boolean {
  let from = frame;
  while (from > 0 && !Number.isNaN(contour[from - 1])) from--;
  return frame - from > framesIn(0.05) || contour.subarray(Math.max(0, from - framesIn(0.08)), from).some((m) => !Number.isNaN(m));
}

/** A string that rang under the voice and is heard again after it: its pitch, no louder than it was, and still. */
function heardAgain(
  track: VoiceTrack,
  contour: Contour,
  start: number,
  end: number,
  strings: { midi: number; levelDb: number }[],
): boolean {
  return strings.some(({ midi, levelDb }) => {
    const middle = (start + end) >> 1;
    return (
      Math.abs(contour[middle] - midi) < 0.3 &&
      median(track.levelDb.subarray(start, end)) < levelDb + 3 &&
      holds(contour, start + framesIn(0.03), midi)
    );
  });
}

/** Whether a tone was struck, and the frame until which it rings alone. */
function struckTone(track: VoiceTrack, contour: Contour, start: number, end: number, whileRinging: boolean): { until: number } | null {
  const level = track.levelDb;
  let peak = start;
  for (let i = start; i < Math.min(end, start + framesIn(0.12)); i++) if (level[i] > level[peak]) peak = i;
  // A take may begin with the stroke itself.
  const before = peak < framesIn(0.06) ? track.floorDb : level[peak - framesIn(0.06)];
  if (level[peak] - before < (whileRinging ? ATTACK_WHILE_RINGING_DB : ATTACK_DB)) return null;
  const until = ringEnd(track, contour, peak);
  const times: number[] = [];
  const levels: number[] = [];
  const cents: number[] = [];
  for (let i = peak + framesIn(0.015); i < Math.min(end, until, peak + framesIn(LONGEST_LOOK_S)); i++) {
    if (Number.isNaN(contour[i])) continue;
    times.push(i * HOP_S);
    levels.push(level[i]);
    cents.push(contour[i] * 100);
  }
  if (times.length < framesIn(SHORTEST_LOOK_S)) return null;
  const decay = fitLine(times, levels).slope;
  if (decay > DECAY_DB_PER_S) return null;
  if (decaysLikeAString(track, contour, peak + framesIn(0.03), Math.min(end, until, peak + framesIn(LONGEST_LOOK_S)))) return { until };
  const drift = fitLine(times, cents);
  if (Math.abs(drift.slope) > DRIFT_CENTS_PER_S / Math.min(1, times.length * HOP_S)) return null;
  const off = cents.map((c, i) => Math.abs(c - drift.intercept - drift.slope * times[i]));
  const plain = decay < PLAIN_DECAY_DB_PER_S && times.length * HOP_S > PLAIN_LOOK_S;
  return quantile(off, 0.68) < (plain ? PLAIN_STEADY_CENTS : STEADY_CENTS) ? { until } : null;
}

/** A string's partials each fall on a straight line of their own, higher ones faster; a voice's swell and waver. */
const PARTIALS = 10;
const PARTIAL_DB_PER_S = -5;
const PARTIAL_STRAY_DB = 1.2;
const FEWEST_PARTIALS = 4;
const STRING_SHARE = 0.7;
const STRING_LOOK_S = 0.35;

function decaysLikeAString(track: VoiceTrack, contour: Contour, from: number, to: number): boolean {
  if (to - from < framesIn(STRING_LOOK_S)) return false;
  let heard = 0;
  let falling = 0;
  for (let k = 0; k < PARTIALS; k++) {
    const times: number[] = [];
    const levels: number[] = [];
    for (let i = from; i < to; i++) {
      const db = track.harmonicsDb[i * HARMONICS + k];
      if (Number.isNaN(contour[i]) || db <= NO_HARMONIC_DB) continue;
      times.push(i * HOP_S);
      levels.push(db);
    }
    if (times.length < 0.8 * (to - from)) continue;
    heard++;
    const { slope, intercept } = fitLine(times, levels);
    const stray = median(levels.map((l, n) => Math.abs(l - intercept - slope * times[n])));
    if (slope < PARTIAL_DB_PER_S && stray < PARTIAL_STRAY_DB) falling++;
  }
  return heard >= FEWEST_PARTIALS && falling >= STRING_SHARE * heard;
}

/** Does a pitch stand still here, as a string's does, for the next quarter of a second? */
function holds(contour: Contour, from: number, pitch: number): boolean {
  const off: number[] = [];
  for (let i = from; i < Math.min(contour.length, from + framesIn(0.25)); i++)
    if (!Number.isNaN(contour[i])) off.push(100 * Math.abs(contour[i] - pitch));
  return off.length === 0 || quantile(off, 0.68) < 2 * STEADY_CENTS;
}

/** First frame after a stroke's peak where the level rises again or another pitch sounds clearly. */
function ringEnd(track: VoiceTrack, contour: Contour, peak: number): number {
  const level = track.levelDb;
  const pitch = contour[Math.min(contour.length - 1, peak + framesIn(0.03))];
  let quietest = level[peak];
  let other = 0;
  for (let i = peak + 1; i < contour.length; i++) {
    quietest = Math.min(quietest, level[i]);
    const rise = level[i] - quietest;
    if (rise > RISE_DB) {
      const beats = level[i] < level[peak] - BEATING_BELOW_PEAK_DB && rise < BEATING_RISE_DB;
      if (!beats || (level[i] > level[peak] - FAINT_DB && !holds(contour, i, pitch))) return i - framesIn(0.02);
      quietest = level[i];
    }
    const away = Math.abs(contour[i] - pitch) % 12;
    other = level[i] > level[peak] - FAINT_DB && Math.min(away, 12 - away) > SAME_PITCH_ST ? other + 1 : 0;
    if (other > framesIn(0.08)) return i - other;
  }
  return contour.length;
}
