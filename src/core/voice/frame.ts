import { copySamples, floats, FourTransforms, fourTransforms, LANES, place, reserve } from '../signal/kernel';
import { ANALYSIS_RATE, HARMONICS, HOP, MAX_F0, MIN_F0, NO_HARMONIC_DB } from './types';

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

/** Under this level there is nothing to look at. */
const SILENT_DB = -115;
const COMB_WEIGHTS = Float64Array.from({ length: 17 }, (_, k) => 1 / Math.sqrt(Math.max(1, k)));

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
  transforms: FourTransforms;
  /** Addresses in the kernel: the taper; the emphasis of low harmonics; one over the taper's own autocorrelation (Boersma 1993). */
  taper: number;
  emphasis: number;
  correction: number;
  minLag: number;
  maxLag: number;
  /** Room for the samples of four frames, and how many that is. */
  samples: number;
  reach: number;
}

/** Emphasis falls from `fromHz` to nothing at `toHz`: low harmonics carry the pitch, and a parabola on the peak is then exact enough. */
function lagWindow(rate: number, length: number, fftSize: number, minF0: number, fromHz: number, toHz: number): LagWindow {
  const taper = hann(length);
  const maxLag = Math.ceil(rate / minF0) + 2;
  const own = (lag: number) => {
    let sum = 0;
    for (let i = 0; i + lag < length; i++) sum += taper[i] * taper[i + lag];
    return sum;
  };
  const zero = own(0);
  const emphasis = Float64Array.from({ length: fftSize / 2 + 1 }, (_, b) => {
    const hz = (b * rate) / fftSize;
    return hz < fromHz ? 1 : hz > toHz ? 0 : 0.5 + 0.5 * Math.cos((Math.PI * (hz - fromHz)) / (toHz - fromHz));
  });
  const padded = new Float64Array(fftSize);
  padded.set(taper);
  const reach = fftSize + (LANES - 1) * HOP;
  return {
    rate,
    length,
    transforms: fourTransforms(fftSize),
    taper: place(padded),
    emphasis: place(emphasis),
    correction: place(Float64Array.from({ length: maxLag + 2 }, (_, lag) => zero / own(lag))),
    minLag: Math.floor(rate / MAX_F0),
    maxLag,
    samples: reserve(reach),
    reach,
  };
}

function hann(length: number): Float64Array {
  return Float64Array.from({ length }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * (i + 0.5)) / length));
}

const LONG_TAPER = hann(LONG);
const LONG_TAPER_POWER = LONG_TAPER.reduce((s, w) => s + w * w, 0);

/** One lane of the kernel's last answer: value `row` is at `data[start + LANES * row]`. */
interface Lane {
  data: Float32Array;
  start: number;
}

/**
 * A frame analyser. `candidates` looks at 64 ms and 24 ms around each of up to four frames and lists possible pitches:
 * peaks of the window-corrected autocorrelation (Boersma 1993) at both lengths, each weighed by a harmonic comb on the
 * compressed spectrum (harmonics against the valleys between them, in the spirit of Camacho & Harris 2008), so that
 * neither a strong second harmonic nor a weak fundamental decides alone.
 */
export function createFrameAnalyser() {
  const long = lagWindow(LONG_RATE, LONG, LONG_FFT, MIN_F0, 2000, 3800);
  const short = lagWindow(ANALYSIS_RATE, SHORT, SHORT_FFT, SHORT_MIN_F0, 2500, 5000);

  /** Power spectra of the frames centred on `centre` and every `hop` samples after it. */
  function spectra(w: LagWindow, samples: Float32Array, centre: number, hop: number) {
    copySamples(samples, centre - (w.length >> 1), w.reach, w.samples);
    const starts = [0, 1, 2, 3].map((lane) => w.samples + 4 * lane * hop);
    w.transforms.powerSpectra(starts, [w.taper, w.taper, w.taper, w.taper]);
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

  function collectPeaks(w: LagWindow, { data, start }: Lane, out: Candidates, discount: number) {
    for (let lag = w.minLag, at = start + LANES * lag; lag < w.maxLag; lag++, at += LANES) {
      const y = data[at];
      if (y < 0.2 || y < data[at - LANES] || y <= data[at + LANES]) continue;
      const a = data[at - LANES];
      const b = data[at + LANES];
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

  function combMatch(loudness: Lane, hz: number): number {
    const top = Math.max(1, Math.min(16, Math.floor(COMB_TOP_HZ / hz - 0.5)));
    let sum = 0;
    let norm = 0;
    let valley = valueAt(loudness, (0.5 * hz) / BIN_HZ);
    for (let k = 1; k <= top; k++) {
      const next = valueAt(loudness, ((k + 0.5) * hz) / BIN_HZ);
      sum += COMB_WEIGHTS[k] * (valueAt(loudness, (k * hz) / BIN_HZ) - 0.5 * (valley + next));
      norm += 1 / k;
      valley = next;
    }
    return sum / Math.sqrt(norm);
  }

  /**
   * Fill `out[0..count - 1]` with the pitch candidates of `count` (1 to 4) frames HOP samples apart, the first centred on
   * sample `centre` of `samples` (ANALYSIS_RATE), which is sample `halfCentre` of `half`, the same sound at half the rate.
   */
  function candidates(samples: Float32Array, centre: number, half: Float32Array, halfCentre: number, out: Candidates[], count: number) {
    spectra(long, half, halfCentre, HOP / 2);
    const energy = long.transforms.autocorrelations(long.maxLag + 1, long.emphasis, long.correction) / 4;
    for (let lane = 0; lane < count; lane++) {
      const frame = out[lane];
      frame.count = 0;
      frame.levelDb = levelOf(half, halfCentre + (lane * HOP) / 2);
      if (frame.levelDb > SILENT_DB) collectPeaks(long, { data: floats(), start: energy + lane }, frame, 0);
    }
    const loudness = long.transforms.fourthRoots() / 4;
    spectra(short, samples, centre, HOP);
    const correlation = short.transforms.autocorrelations(short.maxLag + 1, short.emphasis, short.correction) / 4;
    for (let lane = 0; lane < count; lane++) {
      const frame = out[lane];
      if (frame.levelDb <= SILENT_DB) continue;
      // Noise correlates with itself more easily in a short window: the discount keeps it from winning by chance.
      collectPeaks(short, { data: floats(), start: correlation + lane }, frame, 0.06);
      let best = 1e-12;
      for (let c = 0; c < frame.count; c++) {
        frame.comb[c] = combMatch({ data: floats(), start: loudness + lane }, frame.hz[c]);
        if (frame.comb[c] > best) best = frame.comb[c];
      }
      for (let c = 0; c < frame.count; c++) frame.comb[c] = Math.max(0, frame.comb[c] / best);
    }
  }

  return { candidates };
}

/** Level of the long window around a sample of the half-rate signal, dB re full scale. */
function levelOf(half: Float32Array, centre: number): number {
  let power = 0;
  const from = Math.max(0, centre - LONG / 2);
  const to = Math.min(half.length, centre + LONG / 2);
  for (let i = from; i < to; i++) {
    const x = half[i] * LONG_TAPER[i - centre + LONG / 2];
    power += x * x;
  }
  return 10 * Math.log10(power / LONG_TAPER_POWER + 1e-12);
}

/** A lane's values read between rows. */
function valueAt({ data, start }: Lane, row: number): number {
  const lo = row | 0;
  const at = start + LANES * lo;
  const a = data[at];
  return a + (row - lo) * (data[at + LANES] - a);
}

/** Windows of the harmonic reader, samples: about five periods, so that harmonics stand apart and fast glides smear little. */
const READ_LENGTHS = [384, 512, 640, 832, 1024];
const READ_MAX = 2048;

/**
 * A harmonic reader: refines pitches and measures their harmonics in windows of about five periods (24 to 64 ms).
 *
 * The reader takes up to four frames at once: `centres` (samples) and `hz` hold their places and pitches; `hz` is refined
 * in place (amplitude-weighted least squares over the harmonics' interpolated peaks), and HARMONICS levels (dB of each
 * sinusoid's amplitude) go to `out` from each of `offsets`.
 */
export function createHarmonicReader() {
  const windows = READ_LENGTHS.map((length) => {
    const taper = hann(length);
    const padded = new Float64Array(READ_MAX);
    padded.set(taper);
    return { length, taper: place(padded), gainDb: 20 * Math.log10(2 / taper.reduce((s, w) => s + w, 0)) };
  });
  // Each lane's samples lie one after another; a short window reads on into the next under a taper of zeros.
  const samplesAt = reserve(LANES * 1024 + READ_MAX);
  const starts = new Float64Array(LANES);
  const tapers = new Float64Array(LANES);

  return function read(
    samples: Float32Array,
    centres: ArrayLike<number>,
    hz: Float64Array,
    count: number,
    out: Float32Array,
    offsets: ArrayLike<number>,
  ): void {
    const chosen = Array.from(
      { length: count },
      (_, lane) => windows.find((w) => w.length >= (5 * ANALYSIS_RATE) / hz[lane]) ?? windows[windows.length - 1],
    );
    for (let lane = 0; lane < LANES; lane++) {
      const { length, taper } = chosen[Math.min(lane, count - 1)];
      starts[lane] = samplesAt + 4096 * lane;
      tapers[lane] = taper;
      copySamples(samples, centres[Math.min(lane, count - 1)] - (length >> 1), 1024, starts[lane]);
    }
    const size = chosen.some((w) => w.length > 512) ? READ_MAX : 1024;
    const start = fourTransforms(size).powerSpectra(starts, tapers) / 4;
    for (let lane = 0; lane < count; lane++)
      hz[lane] = readLane({ data: floats(), start: start + lane }, size, hz[lane], chosen[lane].gainDb, out, offsets[lane]);
  };
}

function readLane({ data, start }: Lane, size: number, hz: number, gainDb: number, out: Float32Array, offset: number): number {
  const power = (bin: number) => data[start + LANES * bin];
  const binHz = ANALYSIS_RATE / size;
  const topBin = size / 2 - 2;
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
    for (let b = Math.max(1, Math.ceil(at - reach)); b <= last; b++) if (power(b) > power(peak)) peak = b;
    const top = power(peak);
    const isPeak = top > power(peak - 1) && top >= power(peak + 1);
    // A harmonic that doesn't stand out of the valleys beside it is breath noise.
    const below = power(Math.round(at - 0.5 * spacing));
    const above = power(Math.min(topBin, Math.round(at + 0.5 * spacing)));
    if (!isPeak || top <= 0) continue;
    const stands = top > STANDS_OUT * 0.5 * (below + above);
    if (!stands && k > 8) continue;
    const y = Math.log(top);
    const a = Math.log(power(peak - 1) + 1e-30);
    const c = Math.log(power(peak + 1) + 1e-30);
    const shift = (0.5 * (a - c)) / (a - 2 * y + c);
    const db = (10 / Math.LN10) * (y - 0.25 * (a - c) * shift) + gainDb;
    if (stands) out[offset + k - 1] = db;
    if (k > 8) continue;
    const fk = ((peak + shift) * binHz) / k;
    if (Math.abs(fk / hz - 1) > 0.035) continue;
    const weight = 10 ** (db / 20) * k;
    sumF += weight * fk;
    sumW += weight;
  }
  return sumW > 0 ? sumF / sumW : hz;
}
