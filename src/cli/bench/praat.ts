import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { writeWav } from '../../core/format/wav';
import { hzToMidi } from '../../core/music/pitch';
import type { Pcm } from '../../core/voice/types';
import { inFolder, ranProgram } from './debian';

export const PRAAT = '/usr/bin/praat';
export const praatIsThere = existsSync(PRAAT);

/** What Praat hears in a sound. */
export interface Heard {
  /** Where it is voiced, every five milliseconds: seconds, pitch as a MIDI number, and level, dB. */
  voiced: { timeS: number; midi: number; db: number }[];
  /** Mean level, dB against what a sample of 1 would be. */
  levelDb: number;
  /** By how much the first harmonic is stronger than the second, dB: more in head than in chest (Klatt & Klatt 1990, from memory). */
  firstOverSecondDb: number;
}

const STEP_S = 0.005;
const LOWEST_HZ = 60;
const HIGHEST_HZ = 1500;
/** Levels are smoothed over 3.2 periods of this. */
const INTENSITY_HZ = 100;
/** A harmonic is looked for within this share of the fundamental beside its place. */
const BESIDE = 0.1;

/**
 * What Praat hears in sounds, by its own settings and nothing of ours: pitch by autocorrelation (Boersma 1993), harmonics in the
 * spectrum of the whole sound, which is of use where a note is held.
 *
 * @throws Error where Praat fails
 */
export function praatHears(sounds: readonly Pcm[]): Heard[] {
  return inFolder((folder) => {
    const out = join(folder, 'heard.txt');
    const lines = sounds.flatMap((pcm, i) => {
      const wav = join(folder, `${i}.wav`);
      writeFileSync(wav, writeWav(pcm, 16));
      const harmonic = (n: number) => `h${n} = Get maximum: f0 * ${n - BESIDE}, f0 * ${n + BESIDE}, "none"`;
      return [
        `sound = Read from file: "${wav}"`,
        'level = Get intensity (dB)',
        `pitch = To Pitch: ${STEP_S}, ${LOWEST_HZ}, ${HIGHEST_HZ}`,
        'f0 = Get quantile: 0, 0, 0.5, "Hertz"',
        'selectObject: sound',
        'spectrum = To Spectrum: "yes"',
        'harmonics = To Ltas (1-to-1)',
        harmonic(1),
        harmonic(2),
        `appendFileLine: "${out}", "sound ", level, " ", h1 - h2`,
        'selectObject: sound',
        `levels = To Intensity: ${INTENSITY_HZ}, ${STEP_S}, "yes"`,
        'selectObject: pitch',
        'n = Get number of frames',
        'for i to n',
        't = Get time from frame number: i',
        'hz = Get value in frame: i, "Hertz"',
        'if hz <> undefined',
        'selectObject: levels',
        'db = Get value at time: t, "nearest"',
        `appendFileLine: "${out}", t, " ", hz, " ", db`,
        'selectObject: pitch',
        'endif',
        'endfor',
        'removeObject: sound, pitch, spectrum, harmonics, levels',
      ];
    });
    const script = join(folder, 'listen.praat');
    writeFileSync(script, lines.join('\n'));
    ranProgram(PRAAT, ['--run', script]);
    const heard: Heard[] = [];
    for (const line of readFileSync(out, 'utf8').trim().split('\n')) {
      const [first, ...rest] = line.split(' ');
      if (first === 'sound') heard.push({ voiced: [], levelDb: Number(rest[0]), firstOverSecondDb: Number(rest[1]) });
      else heard.at(-1)!.voiced.push({ timeS: Number(first), midi: hzToMidi(Number(rest[0])), db: Number(rest[1]) });
    }
    return heard;
  });
}
