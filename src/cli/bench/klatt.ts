import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { readWav } from '../../core/format/wav';
import { midiToHz } from '../../core/music/pitch';
import { resample } from '../../core/signal/resample';
import { seededRandom } from '../../core/signal/stats';
import type { SingerProfile } from '../../core/sim/profile';
import type { SimTask } from '../../core/sim/score';
import { FORMANTS } from '../../core/sim/tract';
import type { Pcm } from '../../core/voice/types';
import { inFolder, ranProgram } from './debian';
import { BANDWIDTHS, Draw, drawSlide, Moment, Performed, performed, picker, RATE, REST_S, slideMoments, UPPER_FORMANTS } from './makers';
import { PRAAT } from './praat';

/** Parameters are given this often, seconds: a leap takes no longer. */
const STEP_S = 0.01;
/** Loudest level as Praat counts, dB, and none. */
const LOUD_DB = 80;
const SILENT_DB = 0;
/** A voice begins and ends so slowly, seconds. */
const ENDS_S = 0.03;

/** How a glottis opens (share of each period), falls off (dB at 3 kHz) and breathes (dB). */
interface Glottis {
  open: number;
  tilt: number;
  breath: number;
}

export interface KlattVoice {
  chest: Glottis;
  head: Glottis;
  flutter: number;
  formants: readonly number[];
}

/** Chest about the modal setting of Klatt & Klatt 1990, head toward its breathy one (their table of voice qualities, from memory). */
export function drawKlattVoice(random: () => number, formants: readonly number[]): KlattVoice {
  const between = (low: number, high: number) => low + (high - low) * random();
  const chest = { open: between(0.45, 0.65), tilt: between(0, 5), breath: between(20, 40) };
  const head = { open: between(0.7, 0.9), tilt: chest.tilt + between(6, 16), breath: chest.breath + between(5, 18) };
  return { chest, head, flutter: picker(random)([0, 0.15, 0.25]), formants };
}

/**
 * What such a voice sounds like, by Praat's KlattGrid (Klatt & Klatt 1990): its own glottal flow through its own cascade of resonances.
 *
 * @throws Error where Praat fails
 */
export function klattSound({ chest, head, flutter, formants }: KlattVoice, seconds: number, seed: number, at: (t: number) => Moment): Pcm {
  const points = [`Add flutter point: 0, ${flutter}`];
  const steps = Math.ceil(seconds / STEP_S);
  const moments = Array.from({ length: steps + 1 }, (_, i) => at(i * STEP_S));
  const fade = Math.round(ENDS_S / STEP_S);
  moments.forEach((now, i) => {
    const t = (i * STEP_S).toFixed(4);
    if (!now) return points.push(`Add voicing amplitude point: ${t}, ${SILENT_DB}`, `Add breathiness amplitude point: ${t}, ${SILENT_DB}`);
    const mixed = (of: keyof Glottis) => chest[of] + now.head * (head[of] - chest[of]);
    // How many steps the next silence is away.
    const near = Array.from({ length: fade }, (_, k) => k + 1).find((k) => !moments[i - k] || !moments[i + k]);
    const level = near ? (LOUD_DB + now.db) * (near / (fade + 1)) : LOUD_DB + now.db;
    const hz = midiToHz(now.midi);
    return points.push(
      `Add pitch point: ${t}, ${hz.toFixed(3)}`,
      `Add voicing amplitude point: ${t}, ${level.toFixed(2)}`,
      `Add open phase point: ${t}, ${mixed('open').toFixed(4)}`,
      `Add spectral tilt point: ${t}, ${mixed('tilt').toFixed(2)}`,
      `Add breathiness amplitude point: ${t}, ${Math.max(SILENT_DB, level - LOUD_DB + mixed('breath')).toFixed(2)}`,
      // Who sings above the first resonance raises it.
      `Add oral formant frequency point: 1, ${t}, ${Math.max(formants[0], 1.02 * hz).toFixed(1)}`,
    );
  });
  [...formants, ...UPPER_FORMANTS].forEach((hz, i) => {
    if (i > 0) points.push(`Add oral formant frequency point: ${i + 1}, 0, ${hz}`);
    points.push(`Add oral formant bandwidth point: ${i + 1}, 0, ${BANDWIDTHS[i]}`);
  });
  return inFolder((folder) => {
    const [script, wav] = ['voice.praat', 'voice.wav'].map((name) => join(folder, name));
    // Its breath and flutter are drawn: alike for a seed.
    const drawn = `random_initializeWithSeedUnsafelyButPredictably (${seed})`;
    const lines = [drawn, `Create KlattGrid: "voice", 0, ${seconds}, 5, 0, 0, 0, 0, 0, 0`, ...points, 'To Sound', 'Scale peak: 0.7'];
    writeFileSync(script, [...lines, `Save as WAV file: "${wav}"`].join('\n'));
    ranProgram(PRAAT, ['--run', script]);
    const { samples, sampleRate } = readWav(readFileSync(wav));
    return { samples: resample(samples, sampleRate, RATE), sampleRate: RATE };
  });
}

/** A slide of any kind by such a voice. */
export const klattSinger: Draw = (seed) => {
  const random = seededRandom(seed + 41);
  const slide = drawSlide(random, seed + 41);
  const voice = drawKlattVoice(random, slide.formants);
  return {
    ...slide,
    siren(number) {
      const take = slide.take(number);
      const pcm = klattSound(voice, 2 * take.legS + 2 * REST_S, 100 * seed + number, slideMoments(slide, take));
      return { pcm, events: take.events, lowestMidi: slide.low, highestMidi: slide.high };
    },
  };
};

/** What the simulated singer would do, in the sound of such a voice. */
export function klattPerformance(profile: SingerProfile, task: SimTask, by: Performed): Pcm {
  const { seconds, moments, ofVoice } = performed(profile, task, by);
  return klattSound(drawKlattVoice(ofVoice, FORMANTS[profile.tract][by.vowel]), seconds, by.seed, moments);
}
