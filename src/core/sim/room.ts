import { realFft } from '../signal/fft';
import { gaussian, seededRandom } from '../signal/stats';
import { Pcm } from '../voice/types';

const SPEED_OF_SOUND = 343;
/** Images are reckoned this far; what comes later is as dense as noise and is drawn as such. */
const IMAGES_S = 0.25;
/** Half the length of the band-limited impulse an image leaves, samples (Peterson 1986). */
const IMPULSE_REACH = 8;
/** The direct sound is over after this. */
const DIRECT_S = 0.0015;
/** Walls reflect less the higher the sound: the reflected part falls 6 dB an octave from here. */
const WALLS_DULL_HZ = 5000;
/** Walls that reflect alike at every frequency pile up what lies below this (Allen & Berkley 1979). */
const RUMBLE_HZ = 80;

export type Point = readonly [x: number, y: number, z: number];

/** A room with parallel walls, a mouth and a microphone in it; metres, seconds. */
export interface Room {
  size: Point;
  /** Until the sound has fallen by 60 dB. */
  reverbS: number;
  mouth: Point;
  microphone: Point;
}

/** Rooms people record in: size, metres, and reverberation time, seconds, each from and to (common practice, no source). */
const KINDS = [
  {
    name: 'living room',
    size: [
      [3.5, 6],
      [3, 5],
      [2.4, 2.8],
    ],
    reverbS: [0.3, 0.6],
  },
  {
    name: 'practice room',
    size: [
      [2, 4],
      [2, 3.5],
      [2.3, 2.8],
    ],
    reverbS: [0.2, 0.5],
  },
  {
    name: 'bathroom',
    size: [
      [1.6, 2.6],
      [1.5, 2.4],
      [2.3, 2.6],
    ],
    reverbS: [0.5, 0.9],
  },
  {
    name: 'hall',
    size: [
      [8, 14],
      [6, 10],
      [4, 7],
    ],
    reverbS: [0.8, 1.5],
  },
] as const;

/**
 * Draw a room of the usual kinds with the microphone so far from the mouth that direct sound stands about `directDb` over the
 * reflected (10 to 150 cm; the response's own ratio differs by a few dB).
 */
export function drawRoom(seed: number, directDb: number): Room & { name: string } {
  const random = seededRandom(seed);
  const between = ([low, high]: readonly [number, number]) => low + (high - low) * random();
  const { name, size: sizes, reverbS: times } = KINDS[Math.floor(random() * KINDS.length)];
  const size = sizes.map(between) as unknown as Point;
  const reverbS = between(times);
  const volume = size[0] * size[1] * size[2];
  // Direct and reflected sound are equal at 0.057 sqrt(V / T) metres (Kuttruff, Room Acoustics; from memory).
  const distance = Math.min(1.5, 0.45 * size[0], Math.max(0.1, 0.057 * Math.sqrt(volume / reverbS) * 10 ** (-directDb / 20)));
  const mouth: Point = [size[0] * between([0.3, 0.5]), size[1] * between([0.3, 0.7]), between([1.2, 1.6])];
  const turn = between([-0.6, 0.6]);
  const microphone: Point = [mouth[0] + distance * Math.cos(turn), mouth[1] + distance * Math.sin(turn), mouth[2] - 0.1 * distance];
  return { name, size, reverbS, mouth, microphone };
}

/**
 * Impulse response from mouth to microphone by the image-source method (Allen & Berkley 1979) with fractional delays
 * (Peterson 1986), the late part as decaying noise. It begins with the direct sound, of height 1.
 */
export function roomResponse(room: Room, sampleRate: number, seed = 1): Float64Array {
  const { size, mouth, microphone, reverbS } = room;
  const distance = Math.hypot(...mouth.map((m, i) => m - microphone[i]));
  const length = Math.ceil((reverbS + distance / SPEED_OF_SOUND) * sampleRate);
  const out = new Float64Array(length + 2 * IMPULSE_REACH);
  const imagesS = Math.min(IMAGES_S, reverbS);
  const reach = imagesS * SPEED_OF_SOUND;
  const reflection = wallReflection(size, reverbS);
  const start = (distance / SPEED_OF_SOUND) * sampleRate - IMPULSE_REACH;
  const axis = size.map((length, i) => {
    const images: { offset: number; bounces: number }[] = [];
    for (let n = -Math.ceil(reach / (2 * length)); n <= Math.ceil(reach / (2 * length)); n++) {
      images.push({ offset: 2 * n * length + mouth[i] - microphone[i], bounces: Math.abs(2 * n) });
      images.push({ offset: 2 * n * length - mouth[i] - microphone[i], bounces: Math.abs(2 * n - 1) });
    }
    return images;
  });
  for (const x of axis[0])
    for (const y of axis[1])
      for (const z of axis[2]) {
        const far = Math.hypot(x.offset, y.offset, z.offset);
        const bounces = x.bounces + y.bounces + z.bounces;
        if (far > reach || bounces === 0) continue;
        addImpulse(out, (far / SPEED_OF_SOUND) * sampleRate - start, (reflection ** bounces * distance) / far);
      }
  addTail(out, imagesS, reverbS, sampleRate, seed);
  dull(out, sampleRate);
  addImpulse(out, IMPULSE_REACH, 1);
  return out.slice(IMPULSE_REACH);
}

/** A response without walls: direct sound, and so many dB under it noise that decays by 60 dB in `reverbS` (Polack 1988). */
export function decayingNoise(reverbS: number, directDb: number, sampleRate: number, seed = 1): Float64Array {
  const normal = gaussian(seededRandom(seed));
  const out = Float64Array.from({ length: Math.ceil(reverbS * sampleRate) }, (_, i) => normal() * 10 ** ((-3 * i) / sampleRate / reverbS));
  const energy = out.reduce((s, x) => s + x * x, 0);
  const scale = 10 ** (-directDb / 20) / Math.sqrt(energy);
  return out.map((x, i) => (i === 0 ? 1 : x * scale));
}

/** Pressure reflected by the walls, all alike (Eyring 1930). */
function wallReflection(size: Point, reverbS: number): number {
  const [a, b, c] = size;
  const absorbed = 1 - Math.exp((-0.161 * a * b * c) / (reverbS * 2 * (a * b + b * c + c * a)));
  return Math.sqrt(1 - absorbed);
}

/** An impulse between samples: a sinc under a raised cosine. */
function addImpulse(out: Float64Array, at: number, height: number) {
  const first = Math.max(0, Math.ceil(at - IMPULSE_REACH));
  const last = Math.min(out.length - 1, Math.floor(at + IMPULSE_REACH));
  for (let i = first; i <= last; i++) {
    const x = i - at;
    const sinc = Math.abs(x) < 1e-9 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x);
    out[i] += height * sinc * (0.5 + 0.5 * Math.cos((Math.PI * x) / IMPULSE_REACH));
  }
}

/** What comes after the images: noise that goes on at their level and falls as the room lets it. */
function addTail(out: Float64Array, imagesS: number, reverbS: number, sampleRate: number, seed: number) {
  const from = Math.floor(imagesS * sampleRate);
  const before = out.subarray(Math.max(0, from - Math.floor(0.05 * sampleRate)), from);
  const level = Math.sqrt(before.reduce((s, x) => s + x * x, 0) / Math.max(1, before.length));
  const normal = gaussian(seededRandom(seed));
  for (let i = from; i < out.length; i++) out[i] = level * normal() * 10 ** ((-3 * (i - from)) / sampleRate / reverbS);
}

/** First-order low-pass and high-pass of the reflected sound. */
function dull(out: Float64Array, sampleRate: number) {
  const [a, b] = [WALLS_DULL_HZ, RUMBLE_HZ].map((hz) => 1 - Math.exp((-2 * Math.PI * hz) / sampleRate));
  let low = 0;
  let rumble = 0;
  for (let i = 0; i < out.length; i++) {
    low += a * (out[i] - low);
    rumble += b * (low - rumble);
    out[i] = low - rumble;
  }
}

/** Level of the direct sound over all that follows it, dB. */
export function directToReverberantDb(response: Float64Array, sampleRate: number): number {
  const until = Math.round(DIRECT_S * sampleRate);
  const energy = (part: Float64Array) => part.reduce((s, x) => s + x * x, 0);
  return 10 * Math.log10(energy(response.subarray(0, until)) / Math.max(1e-12, energy(response.subarray(until))));
}

/** A take as the room's microphone hears it, at most as loud at its peak as it was. */
export const heardIn = (room: Room, pcm: Pcm, seed = 1): Pcm => heardThrough(roomResponse(room, pcm.sampleRate, seed), pcm);

/** The same through a response that is known already (of the take's own sample rate). */
export function heardThrough(response: Float64Array, { samples, sampleRate }: Pcm): Pcm {
  const heard = convolve(samples, response);
  const peak = (of: Float32Array) => of.reduce((most, x) => Math.max(most, Math.abs(x)), 1e-9);
  const gain = Math.min(1, peak(samples) / peak(heard));
  return { sampleRate, samples: heard.map((x) => x * gain) };
}

const BLOCK = 16384;

/** Samples through a response of at most BLOCK samples a piece (overlap-add); as long as they were. */
export function convolve(samples: Float32Array, response: Float64Array): Float32Array {
  const out = new Float32Array(samples.length);
  for (let at = 0; at < response.length; at += BLOCK) convolvePiece(samples, response.subarray(at, at + BLOCK), at, out);
  return out;
}

function convolvePiece(samples: Float32Array, response: Float64Array, delay: number, out: Float32Array) {
  const fft = realFft(2 * BLOCK);
  const [hr, hi, xr, xi] = Array.from({ length: 4 }, () => new Float64Array(BLOCK + 1));
  const time = new Float64Array(2 * BLOCK);
  time.set(response);
  fft.forward(time, hr, hi);
  for (let from = 0; from < samples.length; from += BLOCK) {
    time.fill(0);
    time.set(samples.subarray(from, from + BLOCK));
    fft.forward(time, xr, xi);
    for (let k = 0; k <= BLOCK; k++) {
      const re = xr[k] * hr[k] - xi[k] * hi[k];
      xi[k] = xr[k] * hi[k] + xi[k] * hr[k];
      xr[k] = re;
    }
    fft.inverse(xr, xi, time);
    const end = Math.min(2 * BLOCK, out.length - from - delay);
    for (let i = 0; i < end; i++) out[from + delay + i] += time[i];
  }
}
