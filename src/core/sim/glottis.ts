import { realFft } from '../signal/fft';

/** Harmonics kept of a glottal pulse: enough for 55 Hz up to 20 kHz. */
export const PULSE_HARMONICS = 400;
const POINTS = 2048;
const RD_MIN = 0.4;
const RD_STEP = 0.1;
const RD_COUNT = 24;

/** Complex Fourier coefficients of one period, harmonic k at index k. */
export interface PulseSpectrum {
  re: Float64Array;
  im: Float64Array;
}

let grid: PulseSpectrum[] | undefined;

/**
 * Spectrum of a Liljencrants-Fant flow-derivative pulse (Fant, Liljencrants & Lin 1985) whose shape is set by the one
 * parameter Rd (Fant 1995; formulas from memory): about 0.4 pressed, 0.8-1 chest, 2-2.7 light, breathy head.
 * Unit excitation (the negative peak is 1), so a larger Rd has relatively more fundamental and a steeper slope. Only the first `harmonics`
 * of `out` are written.
 */
export function pulseSpectrum(rd: number, out: PulseSpectrum, harmonics = PULSE_HARMONICS) {
  grid ??= Array.from({ length: RD_COUNT }, (_, i) => computePulse(RD_MIN + i * RD_STEP));
  const at = Math.min(RD_COUNT - 1.001, Math.max(0, (rd - RD_MIN) / RD_STEP));
  const lo = Math.floor(at);
  const f = at - lo;
  const a = grid[lo];
  const b = grid[lo + 1];
  for (let k = 1; k <= harmonics; k++) {
    out.re[k] = a.re[k] * (1 - f) + b.re[k] * f;
    out.im[k] = a.im[k] * (1 - f) + b.im[k] * f;
  }
}

function computePulse(rd: number): PulseSpectrum {
  const ra = (-1 + 4.8 * rd) / 100;
  const rk = (22.4 + 11.8 * rd) / 100;
  const rg = (rk * (0.5 + 1.2 * rk)) / (0.44 * rd - 4 * ra * (0.5 + 1.2 * rk));
  const tp = 1 / (2 * rg);
  const te = Math.min(0.98, tp * (1 + rk));
  const ta = Math.max(0.002, Math.min(ra, 0.9 * (1 - te)));
  // Return phase: epsilon * ta = 1 - exp(-epsilon (1 - te)).
  let epsilon = 1 / ta;
  for (let i = 0; i < 60; i++) epsilon = (1 - Math.exp(-epsilon * (1 - te))) / ta;
  const omega = Math.PI / tp;
  const openArea = (alpha: number) => {
    const e0 = -1 / (Math.exp(alpha * te) * Math.sin(omega * te));
    return (
      (e0 * (Math.exp(alpha * te) * (alpha * Math.sin(omega * te) - omega * Math.cos(omega * te)) + omega)) /
      (alpha * alpha + omega * omega)
    );
  };
  const tail = Math.exp(-epsilon * (1 - te));
  const returnArea = -(1 / (epsilon * ta)) * ((1 - tail) / epsilon - (1 - te) * tail);
  // The flow returns to zero at the end of the period: the two areas cancel. Solve for alpha by bisection.
  let lo = -60;
  let hi = 60;
  for (let i = 0; i < 80; i++) {
    const mid = (lo + hi) / 2;
    if (openArea(mid) + returnArea > 0) lo = mid;
    else hi = mid;
  }
  const alpha = (lo + hi) / 2;
  const e0 = -1 / (Math.exp(alpha * te) * Math.sin(omega * te));
  const wave = new Float64Array(POINTS);
  for (let i = 0; i < POINTS; i++) {
    const t = i / POINTS;
    wave[i] = t < te ? e0 * Math.exp(alpha * t) * Math.sin(omega * t) : -(1 / (epsilon * ta)) * (Math.exp(-epsilon * (t - te)) - tail);
  }
  const re = new Float64Array(POINTS / 2 + 1);
  const im = new Float64Array(POINTS / 2 + 1);
  realFft(POINTS).forward(wave, re, im);
  for (let k = 0; k < re.length; k++) {
    re[k] /= POINTS;
    im[k] /= POINTS;
  }
  return { re, im };
}
