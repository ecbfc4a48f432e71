import { gaussian, seededRandom } from '../signal/stats';
import { HARMONICS, HOP_S, NO_HARMONIC_DB, VoiceTrack } from '../voice/types';
import { oddsOfString } from './struck-odds';

interface Tone {
  seconds: number;
  /** Seconds from 30 dB under its peak to it, dB a second it then falls, and how much faster each partial falls than the one under it. */
  attackS: number;
  fall: number;
  faster: number;
  /** Cents it wanders slowly, and is shaken by noise from frame to frame. */
  wander: number;
  noise: number;
  swellDb: number;
}
const PIANO: Tone = { seconds: 1, attackS: 0.01, fall: 15, faster: 4, wander: 0.5, noise: 1, swellDb: 0 };
const VOICE: Tone = { seconds: 1, attackS: 0.2, fall: 15, faster: 0.3, wander: 8, noise: 3, swellDb: 0 };

/** Odds of a tone made frame by frame. */
function odds({ seconds, attackS, fall, faster, wander, noise, swellDb }: Tone): number {
  const normal = gaussian(seededRandom(3));
  const start = 40;
  const peak = start + Math.round(attackS / HOP_S);
  const frames = peak + Math.round(seconds / HOP_S);
  const levelDb = new Float32Array(frames).fill(-80);
  const harmonicsDb = new Float32Array(frames * HARMONICS).fill(NO_HARMONIC_DB);
  const contour = new Float64Array(frames).fill(NaN);
  for (let i = start; i < frames; i++) {
    const t = (i - peak) * HOP_S;
    levelDb[i] = t < 0 ? -20 + (30 * t) / attackS : -20 - fall * t + swellDb * Math.sin((Math.PI * t) / seconds) ** 8;
    contour[i] = 60 + (wander * Math.sin(2 * Math.PI * 2.7 * t) + noise * normal()) / 100;
    for (let k = 0; k < 10; k++) harmonicsDb[i * HARMONICS + k] = levelDb[i] - 3 * k - faster * k * t;
  }
  const track: VoiceTrack = {
    frames,
    f0: new Float32Array(frames).fill(261.6),
    clarity: new Float32Array(frames).fill(1),
    levelDb,
    harmonicsDb,
    clippedShare: 0,
    floorDb: -80,
  };
  return oddsOfString(track, contour, peak, frames);
}

test('a piano’s tone is taken for struck, a held note that fades for sung', () => {
  expect(odds(PIANO)).toBeGreaterThan(2);
  expect(odds(VOICE)).toBeLessThan(-2);
});

test.each<[string, Partial<Tone>]>([
  ['a pitch that wanders', { wander: 8 }],
  ['a slow attack', { attackS: 0.1 }],
  ['partials that fall alike', { faster: 0 }],
  ['a swell', { swellDb: 8 }],
  ['less of it', { seconds: 0.3 }],
])('%s tells for a voice', (_, change) => {
  expect(odds({ ...PIANO, ...change })).toBeLessThan(odds(PIANO) - 1);
});

test('noise that shakes the pitch from frame to frame tells little: a soft string is one too', () => {
  expect(odds({ ...PIANO, noise: 6 })).toBeGreaterThan(odds({ ...PIANO, wander: 6 }) + 2);
});

test('a tone that doesn’t die away, or is hardly there, is no string however still', () => {
  expect(odds({ ...PIANO, fall: 3 })).toBe(-Infinity);
  expect(odds({ ...PIANO, seconds: 0.08 })).toBe(-Infinity);
});
