/** The p-quantile (0..1) of `values` by linear interpolation; NaN when empty. Leaves the input as it is. */
export const quantile = (values: ArrayLike<number>, p: number): number => quantiles(values, [p])[0];

/** Several quantiles for one sorting. */
export function quantiles(values: ArrayLike<number>, ps: readonly number[]): number[] {
  const sorted = new Float64Array(values).sort();
  return ps.map((p) => {
    if (sorted.length === 0) return NaN;
    const at = p * (sorted.length - 1);
    const lo = Math.floor(at);
    const hi = Math.ceil(at);
    return sorted[lo] + (at - lo) * (sorted[hi] - sorted[lo]);
  });
}

/** Arithmetic mean; NaN of nothing. */
export const mean = (values: readonly number[]): number => values.reduce((sum, v) => sum + v, 0) / values.length;

/** Put the first `count` values in order, in place: for few of them insertion is sooner than the engine's sort, and takes no room. */
export function sortFew(values: Float64Array, count: number): Float64Array {
  for (let i = 1; i < count; i++) {
    const v = values[i];
    let at = i;
    for (; at > 0 && values[at - 1] > v; at--) values[at] = values[at - 1];
    values[at] = v;
  }
  return values;
}

const few = new Float64Array(64);

export function median(values: ArrayLike<number>): number {
  const n = values.length;
  if (n === 0 || n > few.length) return quantile(values, 0.5);
  few.set(values);
  sortFew(few, n);
  return n % 2 ? few[n >> 1] : (few[n / 2 - 1] + few[n / 2]) / 2;
}

/** Median absolute deviation, scaled to a standard deviation for normal data. */
export function robustSpread(values: ArrayLike<number>): number {
  const m = median(values);
  return 1.4826 * median(Array.from(values, (v) => Math.abs(v - m)));
}

/** Weighted median; NaN when the weights sum to zero. */
export const weightedMedian = (values: readonly number[], weights: readonly number[]): number => weightedQuantile(values, weights, 0.5);

/** Weighted quantile: the value under which a share `p` of the weight lies; NaN for no values. */
export function weightedQuantile(values: readonly number[], weights: readonly number[], p: number): number {
  const order = values.map((_, i) => i).sort((a, b) => values[a] - values[b]);
  const total = weights.reduce((a, b) => a + b, 0);
  let run = 0;
  for (let o = 0; o < order.length; o++) {
    const i = order[o];
    run += weights[i];
    if (run > p * total) return values[i];
    if (run === p * total && o + 1 < order.length) return (values[i] + values[order[o + 1]]) / 2;
  }
  return NaN;
}

/** Least-squares line through points: slope and intercept; slope 0 when x does not vary. */
export function fitLine(x: ArrayLike<number>, y: ArrayLike<number>): { slope: number; intercept: number } {
  const n = x.length;
  let sx = 0;
  let sy = 0;
  for (let i = 0; i < n; i++) {
    sx += x[i];
    sy += y[i];
  }
  const mx = sx / n;
  const my = sy / n;
  let sxx = 0;
  let sxy = 0;
  for (let i = 0; i < n; i++) {
    sxx += (x[i] - mx) ** 2;
    sxy += (x[i] - mx) * (y[i] - my);
  }
  const slope = sxx > 1e-12 ? sxy / sxx : 0;
  return { slope, intercept: my - slope * mx };
}

/**
 * A line that up to three points in ten, however far off, don't tilt: the median slope of all pairs of points (Theil 1950, Sen 1968), through the
 * median of what is left of them. Slope 0 when x does not vary.
 */
export function medianLine(x: ArrayLike<number>, y: ArrayLike<number>): { slope: number; intercept: number } {
  const slopes: number[] = [];
  for (let a = 0; a < x.length; a++) for (let b = a + 1; b < x.length; b++) if (x[a] !== x[b]) slopes.push((y[b] - y[a]) / (x[b] - x[a]));
  const slope = slopes.length > 0 ? median(slopes) : 0;
  return { slope, intercept: median(Array.from(y, (v, i) => v - slope * x[i])) };
}

/** Least squares through points of weights of their own; `spread` is the weighted sum of squares of x about its mean. */
export function fitWeightedLine(
  x: ArrayLike<number>,
  y: ArrayLike<number>,
  weights: ArrayLike<number>,
): { slope: number; intercept: number; spread: number } {
  let [sw, sx, sy, sxx, sxy] = [0, 0, 0, 0, 0];
  for (let i = 0; i < x.length; i++) {
    const w = weights[i];
    sw += w;
    sx += w * x[i];
    sy += w * y[i];
    sxx += w * x[i] * x[i];
    sxy += w * x[i] * y[i];
  }
  const spread = sxx - (sx * sx) / sw;
  const slope = (sxy - (sx * sy) / sw) / spread;
  return { slope, intercept: (sy - slope * sx) / sw, spread };
}

/**
 * What is left of a table's values when its rows and columns are taken out, per degree of freedom: the residual mean square of an
 * analysis of variance of randomised complete blocks, one value a cell (Montgomery, Design and Analysis of Experiments, ch. 4, from memory).
 *
 * @param table two rows and columns at least, all rows as long
 */
export function residualMeanSquare(table: readonly (readonly number[])[]): number {
  const rows = table.map(mean);
  const columns = table[0].map((_, c) => mean(table.map((row) => row[c])));
  const all = mean(rows);
  const left = table.flatMap((row, r) => row.map((value, c) => (value - rows[r] - columns[c] + all) ** 2));
  return left.reduce((sum, square) => sum + square, 0) / ((rows.length - 1) * (columns.length - 1));
}

/** Seeded uniform generator on [0, 1) (mulberry32): same seed, same sequence, on every machine. */
export function seededRandom(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Normal deviates (mean 0, sd 1) from a uniform generator (Box-Muller). */
export function gaussian(random: () => number): () => number {
  return () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}
