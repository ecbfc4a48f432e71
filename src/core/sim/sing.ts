import { midiToHz } from '../music/pitch';
import { realFft } from '../signal/fft';
import { gaussian, seededRandom } from '../signal/stats';
import { Pcm } from '../voice/types';
import { PULSE_HARMONICS, pulseSpectrum } from './glottis';
import { SingerProfile, TakeTruth } from './profile';
import { CONTROL_S, perform, Performance, SimTask } from './score';
import { formantsOf, tractGain, Vowel } from './tract';

export interface SingOptions {
  seed: number;
  vowel?: Vowel;
  /** Hertz, default 44100. */
  sampleRate?: number;
  /** Background noise, dB below the loudest singing (default 55). */
  snrDb?: number;
  /** Reverberation time in seconds (default 0: dry). */
  reverbS?: number;
}

const TABLE = 2048;

/**
 * Sing a task: one period of LF pulse through the vowel's formants is built in the frequency domain for every 5 ms
 * (so nothing aliases), read at the sung pitch and cross-faded to the next; aspiration noise passes the same formants.
 * Deterministic for a seed. Returns the sound and what really happened in it.
 */
export function sing(profile: SingerProfile, task: SimTask, options: SingOptions): { pcm: Pcm; truth: TakeTruth } {
  const random = seededRandom(options.seed);
  const performance = perform(profile, task, random);
  const sampleRate = options.sampleRate ?? 44100;
  const samples = synthesise(performance, profile, options.vowel ?? 'ah', sampleRate, random);
  if (options.reverbS) addRoom(samples, sampleRate, options.reverbS);
  finishLevel(samples, options.snrDb ?? 55, gaussian(random));
  return { pcm: { samples, sampleRate }, truth: performance.truth };
}

function synthesise(p: Performance, profile: SingerProfile, vowel: Vowel, sampleRate: number, random: () => number): Float32Array {
  const controls = p.midi.length;
  const out = new Float32Array(Math.floor(controls * CONTROL_S * sampleRate));
  const fft = realFft(TABLE);
  const re = new Float64Array(TABLE / 2 + 1);
  const im = new Float64Array(TABLE / 2 + 1);
  const pulse = { re: new Float64Array(PULSE_HARMONICS + 1), im: new Float64Array(PULSE_HARMONICS + 1) };
  let current = new Float64Array(TABLE);
  let following = new Float64Array(TABLE);
  const breath = createBreath(vowel, profile.tract, sampleRate, random);
  let phase = 0;

  const table = (control: number, target: Float64Array) => {
    const hz = midiToHz(p.midi[control]);
    re.fill(0);
    im.fill(0);
    const rd = 0.85 + 1.55 * p.head[control] + 0.3 * profile.breathiness;
    const top = Math.min(PULSE_HARMONICS, Math.floor((0.48 * sampleRate) / hz));
    pulseSpectrum(rd, pulse, top);
    const formants = formantsOf(vowel, profile.tract, hz);
    for (let k = 1; k <= top; k++) {
      const g = tractGain(formants, k * hz);
      re[k] = (pulse.re[k] * g.re - pulse.im[k] * g.im) * TABLE * 0.5;
      im[k] = (pulse.re[k] * g.im + pulse.im[k] * g.re) * TABLE * 0.5;
    }
    fft.inverse(re, im, target);
  };

  table(0, following);
  for (let c = 0; c + 1 < controls; c++) {
    [current, following] = [following, current];
    const audible = p.gain[c] > 0 || p.gain[c + 1] > 0;
    if (audible) table(c + 1, following);
    const from = Math.round(c * CONTROL_S * sampleRate);
    const to = Math.min(out.length, Math.round((c + 1) * CONTROL_S * sampleRate));
    const air = 0.012 + 0.05 * profile.breathiness * (0.4 + 0.6 * p.head[c]) + 0.04 * p.rough[c];
    // Pitch goes in a straight line from one control to the next: frequency by a factor from sample to sample.
    const glide = 2 ** ((p.midi[c + 1] - p.midi[c]) / 12 / (to - from));
    let cycles = midiToHz(p.midi[c]) / sampleRate;
    for (let n = from; n < to; n++, cycles *= glide) {
      const u = (n - from) / (to - from);
      phase += cycles;
      phase -= Math.floor(phase);
      if (!audible) continue;
      const gain = p.gain[c] + (p.gain[c + 1] - p.gain[c]) * u;
      const at = phase * TABLE;
      const i = at | 0;
      const f = at - i;
      const j = (i + 1) & (TABLE - 1);
      const a = current[i] + f * (current[j] - current[i]);
      const b = following[i] + f * (following[j] - following[i]);
      const pulsed = 0.6 + 0.4 * Math.cos(2 * Math.PI * phase);
      out[n] = gain * (a + u * (b - a) + air * pulsed * breath());
    }
  }
  return out;
}

/** White noise through the vowel's first three formants (two-pole filters). */
function createBreath(vowel: Vowel, tract: 'man' | 'woman', sampleRate: number, random: () => number): () => number {
  const normal = gaussian(random);
  const stages = formantsOf(vowel, tract, 0)
    .slice(0, 4)
    .filter((f) => f.hz < 0.45 * sampleRate)
    .map(({ hz, bandwidth }) => {
      const r = Math.exp((-Math.PI * bandwidth * 2) / sampleRate);
      const a1 = 2 * r * Math.cos((2 * Math.PI * hz) / sampleRate);
      const a2 = -r * r;
      return { a1, a2, b: 1 - a1 - a2, y1: 0, y2: 0 };
    });
  return () => {
    let x = normal();
    for (const s of stages) {
      const y = s.b * x + s.a1 * s.y1 + s.a2 * s.y2;
      s.y2 = s.y1;
      s.y1 = y;
      x = y;
    }
    return x;
  };
}

/** A plain small room: four feedback combs whose decay is `seconds` to -60 dB (Schroeder 1962), mixed under the voice. */
function addRoom(samples: Float32Array, sampleRate: number, seconds: number) {
  const dry = Float32Array.from(samples);
  for (const delayS of [0.0297, 0.0371, 0.0411, 0.0437]) {
    const delay = Math.round(delayS * sampleRate);
    const feedback = 10 ** ((-3 * delayS) / seconds);
    const line = new Float32Array(delay);
    for (let n = 0, at = 0; n < samples.length; n++, at = at + 1 === delay ? 0 : at + 1) {
      const delayed = line[at];
      line[at] = dry[n] + feedback * delayed;
      samples[n] += 0.09 * delayed;
    }
  }
}

function finishLevel(samples: Float32Array, snrDb: number, normal: () => number) {
  let peak = 1e-9;
  for (const s of samples) peak = Math.max(peak, Math.abs(s));
  const scale = 0.5 / peak;
  const noise = 0.18 * 10 ** (-snrDb / 20);
  for (let i = 0; i < samples.length; i++) samples[i] = samples[i] * scale + noise * normal();
}
