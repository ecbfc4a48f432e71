/**
 * Factor a symmetric positive definite A (n x n, row major) as L L' in place: L in the lower triangle.
 * @throws RangeError when A isn't positive definite.
 */
export function cholesky(a: Float64Array, n: number): void {
  for (let j = 0; j < n; j++) {
    for (let i = j; i < n; i++) {
      let sum = a[i * n + j];
      for (let k = 0; k < j; k++) sum -= a[i * n + k] * a[j * n + k];
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
  for (let i = 0; i < n; i++) {
    let sum = x[i];
    for (let k = 0; k < i; k++) sum -= factor[i * n + k] * x[k];
    x[i] = sum / factor[i * n + i];
  }
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
      for (let k = from; k < i; k++) {
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
  for (let i = 0; i < n; i++) {
    let sum = 0;
    for (let k = 0, at = i * n; k < n; k++, at++) sum += a[at] * x[k];
    out[i] = sum;
  }
  return out;
}

export function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += a[i] * b[i];
  return sum;
}
