/** Mains frequencies, hertz. */
const MAINS = [50, 60];
const HARMONICS = 8;
/** A line stands this far (power) over what lies half-way to its neighbours. */
const STANDS_OUT = 10;
const NOTCH_Q = 25;
const LONGEST_S = 1;
/** Shorter stretches can't tell a line from the rumble beside it. */
export const SHORTEST_QUIET_S = 0.25;

/**
 * The lines of mains hum in a stretch where nobody sings (at least SHORTEST_QUIET_S): their frequencies in hertz, none when
 * there is no hum over `leastPower` (mean square of a line).
 */
export function humLines(quiet: Float32Array, rate: number, leastPower: number): number[] {
  const n = Math.min(quiet.length, Math.round(LONGEST_S * rate));
  if (n < SHORTEST_QUIET_S * rate) return [];
  const tapered = Float64Array.from({ length: n }, (_, i) => quiet[i] * (1 - Math.cos((2 * Math.PI * (i + 0.5)) / n)));
  const power = (hz: number) => (2 * goertzel(tapered, (2 * Math.PI * hz) / rate)) / (n * n);
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

/** Take lines out of a signal: a notch at each (RBJ cookbook form, Q 25). Works in place. */
export function notch(samples: Float32Array, rate: number, lines: number[]): void {
  for (const hz of lines) {
    const w = (2 * Math.PI * hz) / rate;
    const alpha = Math.sin(w) / (2 * NOTCH_Q);
    const a0 = 1 + alpha;
    const b1 = (-2 * Math.cos(w)) / a0;
    const b0 = 1 / a0;
    const a2 = (1 - alpha) / a0;
    let x1 = 0;
    let x2 = 0;
    let y1 = 0;
    let y2 = 0;
    for (let i = 0; i < samples.length; i++) {
      const x = samples[i];
      const y = b0 * (x + x2) + b1 * (x1 - y1) - a2 * y2;
      x2 = x1;
      x1 = x;
      y2 = y1;
      y1 = y;
      samples[i] = y;
    }
  }
}
