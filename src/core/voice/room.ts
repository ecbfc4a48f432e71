import { hann } from '../signal/fft';
import { copySamples, floats, fourTransforms, LANES, place, reserve } from '../signal/kernel';
import { quantile, weightedQuantile } from '../signal/stats';
import { ANALYSIS_RATE } from './types';

/** What a room adds to a voice: how long it rings (to -60 dB), and how loud the reflected sound is beside the direct. */
export interface RoomSound {
  reverbS: number;
  /** Power of the reflected over that of the direct sound while a tone stands. */
  share: number;
}

/** What a room is taken for that was never heard to ring: a furnished one, close to the microphone (common practice). */
export const USUAL_ROOM: RoomSound = { reverbS: 0.3, share: 0.1 };

/** Spectra of 64 ms every 10 ms, at half the analysis rate, of so many seconds at most. */
const RATE = ANALYSIS_RATE / 2;
const WINDOW = 512;
const TRANSFORM = 1024;
const HOP_SAMPLES = 80;
const HOP_SECONDS = HOP_SAMPLES / RATE;
const MOST_SECONDS = 30;
/** Bands of three bins, four bins apart, from 800 to 3500 Hz: under that a gliding harmonic takes too long to leave a band. */
const [FIRST_BIN, LAST_BIN] = [102, 448];
const BAND_STEP = 4;
const BANDS = Math.floor((LAST_BIN - FIRST_BIN) / BAND_STEP);
/** A band's noise, in powers of what it is in its quietest twentieth of every eighth frame. */
const NOISE_STRIDE = 8;
const QUIETEST = 0.05;
const NOISE_OF_QUIETEST = 4;
/** A harmonic goes through a band where it is loudest within 0.1 s, and 20 dB over the noise. */
const PEAK_FRAMES = 10;
const PEAK_OVER_NOISE = 100;
/** It has left after so many frames, by the window's reach; from there the room alone is heard, for 0.4 s at most, */
const LEFT_FRAMES = 8;
const MOST_FRAMES = 40;
const FEWEST_FRAMES = 8;
/** until it is this near the noise, or the next harmonic lifts it by 6 dB, which it began to do a few frames before. */
const OVER_NOISE = 4;
const LIFTED = 4;
const LIFT_FRAMES = 5;
/** What falls less is a tone beside the band, or noise. */
const LEAST_FALL_DB = 2;
/** Fewer decays tell nothing. */
const FEWEST_DECAYS = 6;
/** Rooms people sing in (common practice). */
const [SHORTEST_S, LONGEST_S] = [0.15, 1.6];
/** A harmonic that is still there decays more slowly than the room and holds more: the steepest fifth of slopes, the least tenth of what is held. */
const STEEPEST = 0.2;
const LEAST_HELD = 0.1;
/** Rooms taken for a little too long do less harm than rooms taken for too short: what rings on would be voice (tuned on others' voices). */
const LONGER = 1.15;
/** It has not left a band that holds more than a third of its peak. */
const STILL_THERE = 1 / 3;
/**
 * The reflected part, dB, as a line over what the decays hold (tuned on image-source rooms of 0.3 to 1.1 s with direct sound from
 * 17 dB over to 7 dB under the reflected).
 */
const SHARE_SLOPE = 2.12;
const SHARE_AT_ZERO_DB = 20.6;
const [LEAST_SHARE_DB, MOST_SHARE_DB] = [-13, 3];

/** A stretch of frames of a band, how it falls, dB a second, and how well that is known. */
interface Decay {
  band: number;
  from: number;
  to: number;
  slope: number;
  weight: number;
}

const transforms = fourTransforms(TRANSFORM);
const padded = new Float64Array(TRANSFORM);
padded.set(hann(WINDOW));
const tapers = new Float64Array(LANES).fill(place(padded));
const reach = TRANSFORM + (LANES - 1) * HOP_SAMPLES;
const samplesPlace = reserve(reach);

/**
 * Estimate the room from what stays in a narrow band once a harmonic has gone through it, or a note has ended: reflected sound
 * alone, falling exponentially (Polack 1988), whose slope is the reverberation time and whose height over what was fed into the
 * band is the reflected part. A voice that glides shows hundreds of such decays in a few seconds. Null where hardly any was heard.
 * @param half samples at half the analysis rate
 */
export function estimateRoom(half: Float32Array): RoomSound | null {
  const frames = Math.min(MOST_SECONDS / HOP_SECONDS, Math.floor((half.length - WINDOW) / HOP_SAMPLES));
  if (frames < LEFT_FRAMES + FEWEST_FRAMES) return null;
  const bands = powersOf(half, frames);
  const noise = bands.map((powers) => NOISE_OF_QUIETEST * quantile(everyNth(powers, NOISE_STRIDE), QUIETEST) + 1e-14);
  const decays = bands.flatMap((powers, band) => decaysOf(powers, noise[band]).map((decay): Decay => ({ band, ...decay })));
  if (decays.length < FEWEST_DECAYS) return null;
  const steep = weightedQuantile(
    decays.map(({ slope }) => slope),
    decays.map(({ weight }) => weight),
    STEEPEST,
  );
  const reverbS = Math.min(LONGEST_S, Math.max(SHORTEST_S, (-60 * LONGER) / Math.min(-1, steep)));
  const held = quantile(heldIn(decays, bands, decayOf({ reverbS }, HOP_SECONDS)), LEAST_HELD);
  const shareDb = SHARE_SLOPE * 10 * Math.log10(held) + SHARE_AT_ZERO_DB;
  return { reverbS, share: 10 ** (Math.min(MOST_SHARE_DB, Math.max(LEAST_SHARE_DB, shareDb)) / 10) };
}

/** Decay of power in `hopS` seconds. */
export const decayOf = ({ reverbS }: Pick<RoomSound, 'reverbS'>, hopS: number): number => 10 ** ((-6 * hopS) / reverbS);

/** Power of each band, frame by frame. */
function powersOf(half: Float32Array, frames: number): Float32Array[] {
  const bands = Array.from({ length: BANDS }, () => new Float32Array(frames));
  const starts = Float64Array.from({ length: LANES }, (_, lane) => samplesPlace + 4 * lane * HOP_SAMPLES);
  for (let frame = 0; frame < frames; frame += LANES) {
    copySamples(half, frame * HOP_SAMPLES, reach, samplesPlace);
    transforms.powerSpectra(starts, tapers, WINDOW);
    const data = floats();
    for (let lane = 0; lane < LANES && frame + lane < frames; lane++)
      for (let band = 0, at = transforms.power / 4 + LANES * (FIRST_BIN - 1) + lane; band < BANDS; band++, at += BAND_STEP * LANES)
        bands[band][frame + lane] = (data[at] + data[at + LANES] + data[at + 2 * LANES]) / 3;
  }
  return bands;
}

function everyNth(values: Float32Array, n: number): Float32Array {
  const out = new Float32Array(Math.ceil(values.length / n));
  for (let i = 0; i < out.length; i++) out[i] = values[n * i];
  return out;
}

/** The stretches of a band in which nothing but the room is heard. */
function decaysOf(powers: Float32Array, noise: number): Omit<Decay, 'band'>[] {
  const out: Omit<Decay, 'band'>[] = [];
  for (let peak = PEAK_FRAMES; peak < powers.length; peak++) {
    if (powers[peak] < PEAK_OVER_NOISE * noise || !isLoudest(powers, peak)) continue;
    const from = peak + LEFT_FRAMES;
    let least = Infinity;
    let to = from;
    for (
      ;
      to < Math.min(powers.length, from + MOST_FRAMES) && powers[to] > OVER_NOISE * noise && powers[to] < STILL_THERE * powers[peak];
      to++
    ) {
      if (powers[to] < least) least = powers[to];
      if (powers[to] < LIFTED * least) continue;
      to -= LIFT_FRAMES;
      break;
    }
    if (to - from >= FEWEST_FRAMES) {
      const decay = { from, to, ...slopeOf(powers, from, to, noise) };
      if (-decay.slope * (to - from) * HOP_SECONDS > LEAST_FALL_DB) out.push(decay);
    }
    peak += PEAK_FRAMES - 1;
  }
  return out;
}

function isLoudest(powers: Float32Array, frame: number): boolean {
  for (let i = frame - PEAK_FRAMES; i <= Math.min(powers.length - 1, frame + PEAK_FRAMES); i++) if (powers[i] > powers[frame]) return false;
  return true;
}

/** The slope of a decay, dB a second, noise taken off, and what it weighs. */
function slopeOf(powers: Float32Array, from: number, to: number, noise: number): { slope: number; weight: number } {
  let xy = 0;
  let xx = 0;
  for (let i = from; i < to; i++) {
    const seconds = (i - (from + to - 1) / 2) * HOP_SECONDS;
    xy += seconds * 10 * Math.log10(powers[i] - noise);
    xx += seconds * seconds;
  }
  return { slope: xy / xx, weight: xx };
}

/** What is heard in the decays over what a room that keeps so much a frame was fed until then. */
function heldIn(decays: Decay[], bands: Float32Array[], keep: number): number[] {
  const ratios: number[] = [];
  let next = 0;
  bands.forEach((powers, band) => {
    let fed = 0;
    for (let i = 1; next < decays.length && decays[next].band === band; i++) {
      fed = keep * fed + (1 - keep) * powers[i - 1];
      if (i >= decays[next].from) ratios.push(powers[i] / fed);
      if (i >= decays[next].to - 1) next++;
    }
  });
  return ratios;
}
