import { fitLine, median } from '../signal/stats';
import { HARMONICS, NO_HARMONIC_DB, VoiceTrack } from '../voice/types';
import { Contour, framesIn } from './contour';
import { noteSpans } from './notes';

/** No voice holds a pitch straighter than this, cents about a line, nor so level, cents a second (others' straight tones: from 4 cents). */
const STRAIGHT_CENTS = 1.5;
const LEVEL_CENTS_PER_S = 4;
/** Frames at both ends of a note that are its coming and going. */
const EDGE_FRAMES = 4;
/** Shorter ones tell nothing. */
const LEAST_S = 0.06;

/** All its tones lie within so many cents of each other. */
const ONE_PITCH_CENTS = 5;

/** Share of what sounds that is one pitch, held as no voice can: a drone, a metronome's beeps. */
export function machineShare(contour: Contour): number {
  let sung = 0;
  const straight: { cents: number; frames: number }[] = [];
  for (const m of contour) if (!Number.isNaN(m)) sung++;
  for (const { startS, endS } of noteSpans(contour)) {
    const frames: number[] = [];
    const cents: number[] = [];
    for (let i = framesIn(startS) + EDGE_FRAMES; i < framesIn(endS) - EDGE_FRAMES; i++)
      if (!Number.isNaN(contour[i])) {
        frames.push(i);
        cents.push(100 * contour[i]);
      }
    if (frames.length < framesIn(LEAST_S)) continue;
    const { slope, intercept } = fitLine(frames, cents);
    const off = Math.sqrt(cents.reduce((s, c, i) => s + (c - intercept - slope * frames[i]) ** 2, 0) / cents.length);
    if (off < STRAIGHT_CENTS && Math.abs(slope) * framesIn(1) < LEVEL_CENTS_PER_S)
      straight.push({ cents: median(cents), frames: framesIn(endS - startS) });
  }
  const one = median(straight.map((s) => s.cents));
  const same = straight.filter((s) => Math.abs(s.cents - one) < ONE_PITCH_CENTS);
  return sung ? same.reduce((sum, s) => sum + s.frames, 0) / sung : 0;
}

/** Whistles begin about here, hertz. */
const LOWEST_WHISTLE_HZ = 450;

/** Share of what is sung that is high and has no second harmonic at all: a whistle, where the room is quiet enough to tell. */
export function whistleShare(track: VoiceTrack, contour: Contour): number {
  let sung = 0;
  let pure = 0;
  for (let i = 0; i < contour.length; i++) {
    if (Number.isNaN(contour[i])) continue;
    sung++;
    if (track.f0[i] > LOWEST_WHISTLE_HZ && track.harmonicsDb[i * HARMONICS + 1] === NO_HARMONIC_DB) pure++;
  }
  return sung ? pure / sung : 0;
}
