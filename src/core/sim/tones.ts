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

/** Harmonics of a tone at most. */
const MOST_HARMONICS = 60;
/** Nothing lies above this share of the sample rate. */
const BAND_SHARE = 0.45;
/** How often the amplitudes are asked for, seconds: far shorter than a hitch of a voice. */
const STEP_S = 0.001;

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
  // Amplitudes are asked for at every step and lie on straight lines between.
  const step = Math.round(STEP_S * sampleRate);
  const amplitudes = (i: number) => {
    const t = i / sampleRate;
    const f = hz(t);
    return Float64Array.from({ length: MOST_HARMONICS }, (_, k) => amplitude(k + 1, f, t));
  };
  let [from, to] = [amplitudes(0), amplitudes(0)];
  let phase = 0;
  let power = 0;
  for (let i = 0; i < n; i++) {
    if (i % step === 0) [from, to] = [to, amplitudes(i + step)];
    const f = hz(i / sampleRate);
    phase += f / sampleRate;
    const harmonics = Math.min(MOST_HARMONICS, Math.ceil((BAND_SHARE * sampleRate) / f) - 1);
    const share = (i % step) / step;
    // sin((k + 1) p) = 2 cos(p) sin(k p) - sin((k - 1) p)
    const turn = 2 * Math.cos(2 * Math.PI * phase);
    let [before, sine] = [0, Math.sin(2 * Math.PI * phase)];
    let x = 0;
    for (let k = 0; k < harmonics; k++) {
      x += (from[k] + share * (to[k] - from[k])) * sine;
      const next = turn * sine - before;
      before = sine;
      sine = next;
    }
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
