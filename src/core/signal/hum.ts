import { filter, notchAt } from './biquad';

/** Mains frequencies, hertz. */
const MAINS = [50, 60];
const HARMONICS = 8;
/** A line stands this far (power) over what lies half-way to its neighbours. */
const STANDS_OUT = 10;
const NOTCH_Q = 25;
const SETTLE_S = 0.3;
const LONGEST_S = 1;
/** Samples taken together. */
const STEP = 8;
/** Shorter stretches can't tell a line from the rumble beside it. */
export const SHORTEST_QUIET_S = 0.25;

/**
 * The lines of mains hum in a stretch where nobody sings (at least SHORTEST_QUIET_S): their frequencies in hertz, none when
 * there is no hum over `leastPower` (mean square of a line).
 */
export function humLines(quiet: Float32Array, rate: number, leastPower: number): number[] {
  const n = Math.floor(Math.min(quiet.length, LONGEST_S * rate) / STEP);
  if (n * STEP < SHORTEST_QUIET_S * rate) return [];
  // Means of STEP samples: the lines lie low, and what folds on to them from above is no louder than what was there.
  const coarse = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    let sum = 0;
    for (let k = 0; k < STEP; k++) sum += quiet[i * STEP + k];
    coarse[i] = (sum / STEP) * (1 - Math.cos((2 * Math.PI * (i + 0.5)) / n));
  }
  const power = (hz: number) => {
    const w = (Math.PI * hz) / rate;
    const dulled = Math.sin(STEP * w) / (STEP * Math.sin(w));
    return (2 * goertzel(coarse, 2 * STEP * w)) / (n * dulled) ** 2;
  };
  let best: number[] = [];
  for (const base of MAINS) {
    const lines: number[] = [];
    for (let k = 1; k <= HARMONICS; k++) {
      const line = power(k * base);
      if (line > leastPower && line > STANDS_OUT * 0.5 * (power((k - 0.5) * base) + power((k + 0.5) * base))) lines.push(k * base);
    }
    if (lines.length > best.length) best = lines;
  }
  return best;
}

/** Squared magnitude of one spectral line at `omega` radians a sample (Goertzel 1958). */
function goertzel(x: Float64Array, omega: number): number {
  const turn = 2 * Math.cos(omega);
  let a = 0;
  let b = 0;
  for (let i = 0; i < x.length; i++) {
    const c = x[i] + turn * a - b;
    b = a;
    a = c;
  }
  return a * a + b * b - turn * a * b;
}

/** The part of a signal's first moments that swings with a line, as it would stand at sample `at` (may be negative). */
function lineAt(samples: Float32Array, w: number, rate: number) {
  const n = Math.min(samples.length, Math.round(SETTLE_S * rate));
  let cos = 0;
  let sin = 0;
  for (let i = 0; i < n; i++) {
    const x = samples[i] * (1 - Math.cos((2 * Math.PI * (i + 0.5)) / n));
    cos += x * Math.cos(w * i);
    sin += x * Math.sin(w * i);
  }
  return (at: number) => (2 / n) * (cos * Math.cos(w * at) + sin * Math.sin(w * at));
}

/** Take lines out of a signal: a notch at each, settled on the line from the first sample on. Works in place. */
export function notch(samples: Float32Array, rate: number, lines: number[]): void {
  for (const hz of lines) {
    const section = notchAt(hz, rate, NOTCH_Q);
    const line = lineAt(samples, (2 * Math.PI * hz) / rate, rate);
    // What the filter holds when the line has gone through it for ever and nothing comes out.
    filter(section, samples, samples, Float64Array.of(-section.b0 * line(0), section.b2 * line(-1)));
  }
}
