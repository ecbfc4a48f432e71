import { filter, highPassAt } from '../signal/biquad';
import { humLines, notch } from '../signal/hum';
import { LANES } from '../signal/kernel';
import { createResampler, resample } from '../signal/resample';
import { quantiles } from '../signal/stats';
import { createCandidates, createRoomMemory, findCandidates, MOST_FRAMES, readHarmonics, readsSlow, SHARED } from './frame';
import { liftSubharmonics, octavesUp } from './octaves';
import { createPath } from './path';
import { estimateRoom, USUAL_ROOM } from './room';
import { ANALYSIS_RATE, HARMONICS, HOP, HOP_S, NO_HARMONIC_DB, Pcm, VoiceTrack } from './types';

/** Voiced runs shorter than this many frames (30 ms), or than so many periods, are taken for chance. */
const MIN_RUN = 6;
const MIN_PERIODS = 5;
const MIN_SECONDS = 0.02;
/** Frames within this of the floor are where nobody sings. */
const QUIET_DB = 4;
/** Hum further under the voice than this does no harm. */
const HUM_UNDER_VOICE_DB = 55;
/** Times the hum's power: under that the voice doesn't stand clear of it. */
const CLEAR_OF_HUM = 4;
/** A notch dulls this much of the band on each side. */
const NOTCHED_SHARE = 0.08;
const RINGING_SHARE = 0.02;
const OVER_HUM_DB = 6;
/** A start is cut to where the level is within 20 dB of what follows in 60 ms. */
const ONSET_FRAMES = 12;
const ONSET_DB = 20;
/** Nothing this far under what sounded within the last 0.3 s is still the same voice. */
const FADE_FRAMES = 60;
const FADE_DB = 17;
/**
 * A run that only falls (from within 2 dB of its loudest, 20 dB a second: rooms up to 3 s) and is over within a second, so far under what
 * sounded within the last 0.3 s, is the room's decay heard once more. A voice that goes on more softly after a leap is none.
 */
const ECHO_DB = 12;
const FALLS_DB = 2;
const FALLS_DB_S = 20;
const MOST_ECHO_FRAMES = 200;
/** A run that ends with less fresh sound than this ends in the room's decay. */
const STALE_FRAMES = 14;
const LEAST_FRESH = 0.5;
/** A run that ends falling by 4 dB in 80 ms or faster (50 dB/s: a room of 1.2 s) ends in the room's decay. */
const DECAY_FRAMES = 16;
const DECAY_DB = 7;
/** A hole this deep between two notes is where the first has ended. */
const FRESH_DB = 20;

/**
 * Track a voice: pitch, clarity, level and harmonics every 5 ms.
 * @throws RangeError when there are no samples or the rate is outside 8 to 192 kHz.
 */
export function trackVoice(pcm: Pcm): VoiceTrack {
  const tracker = createTracker(pcm.sampleRate);
  tracker.push(pcm.samples);
  return tracker.finish();
}

/** A take that is tracked while it is still being sung. */
export interface Tracker {
  push(block: Float32Array): void;
  /** The track of all that was pushed. @throws RangeError when that is shorter than 20 ms. */
  finish(): VoiceTrack;
}

/** Track a voice block by block, to the same bytes as `trackVoice`. @throws RangeError when the rate is outside 8 to 192 kHz. */
export function createTracker(sampleRate: number): Tracker {
  if (sampleRate < 8000 || sampleRate > 192000) throw new RangeError(`The sample rate is ${sampleRate} Hz: record at 8000 to 192000 Hz.`);
  const toFull = createResampler(sampleRate, ANALYSIS_RATE);
  const toHalf = createResampler(ANALYSIS_RATE, ANALYSIS_RATE / 2);
  const highPass = createHighPass();
  const clipping = createClipping();
  const full = createGrowing();
  const half = createGrowing();
  const candidates = Array.from({ length: MOST_FRAMES }, createCandidates);
  let pushed = 0;

  const append = (resampled: Float32Array) => {
    const samples = highPass(resampled);
    full.append(samples);
    half.append(toHalf.push(samples));
  };
  return {
    push(block) {
      pushed += block.length;
      clipping.push(block);
      append(toFull.push(block));
    },
    finish() {
      if (pushed < MIN_SECONDS * sampleRate) throw new RangeError('The recording holds no sound: it is shorter than 20 ms.');
      append(toFull.flush());
      half.append(toHalf.flush());
      const samples = full.all();
      const frames = Math.floor((samples.length - 1) / HOP) + 1;
      const f0 = new Float32Array(frames);
      const clarity = new Float32Array(frames);
      const levelDb = new Float32Array(frames);
      // Levels first: the gate needs the whole take's floor.
      shortLevels(samples, levelDb);
      const hum = removeHum(samples, levelDb);
      const humming = hum.lines.length > 0;
      const halfSamples = humming ? resample(samples, ANALYSIS_RATE, ANALYSIS_RATE / 2) : half.all();
      const [floorDb, usualDb, loudDb] = quantiles(levelDb, [0.02, 0.9, 0.98]);
      const gateDb = Math.max(Math.min(floorDb + 6, usualDb - 25), loudDb - 60);
      const path = createPath(frames);
      const memory = createRoomMemory(estimateRoom(halfSamples) ?? USUAL_ROOM, SHARED);
      const directDb = levelDb.slice();
      const fresh = new Float32Array(frames);
      for (let done = 0; done < frames; done += MOST_FRAMES) {
        const count = Math.min(MOST_FRAMES, frames - done);
        findCandidates(samples, done * HOP, halfSamples, (done * HOP) / 2, candidates, count, SHARED, memory);
        for (let lane = 0; lane < count; lane++) {
          path.push(candidates[lane], gateDb);
          fresh[done + lane] = candidates[lane].fresh;
          directDb[done + lane] += 10 * Math.log10(candidates[lane].fresh);
        }
      }
      path.traceback(f0, clarity);
      liftSubharmonics(f0);
      trimEdges(f0, directDb, fresh);
      dropRinging(f0, levelDb, hum);
      dropShortRuns(f0, clarity);

      const harmonicsDb = new Float32Array(frames * HARMONICS).fill(NO_HARMONIC_DB);
      readVoicedFrames(samples, halfSamples, f0, harmonicsDb);
      const lifted = octavesUp(f0, harmonicsDb);
      readVoicedFrames(samples, halfSamples, lifted, harmonicsDb);
      for (let i = 0; i < frames; i++) if (lifted[i] > 0) f0[i] = lifted[i];
      dropNotched(f0, harmonicsDb, hum.lines);
      return { fresh, frames, f0, clarity, levelDb, harmonicsDb, clippedShare: clipping.share(), floorDb };
    },
  };
}

/** Samples that become more: room for them doubles. */
function createGrowing() {
  let data = new Float32Array(4096);
  let length = 0;
  return {
    append(more: Float32Array) {
      if (length + more.length > data.length) {
        const larger = new Float32Array(Math.max(2 * data.length, length + more.length));
        larger.set(data.subarray(0, length));
        data = larger;
      }
      data.set(more, length);
      length += more.length;
    },
    all: () => data.subarray(0, length),
  };
}

/** Refine the pitch of every voiced frame and measure its harmonics, four frames at a time. */
function readVoicedFrames(samples: Float32Array, half: Float32Array, f0: Float32Array, harmonicsDb: Float32Array) {
  const frames = new Int32Array(LANES);
  const centres = new Int32Array(LANES);
  const offsets = new Int32Array(LANES);
  const hz = new Float64Array(LANES);
  for (let i = 0; i < f0.length;) {
    let count = 0;
    let slow = false;
    for (; i < f0.length && count < LANES; i++) {
      if (f0[i] === 0) continue;
      if (count === 0) slow = readsSlow(f0[i]);
      else if (readsSlow(f0[i]) !== slow) break;
      frames[count] = i;
      centres[count] = (i * HOP) / (slow ? 2 : 1);
      offsets[count] = i * HARMONICS;
      hz[count++] = f0[i];
    }
    if (count === 0) return;
    readHarmonics(slow ? half : samples, centres, hz, count, harmonicsDb, offsets);
    for (let lane = 0; lane < count; lane++) f0[frames[lane]] = hz[lane];
  }
}

/** A notch that a voice went through rings on its line when the voice has gone, no louder than the hum was. */
function dropRinging(f0: Float32Array, levelDb: Float32Array, { lines, levelDb: humDb }: Hum) {
  for (let i = 0; i < f0.length && lines.length > 0; i++)
    if (levelDb[i] < humDb + OVER_HUM_DB && lines.some((hz) => Math.abs(f0[i] - hz) < RINGING_SHARE * hz)) f0[i] = 0;
}

/** What a notch has eaten is not known. */
function dropNotched(f0: Float32Array, harmonicsDb: Float32Array, lines: number[]) {
  if (lines.length === 0) return;
  for (let i = 0; i < f0.length; i++)
    for (let k = 1; k <= HARMONICS && f0[i] > 0; k++)
      if (lines.some((hz) => Math.abs(k * f0[i] - hz) < NOTCHED_SHARE * hz)) harmonicsDb[i * HARMONICS + k - 1] = NO_HARMONIC_DB;
}

interface Hum {
  lines: number[];
  levelDb: number;
}

/**
 * Find mains hum where the take is quietest, and take it out of samples and levels if it is loud enough to be taken for voice:
 * its lines, hertz, and its level, dB.
 */
function removeHum(samples: Float32Array, levelDb: Float32Array): Hum {
  const [floorDb, loud] = quantiles(levelDb, [0.02, 0.95]);
  const limit = floorDb + QUIET_DB;
  let start = 0;
  let longest = 0;
  for (let i = 0, run = 0; i < levelDb.length; i++) {
    run = levelDb[i] < limit ? run + 1 : 0;
    if (run > longest) {
      longest = run;
      start = i - run + 1;
    }
  }
  const lines = humLines(samples.subarray(start * HOP, (start + longest) * HOP), ANALYSIS_RATE, 10 ** ((loud - HUM_UNDER_VOICE_DB) / 10));
  if (lines.length === 0) return { lines, levelDb: -Infinity };
  notch(samples, ANALYSIS_RATE, lines);
  const whole = levelDb.slice();
  shortLevels(samples, levelDb);
  const power = (db: number) => 10 ** (db / 10);
  let humPower = 0;
  for (let i = start; i < start + longest; i++) humPower += (power(whole[i]) - power(levelDb[i])) / longest;
  // A harmonic that glides through a notch leaves a hole: where the voice stands clear of the hum its level is known without.
  for (let i = 0; i < levelDb.length; i++)
    levelDb[i] = 10 * Math.log10(Math.max(power(levelDb[i]), power(whole[i]) - CLEAR_OF_HUM * humPower));
  return { lines, levelDb: 10 * Math.log10(humPower) };
}

/** RMS level of each frame over 20 ms, dB re full scale: energies of 5 ms pieces, four to a frame. */
function shortLevels(samples: Float32Array, out: Float32Array) {
  const pieces = new Float64Array(out.length + 3);
  for (let p = 0; p < pieces.length; p++) {
    // Piece p begins two hops before frame p.
    const from = Math.max(0, (p - 2) * HOP);
    const to = Math.min(samples.length, (p - 1) * HOP);
    let sum = 0;
    for (let s = from; s < to; s++) sum += samples[s] * samples[s];
    pieces[p] = sum;
  }
  for (let i = 0; i < out.length; i++) {
    const count = Math.min(samples.length, (i + 2) * HOP) - Math.max(0, (i - 2) * HOP);
    out[i] = 10 * Math.log10((pieces[i] + pieces[i + 1] + pieces[i + 2] + pieces[i + 3]) / Math.max(1, count) + 1e-10);
  }
}

/** What makes samples in a row flat: how loud they are at least, how far apart at most, and how many. */
const FLAT = [
  // At full scale.
  { least: 0.985, apart: 1e-3, run: 3 },
  // At a ceiling of its own, as of an amplifier before the converter: the same value again and again, which the top of no tone is (at 16 bit
  // a sine of 100 Hz stands on one value for two samples at 48 kHz, for four at 96).
  { least: 0.5, apart: 1e-5, run: 5 },
];

/** Counts samples in rows that stand still at a ceiling. */
function createClipping() {
  let samples = 0;
  let clipped = 0;
  let last = 0;
  let wasFlat = false;
  const runs = FLAT.map(() => 0);
  return {
    push(block: Float32Array) {
      samples += block.length;
      for (const x of block) {
        let flat = 0;
        for (let r = 0; r < FLAT.length; r++) {
          const { least, apart, run } = FLAT[r];
          if (x < least && x > -least) runs[r] = 0;
          else runs[r] = Math.abs(x - last) < apart ? runs[r] + 1 : 1;
          if (flat === 0 && runs[r] >= run) flat = run;
        }
        // The first of a row is known for one at its end.
        if (flat > 0) clipped += wasFlat ? 1 : flat;
        wasFlat = flat > 0;
        last = x;
      }
    },
    share: () => (samples ? clipped / samples : 0),
  };
}

/** Takes away DC and rumble under 40 Hz, block by block. */
export function createHighPass(): (block: Float32Array) => Float32Array {
  const section = highPassAt(40, ANALYSIS_RATE);
  const state = new Float64Array(2);
  return (block) => {
    const out = new Float32Array(block.length);
    filter(section, block, out, state);
    return out;
  };
}

/**
 * Take from each voiced run what isn't the voice: the window's reach before a start, and the room's decay after an end or
 * before a fresh start on another note. The decay of a room falls without a pause; a voice that goes on does not.
 */
function trimEdges(f0: Float32Array, levelDb: Float32Array, fresh: Float32Array) {
  for (let i = 0; i < f0.length;) {
    if (f0[i] === 0) {
      i++;
      continue;
    }
    let end = i;
    while (end < f0.length && f0[end] > 0) end++;
    for (let from = i; from < end;) {
      const next = freshStart(levelDb, from, end);
      trimRun(f0, levelDb, fresh, from, next);
      from = next;
    }
    i = end;
  }
}

/** The next frame of a run at which a voice sets in out of a decay, or the run's end. */
function freshStart(levelDb: Float32Array, from: number, end: number): number {
  for (let i = from + DECAY_FRAMES; i + ONSET_FRAMES < end; i++) {
    if (levelDb[i] > levelDb[i - 1] || levelDb[i] > levelDb[i + 1]) continue;
    const before = loudest(levelDb, Math.max(from, i - FADE_FRAMES), i);
    const after = loudest(levelDb, i, i + ONSET_FRAMES);
    if (Math.min(before, after) - levelDb[i] > FRESH_DB) return i;
  }
  return end;
}

function trimRun(f0: Float32Array, levelDb: Float32Array, fresh: Float32Array, start: number, end: number) {
  let from = start;
  const before = loudest(levelDb, Math.max(0, start - FADE_FRAMES), start);
  const most = loudest(levelDb, start, end);
  const fallsBy = levelDb[start] - levelDb[end - 1];
  const falls = levelDb[start] > most - FALLS_DB && fallsBy >= FALLS_DB_S * (end - start) * HOP_S;
  if (most < before - ECHO_DB && falls && end - start <= MOST_ECHO_FRAMES) {
    f0.fill(0, start, end);
    return;
  }
  while (from < end && levelDb[from] < loudest(levelDb, from, Math.min(end, from + ONSET_FRAMES)) - ONSET_DB) from++;
  let to = end;
  while (to > from) {
    const back = Math.max(from, to - STALE_FRAMES);
    let sum = 0;
    for (let i = back; i < to; i++) sum += fresh[i];
    if (sum >= LEAST_FRESH * (to - back)) break;
    to--;
  }
  while (to > from && levelDb[to - 1] < loudest(levelDb, Math.max(from, to - FADE_FRAMES), to) - FADE_DB) to--;
  while (to - from > 1 && levelDb[to - 1] < loudest(levelDb, Math.max(from, to - DECAY_FRAMES), to) - DECAY_DB) to--;
  f0.fill(0, start, from);
  f0.fill(0, to, end);
}

function loudest(levelDb: Float32Array, from: number, to: number): number {
  let most = -Infinity;
  for (let i = from; i < to; i++) if (levelDb[i] > most) most = levelDb[i];
  return most;
}

function dropShortRuns(f0: Float32Array, clarity: Float32Array) {
  for (let i = 0; i < f0.length;) {
    if (f0[i] === 0) {
      i++;
      continue;
    }
    let end = i;
    let periods = 0;
    for (; end < f0.length && f0[end] > 0; end++) periods += f0[end] * HOP_S;
    if (end - i < MIN_RUN || periods < MIN_PERIODS) {
      f0.fill(0, i, end);
      clarity.fill(0, i, end);
    }
    i = end;
  }
}
