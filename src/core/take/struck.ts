import { median, quantile } from '../signal/stats';
import { HOP_S, VoiceTrack } from '../voice/types';
import { Contour, framesIn } from './contour';
import { noteSpans } from './notes';
import { oddsOfString } from './struck-odds';

const ATTACK_DB = 8;
/** While one string rings the next stands out less. */
const ATTACK_WHILE_RINGING_DB = 3;
/** A damper falls on a string, or a voice stops: this much in 50 ms. */
const DAMPED_DB = 6;
/** While the stroke itself sounds a high string falls as fast. */
const STROKE_S = 0.2;
/** A tone this far under its peak tells no more. */
const SPENT_DB = 20;
/** Log odds over which a tone is taken for struck: of tones that fall as fast 93 % of a piano's, 5.5 % of voices'. */
const STRUCK_ODDS = -0.5;
/** The decay is judged on this much of the tone at most. */
const LONGEST_LOOK_S = 1.2;
/** Something new may have begun when the level rises this far over the quietest since: strings that beat rise too, but faintly. */
const RISE_DB = 6;
const BEATING_RISE_DB = 20;
/** A string's pitch settles by no more after the stroke, semitones, and stays within so much of its middle two times in three. */
const SETTLES_ST = 0.3;
const STILL_CENTS = 7;
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
  const lead = start - framesIn(0.04);
  const before = lead < 0 ? track.floorDb : level.subarray(lead, start + 1).reduce((least, db) => Math.min(least, db));
  if (level[peak] - before < (whileRinging ? ATTACK_WHILE_RINGING_DB : ATTACK_DB)) return null;
  const until = ringEnd(track, contour, peak);
  const odds = oddsOfString(track, contour, peak, Math.min(end, until, heldUntil(level, peak, until), peak + framesIn(LONGEST_LOOK_S)));
  return odds > STRUCK_ODDS ? { until } : null;
}

/** The frame until which a tone sounds by itself: until a damper falls or it is faint; what rings on then is the room. */
function heldUntil(level: Float32Array, peak: number, until: number): number {
  const over = framesIn(0.05);
  for (let i = peak; i < until; i++) {
    if (level[i] < level[peak] - SPENT_DB) return i;
    if (i > peak + framesIn(STROKE_S) && level[i] < level[i - over] - DAMPED_DB) return i - over;
  }
  return until;
}

/** Does this pitch stand still here, as a string's does (it settles a little after the stroke), for the next quarter of a second? */
function holds(contour: Contour, from: number, pitch: number): boolean {
  const next = contour.subarray(from, from + framesIn(0.25)).filter((m) => !Number.isNaN(m));
  if (next.length === 0) return true;
  const middle = median(next);
  if (Math.abs(middle - pitch) > SETTLES_ST) return false;
  return (
    quantile(
      next.map((m) => 100 * Math.abs(m - middle)),
      0.68,
    ) < STILL_CENTS
  );
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
      if (rise > BEATING_RISE_DB || (level[i] > level[peak] - FAINT_DB && !holds(contour, i, pitch))) return i - framesIn(0.02);
      quietest = level[i];
    }
    const away = Math.abs(contour[i] - pitch) % 12;
    other = level[i] > level[peak] - FAINT_DB && Math.min(away, 12 - away) > SAME_PITCH_ST ? other + 1 : 0;
    if (other > framesIn(0.08)) return i - other;
  }
  return contour.length;
}
