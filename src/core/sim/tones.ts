import { gaussian, seededRandom } from '../signal/stats';
import { Pcm } from '../voice/types';

export interface ToneOptions {
  seconds: number;
  /** Pitch at a time, hertz. */
  hz: (t: number) => number;
  sampleRate?: number;
  /** Amplitude of harmonic k at a pitch and time; default 1/k. */
  amplitude?: (k: number, hz: number, t: number) => number;
  /** Loudness at a time, default 1. */
  gain?: (t: number) => number;
  /** Quiet before and after, seconds (default 0.3). */
  restS?: number;
  /** White noise this far under the tone's own power, dB; none by default. */
  snrDb?: number;
  seed?: number;
}

/**
 * A tone added up from sinusoids: a generator unrelated to the simulated singer, for tests and the bench. Sound begins
 * after `restS`; `hz` and `gain` count from there.
 */
export function additiveTone(options: ToneOptions): Pcm {
  const { seconds, hz, sampleRate = 44100, amplitude = (k) => 1 / k, gain = () => 1, restS = 0.3, snrDb, seed = 1 } = options;
  const rest = Math.round(restS * sampleRate);
  const n = Math.round(seconds * sampleRate);
  const samples = new Float32Array(n + 2 * rest);
  const fade = 0.01 * sampleRate;
  let phase = 0;
  let power = 0;
  for (let i = 0; i < n; i++) {
    const f = hz(i / sampleRate);
    phase += f / sampleRate;
    let x = 0;
    for (let k = 1; k * f < 0.45 * sampleRate && k <= 60; k++) x += amplitude(k, f, i / sampleRate) * Math.sin(2 * Math.PI * k * phase);
    x *= 0.2 * gain(i / sampleRate) * Math.min(1, i / fade, (n - i) / fade);
    samples[rest + i] = x;
    power += x * x;
  }
  if (snrDb !== undefined) {
    const normal = gaussian(seededRandom(seed));
    const sd = Math.sqrt(power / n) * 10 ** (-snrDb / 20);
    for (let i = 0; i < samples.length; i++) samples[i] += sd * normal();
  }
  return { samples, sampleRate };
}
