import { CrossOver } from './types';

/** 10-90 % widths tried, semitones. */
const WIDTHS = [0.6, 1.2, 2, 3, 4.5, 6.5, 9];
const BIN_ST = 0.5;
/** A logistic goes from 10 to 90 % over 4.394 of its units. */
const TEN_TO_NINETY = 2 * Math.log(9);
/** The crossing must lie this far inside the stretch to be seen from both sides. */
const EDGE_ST = 2;
/** Smallest rise of the timbre score that counts as a change of register. */
const MIN_RISE = 0.7;

/**
 * Where a timbre score crosses over along a stretch: the best  a + b x + c x^2 + rise * logistic((x - centre) / scale)  over a
 * grid of centres and widths, against the parabola alone. Points are (midi, score); NaN scores are skipped.
 * Returns null when the stretch is short or the parabola does nearly as well.
 */
export function fitCrossOver(midi: ArrayLike<number>, score: ArrayLike<number>): Omit<CrossOver, 'timeS'> | null {
  const bins = binned(midi, score);
  if (bins.length < 10) return null;
  const x = bins.map((b) => b.x);
  const y = bins.map((b) => b.y);
  const low = x[0];
  const high = x[x.length - 1];
  if (high - low < 2 * EDGE_ST + 2) return null;

  const squares = createLeastSquares(x, y);
  let best = { sse: Infinity, rise: 0, centre: 0, width: 0 };
  for (const width of WIDTHS) {
    const shape = new Float64Array(x.length);
    for (let centre = low + EDGE_ST; centre <= high - EDGE_ST; centre += 0.5) {
      for (let i = 0; i < x.length; i++) shape[i] = 1 / (1 + Math.exp((-TEN_TO_NINETY * (x[i] - centre)) / width));
      const fit = squares.withShape(shape);
      if (fit.rise > 0 && fit.sse < best.sse) best = { sse: fit.sse, rise: fit.rise, centre, width };
    }
  }
  if (best.rise < MIN_RISE) return null;
  const explained = 1 - best.sse / Math.max(1e-9, squares.sseAlone);
  const noise = Math.sqrt(best.sse / x.length);
  const clear = best.rise / (best.rise + 2.5 * noise);
  const confidence = Math.max(0, Math.min(1, explained * 1.15)) * clear;
  if (confidence < 0.25) return null;
  return { midi: best.centre, widthSt: best.width, confidence: Math.min(0.95, confidence) };
}

/** Mean score in half-semitone bins, so that slow and fast parts of a glide weigh the same. */
function binned(midi: ArrayLike<number>, score: ArrayLike<number>): { x: number; y: number }[] {
  const sums = new Map<number, { n: number; x: number; y: number }>();
  for (let i = 0; i < midi.length; i++) {
    if (Number.isNaN(midi[i]) || Number.isNaN(score[i])) continue;
    const key = Math.round(midi[i] / BIN_ST);
    const s = sums.get(key) ?? { n: 0, x: 0, y: 0 };
    s.n++;
    s.x += midi[i];
    s.y += score[i];
    sums.set(key, s);
  }
  return [...sums.entries()].sort((a, b) => a[0] - b[0]).map(([, s]) => ({ x: s.x / s.n, y: s.y / s.n }));
}

/**
 * Least squares for y = a + b x + c x^2 (+ rise * shape): the parabola is what drifts smoothly with pitch (source slope,
 * loudness, what the filter fit couldn't tell apart).
 */
function createLeastSquares(x: number[], y: number[]) {
  const n = x.length;
  const centre = (x[0] + x[n - 1]) / 2;
  const half = Math.max(1, (x[n - 1] - x[0]) / 2);
  // Orthonormal basis of 1, u, u^2 by Gram-Schmidt; every later fit is then a few dot products.
  const basis: Float64Array[] = [];
  for (let power = 0; power < 3; power++) {
    const v = Float64Array.from(x, (xi) => ((xi - centre) / half) ** power);
    for (const q of basis) subtractProjection(v, q);
    normalise(v);
    basis.push(v);
  }
  const rest = Float64Array.from(y);
  for (const q of basis) subtractProjection(rest, q);
  const sseAlone = dot(rest, rest);
  const s = new Float64Array(n);

  return {
    sseAlone,
    /** Best rise of the logistic shape over the baseline, and what error is left. */
    withShape(shape: Float64Array): { sse: number; rise: number } {
      s.set(shape);
      const whole = dot(s, s);
      for (const q of basis) subtractProjection(s, q);
      const left = dot(s, s);
      if (left < 1e-4 * whole) return { sse: Infinity, rise: 0 };
      const rise = dot(s, rest) / left;
      return { sse: sseAlone - rise * dot(s, rest), rise };
    },
  };
}

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i] * b[i];
  return sum;
}

function subtractProjection(v: Float64Array, q: Float64Array) {
  const d = dot(v, q);
  for (let i = 0; i < v.length; i++) v[i] -= d * q[i];
}

function normalise(v: Float64Array) {
  const length = Math.sqrt(dot(v, v)) || 1;
  for (let i = 0; i < v.length; i++) v[i] /= length;
}
