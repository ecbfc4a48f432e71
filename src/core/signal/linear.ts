/** Sum of products of `count` values of `a` and `b` from `fromA` and `fromB` on; four sums at once, as none need wait for another. */
function products(a: Float64Array, fromA: number, b: Float64Array, fromB: number, count: number): number {
  let s0 = 0;
  let s1 = 0;
  let s2 = 0;
  let s3 = 0;
  let i = 0;
  for (; i + 3 < count; i += 4) {
    s0 += a[fromA + i] * b[fromB + i];
    s1 += a[fromA + i + 1] * b[fromB + i + 1];
    s2 += a[fromA + i + 2] * b[fromB + i + 2];
    s3 += a[fromA + i + 3] * b[fromB + i + 3];
  }
  for (; i < count; i++) s0 += a[fromA + i] * b[fromB + i];
  return s0 + s1 + (s2 + s3);
}

/**
 * Factor a symmetric positive definite A (n x n, row major) as L L' in place: L in the lower triangle.
 * @throws RangeError when A isn't positive definite.
 */
export function cholesky(a: Float64Array, n: number): void {
  for (let j = 0; j < n; j++) {
    for (let i = j; i < n; i++) {
      const sum = a[i * n + j] - products(a, i * n, a, j * n, j);
      if (i === j) {
        if (!(sum > 0)) throw new RangeError('The equations have no single answer.');
        a[i * n + i] = Math.sqrt(sum);
      } else a[i * n + j] = sum / a[j * n + j];
    }
  }
}

/** L x = b for the factor left by `cholesky`: data of covariance L L' come out with unit covariance. */
export function whiten(factor: Float64Array, b: Float64Array, n: number): Float64Array {
  const x = Float64Array.from(b);
  for (let i = 0; i < n; i++) x[i] = (x[i] - products(factor, i * n, x, 0, i)) / factor[i * n + i];
  return x;
}

const COLUMNS = 40;

/**
 * `whiten` for `count` columns at once: `b` is n x count, row major, and is overwritten. Rows before `from` hold zeros.
 */
export function whitenAll(factor: Float64Array, b: Float64Array, n: number, count: number, from = 0): void {
  // A few columns at a time, so that they stay in the nearest cache.
  for (let first = 0; first < count; first += COLUMNS) {
    const end = Math.min(count, first + COLUMNS);
    for (let i = from; i < n; i++) {
      const row = i * count;
      let k = from;
      // Four rows at a time: the row in hand is fetched and put back a quarter as often.
      for (; k + 3 < i; k += 4) {
        const l0 = factor[i * n + k];
        const l1 = factor[i * n + k + 1];
        const l2 = factor[i * n + k + 2];
        const l3 = factor[i * n + k + 3];
        let at = k * count + first;
        for (let c = first; c < end; c++, at++)
          b[row + c] -= l0 * b[at] + l1 * b[at + count] + l2 * b[at + 2 * count] + l3 * b[at + 3 * count];
      }
      for (; k < i; k++) {
        const l = factor[i * n + k];
        const other = k * count;
        for (let c = first; c < end; c++) b[row + c] -= l * b[other + c];
      }
      const l = 1 / factor[i * n + i];
      for (let c = first; c < end; c++) b[row + c] *= l;
    }
  }
}

/** L' x = b: the other half of solving with the factor left by `cholesky`. */
export function unwhiten(factor: Float64Array, b: Float64Array, n: number): Float64Array {
  const x = Float64Array.from(b);
  for (let i = n - 1; i >= 0; i--) {
    for (let k = i + 1; k < n; k++) x[i] -= factor[k * n + i] * x[k];
    x[i] /= factor[i * n + i];
  }
  return x;
}

/** A x for a square A (n x n, row major). */
export function multiply(a: Float64Array, x: Float64Array, n: number): Float64Array {
  const out = new Float64Array(n);
  for (let i = 0; i < n; i++) out[i] = products(a, i * n, x, 0, n);
  return out;
}

export function dot(a: Float64Array, b: Float64Array): number {
  return products(a, 0, b, 0, a.length);
}
