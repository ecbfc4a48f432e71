import { realFft } from '../signal/fft';
import { ANALYSIS_RATE, HARMONICS, MAX_F0, MIN_F0, NO_HARMONIC_DB } from './types';

/** Samples a frame needs around its centre. */
export const FRAME_REACH = 512;
export const MAX_CANDIDATES = 14;
/** Power of a harmonic over the valleys beside it (9 dB) for it to count. */
const STANDS_OUT = 8;

// The long window reads every other sample: 64 ms at 8 kHz resolves low and breathy tones at half the work.
const LONG = 512;
const LONG_FFT = 1024;
const LONG_RATE = ANALYSIS_RATE / 2;
const SHORT = 384; // 24 ms at full rate: follows fast glides
const SHORT_FFT = 512;
/** Below this pitch the short window holds fewer than three periods. */
const SHORT_MIN_F0 = 126;
const BIN_HZ = LONG_RATE / LONG_FFT;
/** Highest valley the comb looks at; just under the half rate's Nyquist. */
const COMB_TOP_HZ = 3900;

/** Pitch candidates of one frame: hertz, periodicity 0..1, harmonic-comb match (best of the frame = 1). */
export interface Candidates {
  count: number;
  hz: Float64Array;
  clarity: Float64Array;
  comb: Float64Array;
  levelDb: number;
}

export function createCandidates(): Candidates {
  return {
    count: 0,
    hz: new Float64Array(MAX_CANDIDATES),
    clarity: new Float64Array(MAX_CANDIDATES),
    comb: new Float64Array(MAX_CANDIDATES),
    levelDb: -120,
  };
}

interface LagWindow {
  rate: number;
  length: number;
  fftSize: number;
  taper: Float64Array;
  /** Autocorrelation of the taper at each lag, relative to lag 0 (Boersma 1993). */
  own: Float64Array;
  minLag: number;
  maxLag: number;
}

function lagWindow(rate: number, length: number, fftSize: number, minF0: number, maxF0: number): LagWindow {
  const taper = hann(length);
  const maxLag = Math.ceil(rate / minF0) + 2;
  const own = new Float64Array(maxLag + 1);
  for (let lag = 0; lag <= maxLag; lag++) {
    let sum = 0;
    for (let i = 0; i + lag < length; i++) sum += taper[i] * taper[i + lag];
    own[lag] = sum;
  }
  const zero = own[0];
  for (let lag = 0; lag <= maxLag; lag++) own[lag] /= zero;
  return { rate, length, fftSize, taper, own, minLag: Math.floor(rate / maxF0), maxLag };
}

function hann(length: number): Float64Array {
  return Float64Array.from({ length }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * (i + 0.5)) / length));
}

/**
 * A frame analyser with its own buffers. `candidates` looks at 64 ms and 24 ms around a sample and lists
 * possible pitches: peaks of the window-corrected autocorrelation (Boersma 1993) at both lengths, each weighed by
 * a harmonic comb on the compressed spectrum (harmonics against the valleys between them, in the spirit
 * of Camacho & Harris 2008), so that neither a strong second harmonic nor a weak fundamental decides alone.
 */
export function createFrameAnalyser() {
  const long = lagWindow(LONG_RATE, LONG, LONG_FFT, MIN_F0, MAX_F0);
  const short = lagWindow(ANALYSIS_RATE, SHORT, SHORT_FFT, SHORT_MIN_F0, MAX_F0);
  const input = new Float64Array(LONG_FFT);
  const re = new Float64Array(LONG_FFT / 2 + 1);
  const im = new Float64Array(LONG_FFT / 2 + 1);
  const correlation = new Float64Array(LONG_FFT);
  const loudness = new Float64Array(LONG_FFT / 2 + 1);
  const normal = new Float64Array(LONG_FFT);
  const longTaperPower = long.taper.reduce((s, w) => s + w * w, 0);
  // Emphasise below 3 kHz, where harmonics carry the pitch; the parabola on the peak is then exact enough too.
  const tilt = (w: LagWindow, fromHz: number, toHz: number) =>
    Float64Array.from({ length: w.fftSize / 2 + 1 }, (_, b) => {
      const hz = (b * w.rate) / w.fftSize;
      return hz < fromHz ? 1 : hz > toHz ? 0 : 0.5 + 0.5 * Math.cos((Math.PI * (hz - fromHz)) / (toHz - fromHz));
    });
  const longTilt = tilt(long, 2000, 3800);
  const shortTilt = tilt(short, 2500, 5000);

  function windowed(samples: Float32Array, centre: number, w: LagWindow) {
    const start = centre - (w.length >> 1);
    for (let i = 0; i < w.length; i++) {
      const at = start + i;
      input[i] = at >= 0 && at < samples.length ? samples[at] * w.taper[i] : 0;
    }
    input.fill(0, w.length, w.fftSize);
  }

  /** Power spectrum in `re`; then the normalised autocorrelation in `normal`. */
  function autocorrelate(w: LagWindow, taper: Float64Array, keepLoudness: boolean) {
    const fft = realFft(w.fftSize);
    fft.forward(input, re, im);
    const bins = w.fftSize / 2;
    for (let b = 0; b <= bins; b++) {
      const power = re[b] * re[b] + im[b] * im[b];
      if (keepLoudness) loudness[b] = Math.sqrt(Math.sqrt(power));
      re[b] = power * taper[b];
    }
    fft.inverseEven(re, correlation);
    const zero = correlation[0];
    const scale = zero > 1e-20 ? 1 / zero : 0;
    for (let lag = w.minLag - 1; lag <= w.maxLag; lag++) normal[lag] = (correlation[lag] * scale) / w.own[lag];
  }

  function add(out: Candidates, hz: number, clarity: number) {
    for (let c = 0; c < out.count; c++) {
      if (Math.abs(out.hz[c] / hz - 1) < 0.02) {
        if (clarity > out.clarity[c]) {
          out.clarity[c] = clarity;
          out.hz[c] = hz;
        }
        return;
      }
    }
    let slot = out.count;
    if (slot === MAX_CANDIDATES) {
      slot = 0;
      for (let c = 1; c < MAX_CANDIDATES; c++) if (rank(out, c) < rank(out, slot)) slot = c;
      if (clarity + 0.03 * Math.log2(hz / MIN_F0) <= rank(out, slot)) return;
    } else out.count++;
    out.hz[slot] = hz;
    out.clarity[slot] = clarity;
  }

  // Multiples of the period peak as high as the period itself: prefer short lags when the list is full.
  function rank(out: Candidates, c: number): number {
    return out.clarity[c] + 0.03 * Math.log2(out.hz[c] / MIN_F0);
  }

  function collectPeaks(w: LagWindow, out: Candidates, discount: number) {
    for (let lag = w.minLag; lag < w.maxLag; lag++) {
      const y = normal[lag];
      if (y < 0.2 || y < normal[lag - 1] || y <= normal[lag + 1]) continue;
      const a = normal[lag - 1];
      const b = normal[lag + 1];
      let shift: number;
      let height: number;
      if (lag < 32) {
        // Few samples a period: three points of a cosine (a parabola would sit too low and lose to twice the period).
        const omega = Math.acos(Math.max(-1, Math.min(1, (a + b) / (2 * y))));
        const phase = omega > 1e-6 ? Math.atan((b - a) / (2 * y * Math.sin(omega))) : 0;
        shift = omega > 1e-6 ? phase / omega : 0;
        height = y / Math.cos(phase);
      } else {
        const bend = a - 2 * y + b;
        shift = bend < -1e-12 ? (0.5 * (a - b)) / bend : 0;
        height = y - 0.25 * (a - b) * shift;
      }
      const hz = w.rate / (lag + shift);
      if (hz >= MIN_F0 && hz <= MAX_F0) add(out, hz, Math.min(1, height) - discount);
    }
  }

  function combMatch(hz: number): number {
    const top = Math.max(1, Math.min(16, Math.floor(COMB_TOP_HZ / hz - 0.5)));
    let sum = 0;
    let norm = 0;
    for (let k = 1; k <= top; k++) {
      const weight = 1 / Math.sqrt(k);
      sum += weight * (loudnessAt(k * hz) - 0.5 * loudnessAt((k - 0.5) * hz) - 0.5 * loudnessAt((k + 0.5) * hz));
      norm += weight * weight;
    }
    return sum / Math.sqrt(norm);
  }

  function loudnessAt(hz: number): number {
    const at = hz / BIN_HZ;
    const lo = at | 0;
    const f = at - lo;
    return loudness[lo] * (1 - f) + loudness[lo + 1] * f;
  }

  /**
   * Fill `out` with the pitch candidates of the frame centred on sample `centre` of `samples` (ANALYSIS_RATE),
   * which is sample `halfCentre` of `half`, the same sound at half the rate.
   */
  function candidates(samples: Float32Array, centre: number, half: Float32Array, halfCentre: number, out: Candidates) {
    out.count = 0;
    windowed(half, halfCentre, long);
    let power = 0;
    for (let i = 0; i < LONG; i++) power += input[i] * input[i];
    out.levelDb = 10 * Math.log10(power / longTaperPower + 1e-12);
    if (power < 1e-12) return;
    autocorrelate(long, longTilt, true);
    collectPeaks(long, out, 0);
    windowed(samples, centre, short);
    autocorrelate(short, shortTilt, false);
    // Noise correlates with itself more easily in a short window: the discount keeps it from winning by chance.
    collectPeaks(short, out, 0.06);
    let best = 1e-12;
    for (let c = 0; c < out.count; c++) {
      out.comb[c] = combMatch(out.hz[c]);
      if (out.comb[c] > best) best = out.comb[c];
    }
    for (let c = 0; c < out.count; c++) out.comb[c] = Math.max(0, out.comb[c] / best);
  }

  return { candidates };
}

/**
 * A harmonic reader with its own buffers: refines a pitch and measures its harmonics in a window of about five
 * periods (24 to 64 ms), so that harmonics stand apart at every pitch and fast glides smear little.
 */
export function createHarmonicReader() {
  const lengths = [384, 512, 640, 832, 1024];
  const tapers = new Map(lengths.map((n) => [n, hann(n)]));
  const gains = new Map(lengths.map((n) => [n, 2 / tapers.get(n)!.reduce((s, w) => s + w, 0)]));
  const input = new Float64Array(2048);
  const re = new Float64Array(1025);
  const im = new Float64Array(1025);
  const power = new Float64Array(1025);

  /**
   * Refine `hz` at sample `centre`; writes HARMONICS levels (dB of each sinusoid's amplitude) to `out` from `offset`.
   * Returns the refined pitch: amplitude-weighted least squares over the harmonics' interpolated peaks.
   */
  return function read(samples: Float32Array, centre: number, hz: number, out: Float32Array, offset: number): number {
    const wanted = (5 * ANALYSIS_RATE) / hz;
    const length = lengths.find((n) => n >= wanted) ?? 1024;
    const size = length <= 512 ? 1024 : 2048;
    const taper = tapers.get(length)!;
    const gain = gains.get(length)!;
    const start = centre - (length >> 1);
    for (let i = 0; i < length; i++) {
      const at = start + i;
      input[i] = at >= 0 && at < samples.length ? samples[at] * taper[i] : 0;
    }
    input.fill(0, length, size);
    realFft(size).forward(input, re, im);
    const binHz = ANALYSIS_RATE / size;
    const topBin = size / 2 - 2;
    for (let b = 0; b <= size / 2; b++) power[b] = re[b] * re[b] + im[b] * im[b] + 1e-18;

    const spacing = hz / binHz;
    let sumF = 0;
    let sumW = 0;
    for (let k = 1; k <= HARMONICS; k++) {
      const at = k * spacing;
      out[offset + k - 1] = NO_HARMONIC_DB;
      if (at + 2 > topBin) continue;
      const reach = Math.max(1, Math.min(0.35 * spacing, 0.03 * at + 1.5));
      let peak = Math.round(at);
      const last = Math.min(topBin, Math.floor(at + reach));
      for (let b = Math.max(1, Math.ceil(at - reach)); b <= last; b++) if (power[b] > power[peak]) peak = b;
      const y = Math.log(power[peak]);
      const a = Math.log(power[peak - 1]);
      const c = Math.log(power[peak + 1]);
      const bend = a - 2 * y + c;
      const isPeak = bend < -1e-9 && y >= a && y >= c;
      const shift = isPeak ? (0.5 * (a - c)) / bend : 0;
      const db = (10 / Math.LN10) * (y - 0.25 * (a - c) * shift) + 20 * Math.log10(gain);
      // A harmonic that doesn't stand out of the valleys beside it is breath noise.
      const below = power[Math.round(at - 0.5 * spacing)];
      const above = power[Math.min(topBin, Math.round(at + 0.5 * spacing))];
      if (isPeak && power[peak] > STANDS_OUT * 0.5 * (below + above)) out[offset + k - 1] = db;
      if (!isPeak || k > 8) continue;
      const fk = ((peak + shift) * binHz) / k;
      if (Math.abs(fk / hz - 1) > 0.035) continue;
      const weight = 10 ** (db / 20) * k;
      sumF += weight * fk;
      sumW += weight;
    }
    return sumW > 0 ? sumF / sumW : hz;
  };
}
