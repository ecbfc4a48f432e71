import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { readWav } from '../../core/format/wav';
import { midiToHz } from '../../core/music/pitch';
import type { SingerProfile } from '../../core/sim/profile';
import type { SimTask } from '../../core/sim/score';
import type { Vowel } from '../../core/sim/tract';
import { hann, realFft } from '../../core/signal/fft';
import { resample } from '../../core/signal/resample';
import { gaussian, mean, seededRandom } from '../../core/signal/stats';
import type { Pcm } from '../../core/voice/types';
import { inFolder, ranProgram } from './debian';
import { Draw, drawSlide, Moment, Performed, performed, picker, RATE, REST_S, slideMoments } from './makers';

const FESTIVAL = '/usr/bin/festival';

/** People whose speech Debian's Festival is made of, and what it calls silence and the vowels they sing here. */
const SPEAKERS = (
  [
    ['man', 'english/kal_diphone', 'kal_diphone', 'pau', 'aa ao eh iy uw'],
    ['man', 'english/ked_diphone', 'ked_diphone', 'pau', 'aa ao uh iy uw'],
    ['man', 'italian/pc_diphone', 'pc_diphone', '#', 'a o e i u'],
    ['man', 'czech/czech_machac', 'czech_machac', '#', 'a o e i u'],
    ['man', 'finnish/hy_fi_mv_diphone', 'hy_fi_mv_diphone', '#', 'a o e i u'],
    ['woman', 'italian/lp_diphone', 'lp_diphone', '#', 'a o e i u'],
    ['woman', 'czech/czech_dita', 'czech_dita', '#', 'a o e i u'],
    ['woman', 'finnish/suo_fi_lj_diphone', 'suo_fi_lj_diphone', '#', 'a a e i u'],
  ] as const
)
  .filter(([, folder]) => existsSync(FESTIVAL) && existsSync(`/usr/share/festival/voices/${folder}`))
  .map(([tract, , voice, silence, phones]) => ({ tract, voice, silence, phones: phones.split(' ') }));
type Speaker = (typeof SPEAKERS)[number];
const VOWELS: Vowel[] = ['ah', 'oh', 'eh', 'ee', 'oo'];

/** A man and a woman who are there, the first of each: alike wherever both are installed. */
export const TWO_SPEAKERS = (['man', 'woman'] as const).flatMap((tract) => SPEAKERS.find((speaker) => speaker.tract === tract) ?? []);
/** Whether there are both. */
export const peopleSpeak = TWO_SPEAKERS.length === 2;

/** Fine enough to place a pulse within 4 cents at A4. */
const FINE = 4 * RATE;
/** What they are asked for: a little over where they spoke, so that no pulse is cut short. */
const SPOKEN_HZ = { man: 150, woman: 230 };
const SPOKEN_S = 0.5;
const SILENCE_S = 0.2;
/** Pulses that one voice is made of: the steadiest that follow each other, looked for in the middle of the vowel. */
const PULSES = 14;
const LOOK_FROM_S = SILENCE_S + 0.06;
const LOOK_TO_S = SILENCE_S + 0.4;
/** Levels that differ count against likeness: so much a dB. */
const LEVEL_COUNTS = 0.05;
/** A pulse lies this near to a period after the one before, where it is most like the first. */
const NEXT_WITHIN = 0.12;
/** A grain of two periods, and room for what the filter makes of it. */
const FFT_SIZE = 2048;
/** From chest to head in so many steps: each is .4 dB an octave at most. */
const STEPS = 16;
/**
 * Head's return phase lets through what lies under such a frequency and 6 dB less an octave above it, in hertz for each tract (Fant
 * 1995, from memory), and is so much softer all in all, dB (common practice, no source).
 */
const HEAD_HZ = { man: [250, 500], woman: [330, 650] } as const;
const HEAD_SOFTER_DB = [1, 5] as const;
/** From one pulse to the next: pitch (share of a period) and level (share), as in healthy voices (common practice). */
const JITTER = 0.004;
const SHIMMER = 0.04;
const ENDS_S = 0.05;
const LEAST_END = 1e-3;
/** Silence is passed over in such steps. */
const REST_STEP_S = 0.005;

/**
 * What a voice does, in the sound of somebody recorded: the steadiest pulses of a spoken vowel, in any order, set to pitch
 * (pitch-synchronous overlap and add: Moulines & Charpentier 1990). Pulses and tract are a person's, what changes to head is drawn.
 *
 * @throws Error where Festival fails
 */
function speakersVoice(speakers: readonly Speaker[], tract: Speaker['tract'], vowel: Vowel, random: () => number) {
  const between = ([low, high]: readonly [number, number]) => low + (high - low) * random();
  const speaker = picker(random)(speakers.filter((of) => of.tract === tract));
  // A vowel they have no sound of their own for ("uh") is sung on their "ah".
  const phone = speaker.phones[Math.max(0, VOWELS.indexOf(vowel))];
  const cornerHz = between(HEAD_HZ[tract]);
  const softerDb = between(HEAD_SOFTER_DB);
  const pulses = pulsesOf(speaker, phone).map((pulse) => towardHead(pulse, cornerHz, softerDb));
  return (seconds: number, seed: number, at: (t: number) => Moment): Pcm => {
    const day = seededRandom(seed);
    const normal = gaussian(day);
    const samples = new Float32Array(Math.ceil(seconds * FINE));
    let [which, until] = [0, 0];
    for (let t = 0; t < seconds;) {
      const now = at(t);
      if (!now) {
        t += REST_STEP_S;
        continue;
      }
      // Each as long as it was spoken, however many periods that makes: else what differs from pulse to pulse is noise in high notes.
      if (t >= until) [which, until] = [Math.floor(day() * PULSES), t + 1 / SPOKEN_HZ[tract]];
      const gain = 10 ** (now.db / 20) * (1 + SHIMMER * normal());
      const pulse = pulses[which][Math.round(now.head * STEPS)];
      const from = Math.round(t * FINE) - periodOf(tract);
      for (let i = Math.max(0, -from); i < pulse.length && from + i < samples.length; i++) samples[from + i] += gain * pulse[i];
      t += (1 + JITTER * normal()) / midiToHz(now.midi);
    }
    return { samples: resample(samples, FINE, RATE), sampleRate: RATE };
  };
}

/** A slide of any kind by such a voice. */
export const speakingSinger =
  (speakers: readonly Speaker[] = SPEAKERS): Draw =>
  (seed) => {
    const random = seededRandom(seed + 73);
    const slide = drawSlide(random, seed + 73);
    const voice = speakersVoice(speakers, slide.tract, slide.vowel, random);
    return {
      ...slide,
      siren(number) {
        const take = slide.take(number);
        const sung = 2 * take.legS;
        const moments = slideMoments(slide, take);
        const pcm = voice(sung + 2 * REST_S, 1000 * seed + number, (at) => {
          const now = moments(at);
          const ends = Math.min(at - REST_S, REST_S + sung - at) / ENDS_S;
          return now && { ...now, db: now.db + 20 * Math.log10(Math.min(1, Math.max(LEAST_END, ends))) };
        });
        return { pcm, events: take.events, lowestMidi: slide.low, highestMidi: slide.high };
      },
    };
  };

/** What the simulated singer would do, in the sound of such a voice. */
export function speakersPerformance(profile: SingerProfile, task: SimTask, by: Performed): Pcm {
  const { seconds, moments, ofVoice } = performed(profile, task, by);
  return speakersVoice(SPEAKERS, profile.tract, by.vowel, ofVoice)(seconds, by.seed, moments);
}

const periodOf = (tract: Speaker['tract']) => Math.round(FINE / SPOKEN_HZ[tract]);

/** The steadiest pulses of a vowel, each under a window of two periods whose middle is its peak, or the place most like the first one's. */
function pulsesOf({ voice, silence, tract }: Speaker, phone: string): Float64Array[] {
  const hz = SPOKEN_HZ[tract];
  const sound = spoken(voice, silence, phone, hz);
  const period = periodOf(tract);
  const cut = (from: number) => Array.from({ length: PULSES }, (_, n) => sound.subarray(from + n * period, from + (n + 1) * period));
  let [steadiest, from] = [-Infinity, 0];
  for (let at = Math.round(LOOK_FROM_S * FINE); at < LOOK_TO_S * FINE; at += period) {
    const steady = steadiness(cut(at));
    if (steady > steadiest) [steadiest, from] = [steady, at];
  }
  const first = sound.subarray(from, from + period);
  const window = hann(2 * period);
  const near = Math.round(NEXT_WITHIN * period);
  let mark = from + first.reduce((most, x, i) => (Math.abs(x) > Math.abs(first[most]) ? i : most), 0);
  const likeness = (at: number) => mean(Array.from(window, (w, i) => w * model[i] * sound[at - period + i]));
  const model = sound.subarray(mark - period, mark + period);
  return Array.from({ length: PULSES }, (_, n) => {
    if (n > 0) {
      const tried = Array.from({ length: 2 * near + 1 }, (_, k) => mark + period - near + k);
      const likenesses = tried.map(likeness);
      mark = tried[likenesses.indexOf(Math.max(...likenesses))];
    }
    return window.map((w, i) => w * sound[mark - period + i]);
  });
}

/** How alike neighbouring periods are (mean correlation), less what their levels differ by. */
function steadiness(periods: readonly Float32Array[]): number {
  const powers = periods.map((p) => p.reduce((sum, x) => sum + x * x, 1e-12));
  const alike = periods.slice(1).map((p, n) => p.reduce((sum, x, i) => sum + x * periods[n][i], 0) / Math.sqrt(powers[n] * powers[n + 1]));
  const levels = powers.map((power) => 10 * Math.log10(power));
  const middle = mean(levels);
  return mean(alike) - LEVEL_COUNTS * Math.sqrt(mean(levels.map((db) => (db - middle) ** 2)));
}

/** A pulse from chest to head: as it was spoken first, then ever more of what head's low-pass and its level take away, alike in dB from step to step. */
function towardHead(pulse: Float64Array, cornerHz: number, softerDb: number): Float64Array[] {
  const fft = realFft(FFT_SIZE);
  const padded = new Float64Array(FFT_SIZE);
  padded.set(pulse);
  const bins = FFT_SIZE / 2 + 1;
  const [re, im, r, i] = Array.from({ length: 4 }, () => new Float64Array(bins));
  fft.forward(padded, re, im);
  const over = Float64Array.from({ length: bins }, (_, b) => (b * FINE) / FFT_SIZE / cornerHz);
  /** Power of the pulse with so much of the low-pass: none (0) or all (1) of it. */
  const power = (share: number) => re.reduce((sum, x, b) => sum + (x ** 2 + im[b] ** 2) / (1 + over[b] ** 2) ** share, 0);
  const gainDb = 10 * Math.log10(power(0) / power(1)) - softerDb;
  return Array.from({ length: STEPS + 1 }, (_, step) => {
    const share = step / STEPS;
    for (let b = 0; b < bins; b++) {
      const size = 10 ** ((share * gainDb) / 20) * (1 + over[b] ** 2) ** (-share / 2);
      const turn = -share * Math.atan(over[b]);
      r[b] = size * (re[b] * Math.cos(turn) - im[b] * Math.sin(turn));
      i[b] = size * (re[b] * Math.sin(turn) + im[b] * Math.cos(turn));
    }
    const out = new Float64Array(FFT_SIZE);
    fft.inverse(r, i, out);
    return out;
  });
}

/** Somebody's vowel at a steady pitch. */
function spoken(voice: string, silence: string, phone: string, hz: number): Float32Array {
  return inFolder((folder) => {
    const [program, wav] = ['speak.scm', 'vowel.wav'].map((name) => join(folder, name));
    const steady = [0, SPOKEN_S / 2, SPOKEN_S].map((t) => `(${t} ${hz})`).join(' ');
    writeFileSync(
      program,
      `(voice_${voice})
(set! utt (Utterance Segments ((${silence} ${SILENCE_S} (0 ${hz})) (${phone} ${SPOKEN_S} ${steady}) (${silence} ${SILENCE_S} (0 ${hz})))))
(utt.synth utt)
(utt.save.wave utt "${wav}" 'riff)
`,
    );
    ranProgram(FESTIVAL, ['-b', program]);
    const { samples, sampleRate } = readWav(readFileSync(wav));
    return resample(samples, sampleRate, FINE);
  });
}
