import { hann } from '../signal/fft';
import { copySamples, floats, forget, FourTransforms, fourTransforms, LANES, place, reserve } from '../signal/kernel';
import { sortFew } from '../signal/stats';
import { decayOf, RoomSound } from './room';
import { ANALYSIS_RATE, HARMONICS, HOP, HOP_S, MAX_F0, MIN_F0, NO_HARMONIC_DB } from './types';

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

/** Pitch candidates of one frame: hertz, octaves over MIN_F0, periodicity 0..1, harmonic-comb match (best of the frame = 1). */
export interface Candidates {
  count: number;
  hz: Float64Array;
  octaves: Float64Array;
  clarity: Float64Array;
  comb: Float64Array;
  levelDb: number;
  /** Share of the frame's power that isn't the room's memory of earlier sound, 0..1. */
  fresh: number;
}

export function createCandidates(): Candidates {
  return {
    count: 0,
    hz: new Float64Array(MAX_CANDIDATES),
    octaves: new Float64Array(MAX_CANDIDATES),
    clarity: new Float64Array(MAX_CANDIDATES),
    comb: new Float64Array(MAX_CANDIDATES),
    levelDb: -120,
    fresh: 1,
  };
}

interface LagWindow {
  rate: number;
  length: number;
  transforms: FourTransforms;
  /** Addresses in the kernel: the emphasis of low harmonics; one over the taper's own autocorrelation (Boersma 1993). */
  emphasis: number;
  correction: number;
  minLag: number;
  maxLag: number;
  /** Room for the samples of four frames, and how many that is. */
  samples: number;
  reach: number;
  starts: Float64Array;
  tapers: Float64Array;
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
    tapers: new Float64Array(LANES).fill(place(padded)),
    starts: new Float64Array(LANES),
    emphasis: place(emphasis),
    correction: place(Float64Array.from({ length: maxLag + 2 }, (_, lag) => zero / own(lag))),
    minLag: Math.floor(rate / MAX_F0),
    maxLag,
    samples: reserve(reach),
    reach,
  };
}

// Laid out once and shared: nothing here is held from one call to the next.
const long = lagWindow(LONG_RATE, LONG, LONG_FFT, MIN_F0, 2000, 3800);
const short = lagWindow(ANALYSIS_RATE, SHORT, SHORT_FFT, SHORT_MIN_F0, 2500, 5000);
const LONG_TAPER_POWER = hann(LONG).reduce((s, w) => s + w * w, 0);

/** Power spectra of the frames centred on `centre` and every `hop` samples after it. */
function spectra(w: LagWindow, samples: Float32Array, centre: number, hop: number) {
  copySamples(samples, centre - (w.length >> 1), w.reach, w.samples);
  for (let lane = 0; lane < LANES; lane++) w.starts[lane] = w.samples + 4 * lane * hop;
  w.transforms.powerSpectra(w.starts, w.tapers, w.length);
}

function add(out: Candidates, hz: number, clarity: number) {
  for (let c = 0; c < out.count; c++) {
    if (Math.abs(out.hz[c] / hz - 1) < 0.02) {
      if (clarity > out.clarity[c]) {
        put(out, c, hz, Math.log2(hz / MIN_F0), clarity);
      }
      return;
    }
  }
  const octaves = Math.log2(hz / MIN_F0);
  let slot = out.count;
  if (slot === MAX_CANDIDATES) {
    slot = 0;
    for (let c = 1; c < MAX_CANDIDATES; c++) if (rank(out, c) < rank(out, slot)) slot = c;
    if (clarity + HIGHER_RANKS * octaves <= rank(out, slot)) return;
  } else out.count++;
  put(out, slot, hz, octaves, clarity);
}

/** A candidate takes a slot; its comb match is still to be seen. */
function put(out: Candidates, slot: number, hz: number, octaves: number, clarity: number) {
  out.hz[slot] = hz;
  out.octaves[slot] = octaves;
  out.clarity[slot] = clarity;
  out.comb[slot] = NaN;
}

/** What an octave is worth in clarity when the list is full: multiples of the period peak as high as the period itself. */
const HIGHER_RANKS = 0.03;

function rank(out: Candidates, c: number): number {
  return out.clarity[c] + HIGHER_RANKS * out.octaves[c];
}

/** Peaks of one lane's autocorrelation (lag `l` at `data[start + LANES * l]`) as candidates. */
function collectPeaks(w: LagWindow, data: Float32Array, start: number, out: Candidates, discount: number) {
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

/** Harmonics of a pitch against the valleys between them, on one lane of a compressed spectrum. */
function combMatch(data: Float32Array, start: number, hz: number): number {
  const spacing = hz / BIN_HZ;
  const top = Math.max(1, Math.min(16, Math.floor(COMB_TOP_HZ / hz - 0.5)));
  let sum = 0;
  let norm = 0;
  let valley = valueAt(data, start, 0.5 * spacing);
  for (let k = 1; k <= top; k++) {
    const next = valueAt(data, start, (k + 0.5) * spacing);
    sum += COMB_WEIGHTS[k] * (valueAt(data, start, k * spacing) - 0.5 * (valley + next));
    norm += 1 / k;
    valley = next;
  }
  return sum / Math.sqrt(norm);
}

/** What it costs a candidate in comb match to be wholly a subharmonic. */
const SUBHARMONIC_COMB = 2;
/** A candidate so far behind the best one in clarity and comb isn't looked at twice. */
const FAR_BEHIND = 0.3;
/** Levels of every second (third, fourth) harmonic over those between them from which a pitch begins to be a subharmonic, and where it is one, dB. */
const STAND_OUT_DB = 8;
const WHOLLY_DB = 16;
/** Of a low pitch's first harmonics so many stand clear of the valleys beside them, else it is common to a few higher tones only. */
const FIRST_HARMONICS = 10;
const CLEAR = 10 ** (4 / 40);
const [FEW_CLEAR, HARDLY_CLEAR] = [0.3, 0];
/** Some of the first three stand clear in any voice. */
const LOWEST_HARMONICS = 3;
/** A pitch is tried as the half, the third and the quarter of another. */
const MOST_MULTIPLE = 4;
const MOST_COUNTED = 14;
const FEWEST_PAIRS = 3;
const ratios = new Float64Array(MOST_COUNTED);
const heights = new Float64Array(MOST_COUNTED + 1);

/**
 * How much a pitch is a subharmonic, 0 (no) to 1: where pulses alternate, or where it is only common to two notes, every second
 * (third, fourth) harmonic stands over those beside it (nearly all of them: a few strong ones are a resonance), or most are
 * not there at all.
 */
function subharmonic(data: Float32Array, start: number, hz: number): number {
  const spacing = hz / BIN_HZ;
  const top = Math.min(MOST_COUNTED, Math.floor(COMB_TOP_HZ / hz));
  for (let k = 1; k <= top; k++) heights[k] = valueAt(data, start, k * spacing);
  let most = 0;
  if (top >= FIRST_HARMONICS) {
    let clear = 0;
    let lowest = 0;
    let valley = valueAt(data, start, 0.5 * spacing);
    for (let k = 1; k <= FIRST_HARMONICS; k++) {
      const next = valueAt(data, start, (k + 0.5) * spacing);
      if (heights[k] > CLEAR * (valley > next ? valley : next)) {
        clear++;
        if (k <= LOWEST_HARMONICS) lowest++;
      }
      valley = next;
    }
    most = lowest === 0 ? 1 : (FEW_CLEAR - clear / FIRST_HARMONICS) / (FEW_CLEAR - HARDLY_CLEAR);
  }
  for (let m = 2; m <= MOST_MULTIPLE; m++) {
    let pairs = 0;
    for (let k = m; k < top; k += m) {
      let beside = heights[k - 1] > heights[k + 1] ? heights[k - 1] : heights[k + 1];
      // Every fourth stands out of its neighbours where every second does: that is the half's business.
      if (m === MOST_MULTIPLE) beside = Math.max(beside, heights[k - 2], k + 2 <= top ? heights[k + 2] : 0);
      ratios[pairs++] = heights[k] / (beside + 1e-9);
    }
    if (pairs < FEWEST_PAIRS) break;
    // Roots of amplitudes are compared: 40 dB a decade.
    const db = 40 * Math.log10(sortFew(ratios, pairs)[Math.floor(pairs / 4)] + 1e-9);
    most = Math.max(most, (db - STAND_OUT_DB) / (WHOLLY_DB - STAND_OUT_DB));
  }
  return Math.min(1, most);
}

/** One lane's value between rows. */
function valueAt(data: Float32Array, start: number, row: number): number {
  const lo = row | 0;
  const at = start + LANES * lo;
  const a = data[at];
  return a + (row - lo) * (data[at + LANES] - a);
}

/** What a room still holds of earlier sound, bin by bin, for both windows; frames must be pushed in order. */
export interface RoomMemory {
  long: SpectralMemory;
  short: SpectralMemory;
}

interface SpectralMemory {
  /** Take the reflected power out of the spectra just made of the first `lanes` lanes. */
  remove(lanes: number): void;
  /** Share of each lane's power that was left. */
  fresh: Float64Array;
}

/** Reflected power is taken off with this factor (it strays from its mean), and so much of a bin always stays. */
const OVER_SUBTRACTION = 1.4;
const LEAST_LEFT = 0.1;
/** Nothing above is looked at for pitch. */
const MEMORY_TOP_HZ = 3950;
const FRESH_FACTOR = 0.7;

// Where a memory stands while the kernel works on it.
const [heldPlace, fedPlace] = [reserve(LONG_FFT / 2), reserve(LONG_FFT / 2)];
const sumsPlace = reserve(2 * LANES * LANES);

/**
 * A room's memory: late reverberant power decays exponentially in every bin and is fed by the direct power (Lebart, Boucher &
 * Denbigh 2001, after Polack 1988). `hopFrames` frames of HOP_S lie between one spectrum and the next.
 */
export function createRoomMemory(room: RoomSound, shared: number): RoomMemory {
  return { long: spectralMemory(long, room, shared), short: spectralMemory(short, room, 1) };
}

function spectralMemory(w: LagWindow, room: RoomSound, hopFrames: number): SpectralMemory {
  const keep = decayOf(room, hopFrames * HOP_S);
  const feed = (1 - keep) * room.share;
  // Whole groups of four, as the kernel reads them.
  const rows = 4 * Math.ceil((MEMORY_TOP_HZ * w.transforms.size) / w.rate / 4);
  const held = new Float32Array(rows);
  const fed = new Float32Array(rows);
  const fresh = new Float64Array(LANES);
  return {
    fresh,
    remove(lanes) {
      const data = floats();
      data.set(held, heldPlace / 4);
      data.set(fed, fedPlace / 4);
      forget(rows, lanes, w.transforms.power, heldPlace, fedPlace, keep, feed, OVER_SUBTRACTION, LEAST_LEFT, sumsPlace);
      held.set(data.subarray(heldPlace / 4, heldPlace / 4 + rows));
      fed.set(data.subarray(fedPlace / 4, fedPlace / 4 + rows));
      const sumOf = (part: number) => data[part] + data[part + 1] + data[part + 2] + data[part + 3];
      for (let lane = 0; lane < lanes; lane++) {
        const at = sumsPlace / 4 + 2 * LANES * lane;
        fresh[lane] = Math.max(LEAST_LEFT, 1 - (FRESH_FACTOR * sumOf(at + LANES)) / (sumOf(at) + 1e-20));
      }
    },
  };
}

/** Frames that may look through one long window: it hardly moves in 5 ms. */
export const SHARED = 2;
/** Most frames `findCandidates` takes in one call when SHARED look through one long window. */
export const MOST_FRAMES = LANES * SHARED;

/**
 * Fill `out[0..count - 1]` with the pitch candidates of `count` frames HOP samples apart, the first centred on sample `centre`
 * of `samples` (ANALYSIS_RATE), which is sample `halfCentre` of `half`, the same sound at half the rate. `shared` frames look
 * through one long window that stands midway between them (1 or SHARED; `count` is at most LANES times that).
 *
 * Each frame is looked at through 64 ms and 24 ms: peaks of the window-corrected autocorrelation (Boersma 1993) at both
 * lengths, each weighed by a harmonic comb on the compressed spectrum (harmonics against the valleys between them, in the
 * spirit of Camacho & Harris 2008), so that neither a strong second harmonic nor a weak fundamental decides alone. With a `memory` (frames then in order) what the
 * room still holds of earlier sound is taken off both spectra first.
 */
export function findCandidates(
  samples: Float32Array,
  centre: number,
  half: Float32Array,
  halfCentre: number,
  out: Candidates[],
  count: number,
  shared: number,
  memory: RoomMemory | null = null,
) {
  spectra(long, half, halfCentre + ((shared - 1) * HOP) / 4, (shared * HOP) / 2);
  if (memory) memory.long.remove(count / shared);
  const slow = long.transforms.autocorrelations(long.maxLag + 1, long.emphasis, long.correction) / 4;
  const loudness = long.transforms.fourthRoots() / 4;
  const data = floats();
  for (let f = 0; f < count; f++) {
    const frame = out[f];
    if (f % shared > 0) {
      copyCandidates(out[f - 1], frame);
      continue;
    }
    const lane = f / shared;
    frame.count = 0;
    frame.levelDb = 10 * Math.log10(Math.max(0, data[slow + lane]) / LONG_TAPER_POWER + 1e-12);
    frame.fresh = memory ? memory.long.fresh[lane] : 1;
    if (frame.levelDb <= SILENT_DB) continue;
    collectPeaks(long, data, slow + lane, frame, 0);
    for (let c = 0; c < frame.count; c++) frame.comb[c] = combMatch(data, loudness + lane, frame.hz[c]);
  }
  for (let first = 0; first < count; first += LANES) {
    spectra(short, samples, centre + first * HOP, HOP);
    if (memory) memory.short.remove(Math.min(LANES, count - first));
    const fast = short.transforms.autocorrelations(short.maxLag + 1, short.emphasis, short.correction) / 4;
    const end = Math.min(count, first + LANES);
    for (let f = first; f < end; f++) if (out[f].levelDb > SILENT_DB) addFast(out[f], fast + f - first, loudness + Math.floor(f / shared));
  }
}

/** Add what one lane of the short window shows, and weigh all candidates by the comb on the long window's spectrum. */
function addFast(frame: Candidates, fast: number, loudness: number) {
  const data = floats();
  // Noise correlates with itself more easily in a short window: the discount keeps it from winning by chance.
  collectPeaks(short, data, fast, frame, 0.06);
  let best = 1e-12;
  for (let c = 0; c < frame.count; c++) {
    if (Number.isNaN(frame.comb[c])) frame.comb[c] = combMatch(data, loudness, frame.hz[c]);
    if (frame.comb[c] > best) best = frame.comb[c];
  }
  for (let c = 0; c < frame.count; c++) frame.comb[c] = Math.max(0, frame.comb[c] / best);
  // Who is far behind needs no second look: it can only lose by it. Where a leader turns out to be a subharmonic others come near.
  lookedAt.fill(0);
  for (let fallen = true; fallen;) {
    fallen = false;
    let most = -Infinity;
    for (let c = 0; c < frame.count; c++) most = Math.max(most, worth(frame, c));
    for (let c = 0; c < frame.count; c++) {
      if (lookedAt[c] || worth(frame, c) <= most - FAR_BEHIND) continue;
      lookedAt[c] = 1;
      const below = Math.max(0, subharmonic(data, loudness, frame.hz[c]));
      frame.comb[c] -= SUBHARMONIC_COMB * below;
      fallen ||= below > 0;
    }
  }
}

const lookedAt = new Uint8Array(MAX_CANDIDATES);
const worth = (frame: Candidates, c: number) => frame.clarity[c] + 0.5 * frame.comb[c];

function copyCandidates(from: Candidates, to: Candidates) {
  to.count = from.count;
  to.levelDb = from.levelDb;
  to.fresh = from.fresh;
  to.hz.set(from.hz);
  to.octaves.set(from.octaves);
  to.clarity.set(from.clarity);
  to.comb.set(from.comb);
}

/**
 * Windows of the harmonic reader: about five periods, so that harmonics stand apart and fast glides smear little. Below
 * SLOW_READ_HZ every harmonic lies within the half rate's band, which gives the same resolution for half the work.
 */
const READ_FFT = 1024;
const LONGEST_READ = 512;
const SLOW_READ_HZ = (5 * ANALYSIS_RATE) / LONGEST_READ;
/** Nothing above is made use of. */
const HIGHEST_READ_HZ = 7400;
const FAST_READ = readWindows(ANALYSIS_RATE, [384, LONGEST_READ]);
const SLOW_READ = readWindows(LONG_RATE, [320, 416, LONGEST_READ]);

function readWindows(rate: number, lengths: number[]) {
  const windows = lengths.map((length) => {
    const taper = hann(length);
    const padded = new Float64Array(READ_FFT);
    padded.set(taper);
    return { length, taper: place(padded), gainDb: 20 * Math.log10(2 / taper.reduce((s, w) => s + w, 0)) };
  });
  return { rate, windows, topBin: Math.floor((Math.min(HIGHEST_READ_HZ, 0.48 * rate) * READ_FFT) / rate) };
}

// Each lane's samples lie one after another; a short window reads on into the next under a taper of zeros.
const readSamples = reserve(LANES * LONGEST_READ + READ_FFT);
const readStarts = new Float64Array(LANES);
const readTapers = new Float64Array(LANES);
const readGains = new Float64Array(LANES);

/** Whether a pitch is read from the signal at half the rate: frames read in one call must agree in this. */
export const readsSlow = (hz: number): boolean => hz < SLOW_READ_HZ;

/**
 * Refine the pitches of `count` (1 to 4) frames and measure their harmonics in windows of about five periods (24 to 64 ms)
 * of a signal at ANALYSIS_RATE or, where the pitches are slow, at half of it. `centres` (its samples) and `hz` hold their places and pitches; `hz` is refined in place (amplitude-weighted mean over the
 * harmonics' interpolated peaks), and HARMONICS levels (dB of each sinusoid's amplitude) go to `out` from each of `offsets`.
 */
export function readHarmonics(
  samples: Float32Array,
  centres: ArrayLike<number>,
  hz: Float64Array,
  count: number,
  out: Float32Array,
  offsets: ArrayLike<number>,
): void {
  const { rate, windows, topBin } = readsSlow(hz[0]) ? SLOW_READ : FAST_READ;
  for (let lane = 0; lane < LANES; lane++) {
    const from = Math.min(lane, count - 1);
    let w = 0;
    while (w < windows.length - 1 && windows[w].length * hz[from] < 5 * rate) w++;
    const { length, taper, gainDb } = windows[w];
    readStarts[lane] = readSamples + 4 * LONGEST_READ * lane;
    readTapers[lane] = taper;
    readGains[lane] = gainDb;
    copySamples(samples, centres[from] - (length >> 1), LONGEST_READ, readStarts[lane]);
  }
  const start = fourTransforms(READ_FFT).powerSpectra(readStarts, readTapers, LONGEST_READ) / 4;
  const data = floats();
  for (let lane = 0; lane < count; lane++)
    hz[lane] = readLane(data, start + lane, rate / READ_FFT, topBin, hz[lane], readGains[lane], out, offsets[lane]);
}

const FINENESS = Float64Array.from({ length: HARMONICS + 1 }, (_, k) => k ** 1.5);
const foundHz = new Float64Array(HARMONICS);
const foundWeights = new Float64Array(HARMONICS);
const AGREEING_PASSES = 3;
/** A harmonic that is this far off (5 cents) counts half. */
const STRAYS = 0.006;

function readLane(
  data: Float32Array,
  start: number,
  binHz: number,
  topBin: number,
  hz: number,
  gainDb: number,
  out: Float32Array,
  offset: number,
): number {
  let spacing = hz / binHz;
  let sumF = 0;
  let sumW = 0;
  let found = 0;
  for (let k = 1; k <= HARMONICS; k++) {
    const at = k * spacing;
    out[offset + k - 1] = NO_HARMONIC_DB;
    if (at > topBin) continue;
    // The lower harmonics have told by now where the higher ones are.
    const reach = Math.max(1, Math.min(0.35 * spacing, (k > 3 ? 0.012 : 0.03) * at + 1.5));
    let peak = Math.round(at);
    const last = Math.min(topBin, Math.floor(at + reach));
    let top = data[start + LANES * peak];
    for (let b = Math.max(1, Math.ceil(at - reach)), i = start + LANES * b; b <= last; b++, i += LANES) {
      if (data[i] > top) {
        top = data[i];
        peak = b;
      }
    }
    const low = data[start + LANES * (peak - 1)];
    const high = data[start + LANES * (peak + 1)];
    if (!(top > low && top >= high)) continue;
    // A harmonic that doesn't stand out of the valleys beside it is breath noise.
    const below = data[start + LANES * Math.round(at - 0.5 * spacing)];
    const above = data[start + LANES * Math.min(topBin, Math.round(at + 0.5 * spacing))];
    // Under the first one mains hum may lie.
    const stands = top > STANDS_OUT * (k === 1 ? above : 0.5 * (below + above));
    if (!stands && k > 16) continue;
    const y = Math.log(top);
    const a = Math.log(low + 1e-30);
    const c = Math.log(high + 1e-30);
    const shift = (0.5 * (a - c)) / (a - 2 * y + c);
    const db = (10 / Math.LN10) * (y - 0.25 * (a - c) * shift) + gainDb;
    if (stands) out[offset + k - 1] = db;
    if (k > 16) continue;
    const fk = ((peak + shift) * binHz) / k;
    if (Math.abs(fk / hz - 1) > 0.035) continue;
    // The root of the amplitude, and more for higher harmonics, which tell the pitch more finely.
    const weight = Math.sqrt(Math.sqrt(top)) * FINENESS[k];
    foundHz[found] = fk;
    foundWeights[found++] = weight;
    sumF += weight * fk;
    sumW += weight;
    spacing = sumF / sumW / binHz;
  }
  return found > 2 ? agreed(found, sumF / sumW) : sumW > 0 ? sumF / sumW : hz;
}

/** The pitch most harmonics agree on: a weighted mean that lets go of those that stray (a room's echo of an earlier pitch). */
function agreed(found: number, mean: number): number {
  let pitch = mean;
  for (let pass = 0; pass < AGREEING_PASSES; pass++) {
    let sumF = 0;
    let sumW = 0;
    for (let i = 0; i < found; i++) {
      const off = (foundHz[i] / pitch - 1) / STRAYS;
      const weight = foundWeights[i] / (1 + off * off);
      sumF += weight * foundHz[i];
      sumW += weight;
    }
    pitch = sumF / sumW;
  }
  return pitch;
}
