import { fitLine } from '../signal/stats';
import { VoiceTrack } from '../voice/types';
import { Contour, framesIn } from './contour';
import { sungNotes } from './notes';

/** A voice wanders; a string or a bar stays within this many cents of a straight line. */
const STEADY_CENTS = 3.5;
const DECAY_DB_PER_S = -5;
const ATTACK_DB = 8;

/**
 * Take the sound of struck or plucked instruments (a piano giving the note, a metronome's beep) out of `contour`:
 * tones that start at once, die away evenly and hold their pitch more steadily than any voice.
 * Returns the share of voiced frames taken out.
 */
export function removeStruck(track: VoiceTrack, contour: Contour): number {
  let voiced = 0;
  for (const m of contour) if (!Number.isNaN(m)) voiced++;
  let removed = 0;
  for (const note of sungNotes(contour)) {
    const start = Math.round(note.startS / 0.005);
    const end = Math.round(note.endS / 0.005);
    if (!isStruck(track, contour, start, end)) continue;
    for (let i = start; i < end; i++) {
      if (!Number.isNaN(contour[i])) removed++;
      contour[i] = NaN;
    }
    // The blur around a struck tone belongs to it.
    for (const [from, step] of [
      [start - 1, -1],
      [end, 1],
    ]) {
      for (let i = from, n = 0; n < framesIn(0.05) && contour[i] !== undefined && !Number.isNaN(contour[i]); i += step, n++) {
        contour[i] = NaN;
        removed++;
      }
    }
  }
  return voiced ? removed / voiced : 0;
}

function isStruck(track: VoiceTrack, contour: Contour, start: number, end: number): boolean {
  const frames = end - start;
  if (frames < framesIn(0.1)) return false;
  const level = track.levelDb;
  let peak = start;
  for (let i = start; i < Math.min(end, start + framesIn(0.12)); i++) if (level[i] > level[peak]) peak = i;
  const before = level[Math.max(0, peak - framesIn(0.06))];
  if (level[peak] - before < ATTACK_DB) return false;
  const times: number[] = [];
  const levels: number[] = [];
  const pitches: number[] = [];
  for (let i = peak + framesIn(0.03); i < end - framesIn(0.02); i++) {
    if (Number.isNaN(contour[i])) continue;
    times.push(i * 0.005);
    levels.push(level[i]);
    pitches.push(contour[i] * 100);
  }
  if (times.length < 8) return false;
  const decay = fitLine(times, levels);
  if (decay.slope > DECAY_DB_PER_S) return false;
  const drift = fitLine(times, pitches);
  const off = pitches.map((p, i) => Math.abs(p - drift.intercept - drift.slope * times[i])).sort((a, b) => a - b);
  return off[Math.floor(off.length * 0.68)] < STEADY_CENTS && Math.abs(drift.slope) < 40;
}
