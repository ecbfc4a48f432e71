import { Biquad, filter } from './biquad';

/** Corner frequencies of A-weighting, hertz, and its zeros: IEC 61672-1:2013, annex E (20.6, 107.7, 737.9 and 12194 Hz). */
const CORNERS = [20.598997, 107.65265, 737.86223, 12194.217];
/** Time constant of the F weighting of IEC 61672-1. */
const FAST_S = 0.125;

/** A-weighting at `rate` hertz as sections in a row: the standard's poles by the bilinear transform, 0 dB at 1 kHz. */
export function aWeighting(rate: number): Biquad[] {
  const [p1, p2, p3, p4] = CORNERS.map((hz) => 2 * Math.PI * hz);
  const sections = [section(rate, [1, 0, 0], p1, p1), section(rate, [1, 0, 0], p2, p3), section(rate, [0, 0, 1], p4, p4)];
  const gain = sections.reduce((g, s) => g * gainAt(s, 1000, rate), 1);
  const { b0, b1, b2 } = sections[0];
  return [{ ...sections[0], b0: b0 / gain, b1: b1 / gain, b2: b2 / gain }, ...sections.slice(1)];
}

/** (a s^2 + b s + c) / ((s + p) (s + q)) by the bilinear transform. */
function section(rate: number, [a, b, c]: number[], p: number, q: number): Biquad {
  const k = 2 * rate;
  const a0 = (k + p) * (k + q);
  return {
    b0: (a * k * k + b * k + c) / a0,
    b1: (2 * c - 2 * a * k * k) / a0,
    b2: (a * k * k - b * k + c) / a0,
    a1: ((p - k) * (q + k) + (p + k) * (q - k)) / a0,
    a2: ((k - p) * (k - q)) / a0,
  };
}

/** How much a section lets through at `hz`, as a factor of amplitude. */
export function gainAt({ b0, b1, b2, a1, a2 }: Biquad, hz: number, rate: number): number {
  const w = (2 * Math.PI * hz) / rate;
  const size = (x: number, y: number, z: number) =>
    Math.hypot(x + y * Math.cos(w) + z * Math.cos(2 * w), y * Math.sin(w) + z * Math.sin(2 * w));
  return size(b0, b1, b2) / size(1, a1, a2);
}

/** A sound-level meter, A-weighted and fast: push blocks, get the level after each, dB relative to a mean square of 1. */
export function createLevelMeter(rate: number): (block: Float32Array) => number {
  const sections = aWeighting(rate);
  const states = sections.map(() => new Float64Array(2));
  const share = 1 - Math.exp(-1 / (FAST_S * rate));
  let mean = 0;
  return (block) => {
    const weighted = new Float32Array(block.length);
    sections.forEach((s, i) => filter(s, i === 0 ? block : weighted, weighted, states[i]));
    for (let i = 0; i < weighted.length; i++) mean += share * (weighted[i] * weighted[i] - mean);
    return 10 * Math.log10(mean + 1e-14);
  };
}

/** What a sound calibrator gives: 94 dB (1 Pa) at 1 kHz (IEC 60942). */
export const CALIBRATOR_DB = 94;
const CALIBRATOR_HZ = 1000;
const OFF_PITCH = 0.03;
const LEAST_SHARE = 0.95;
const UNSTEADY_DB = 0.5;

/** What a calibrator's tone reads here: dB relative to a mean square of 1, or why it can't be used, with what to do. */
export type CalibratorReading = { levelDb: number } | { reason: string };

/** Read two seconds or so of a calibrator's tone at `rate` hertz. */
export function readCalibrator(samples: Float32Array, rate: number): CalibratorReading {
  const piece = Math.round(0.1 * rate);
  const levels: number[] = [];
  let whole = 0;
  let loudest = 0;
  for (let at = 0; at + piece <= samples.length; at += piece) {
    let sum = 0;
    for (let i = at; i < at + piece; i++) {
      sum += samples[i] * samples[i];
      loudest = Math.max(loudest, Math.abs(samples[i]));
    }
    levels.push(10 * Math.log10(sum / piece + 1e-14));
    whole += sum / piece;
  }
  const mean = whole / levels.length;
  if (levels.length < 10 || 10 * Math.log10(mean + 1e-14) < -80)
    return { reason: 'No tone was heard: put the calibrator on the microphone, switch it on, and measure again.' };
  if (loudest > 0.985) return { reason: 'The tone is clipped: turn the input down, then measure again.' };
  if (toneShare(samples, rate, mean) < LEAST_SHARE)
    return { reason: 'This is not a plain tone of 1 kHz: seat the calibrator firmly, keep the room quiet, and measure again.' };
  if (Math.max(...levels) - Math.min(...levels) > UNSTEADY_DB)
    return { reason: 'The tone is not steady: seat the calibrator firmly and measure again.' };
  return { levelDb: 10 * Math.log10(mean) };
}

/** Share of the power that lies within a few per cent of the calibrator's pitch: the best single sinusoid there. */
function toneShare(samples: Float32Array, rate: number, mean: number): number {
  const n = Math.min(samples.length, Math.round(0.25 * rate));
  let most = 0;
  for (let hz = CALIBRATOR_HZ * (1 - OFF_PITCH); hz <= CALIBRATOR_HZ * (1 + OFF_PITCH); hz += 1) {
    let cos = 0;
    let sin = 0;
    for (let i = 0; i < n; i++) {
      const w = (2 * Math.PI * hz * i) / rate;
      cos += samples[i] * Math.cos(w);
      sin += samples[i] * Math.sin(w);
    }
    most = Math.max(most, (2 * (cos * cos + sin * sin)) / n ** 2);
  }
  return most / mean;
}

/** A level measured at one distance from the mouth as it would be at another, dB (inverse distance, a free field). */
export const atDistance = (db: number, measuredCm: number, wantedCm: number): number => db + 20 * Math.log10(measuredCm / wantedCm);
