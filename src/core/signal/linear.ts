/**
 * Solve A x = b for a symmetric positive definite A (n x n, row major) by Cholesky factors. Overwrites `a`.
 * @throws RangeError when A isn't positive definite.
 */
export function solveSymmetric(a: Float64Array, b: Float64Array, n: number): Float64Array {
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
  const x = Float64Array.from(b);
  for (let i = 0; i < n; i++) {
    for (let k = 0; k < i; k++) x[i] -= a[i * n + k] * x[k];
    x[i] /= a[i * n + i];
  }
  for (let i = n - 1; i >= 0; i--) {
    for (let k = i + 1; k < n; k++) x[i] -= a[k * n + i] * x[k];
    x[i] /= a[i * n + i];
  }
  return x;
}
