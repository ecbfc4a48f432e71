/** A second-order section, a0 = 1:  y = b0 x + b1 x' + b2 x'' - a1 y' - a2 y''. */
export interface Biquad {
  b0: number;
  b1: number;
  b2: number;
  a1: number;
  a2: number;
}

/** Second-order Butterworth high-pass (RBJ cookbook form); `hz` and `rate` in hertz. */
export function highPassAt(hz: number, rate: number): Biquad {
  const w = (2 * Math.PI * hz) / rate;
  const alpha = Math.sin(w) / Math.SQRT2;
  const a0 = 1 + alpha;
  const b0 = (1 + Math.cos(w)) / 2 / a0;
  return { b0, b1: -2 * b0, b2: b0, a1: (-2 * Math.cos(w)) / a0, a2: (1 - alpha) / a0 };
}

/** Notch (RBJ cookbook form). */
export function notchAt(hz: number, rate: number, q: number): Biquad {
  const w = (2 * Math.PI * hz) / rate;
  const alpha = Math.sin(w) / (2 * q);
  const a0 = 1 + alpha;
  const b1 = (-2 * Math.cos(w)) / a0;
  return { b0: 1 / a0, b1, b2: 1 / a0, a1: b1, a2: (1 - alpha) / a0 };
}

/** Filter `input` into `out` (may be the same); `state` (two values, zeros at first) carries over. Transposed form: few steps wait for others. */
export function filter({ b0, b1, b2, a1, a2 }: Biquad, input: Float32Array, out: Float32Array, state = new Float64Array(2)): void {
  let s1 = state[0];
  let s2 = state[1];
  for (let i = 0; i < input.length; i++) {
    const x = input[i];
    const y = b0 * x + s1;
    s1 = b1 * x - a1 * y + s2;
    s2 = b2 * x - a2 * y;
    out[i] = y;
  }
  state[0] = s1;
  state[1] = s2;
}
