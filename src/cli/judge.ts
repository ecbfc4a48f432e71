import { allInEnglish } from '../core/format/say';
// npm run -s judge -- --exercise ID --keys 60,61 --tempo 88 --sound oo FILE.wav [--voice VOICE.json] [--json]
import { readFile } from 'node:fs/promises';
import { parseArgs } from 'node:util';
import { SHELF } from '../core/exercise/shelf';
import { readWav } from '../core/format/wav';
import { hearExercise } from '../core/judge/hear';
import { judgementInWords, inWords } from '../core/judge/words';
import type { Because, Judgement, KnownVoice } from '../core/judge/types';
import { knownVoice } from '../core/judge/known-voice';
import { mapOfVoice } from '../core/format/voice-file';
import { voiceIn } from './voice-in';
import { noteName } from '../core/music/pitch';
import { expectedChange } from '../core/plan/voice-types';

const USAGE = `Usage: npm run -s judge -- --exercise ID --keys 60,61 --tempo 88 --sound oo FILE.wav [--voice VOICE.json] [--json]
The take begins with the first key of the follow-along. npm run -s shelf lists the exercises.`;

const whole = (text: string, what: string, low: number, high: number): number => {
  const n = Number(text);
  if (!Number.isFinite(n) || n < low || n > high) throw new Error(`"${text}" is no ${what}: give a number from ${low} to ${high}.`);
  return n;
};

/** What a voice's file says of the change; null where none is given. */
async function knownIn(file: string | undefined): Promise<KnownVoice | null> {
  if (!file) return null;
  const voice = await voiceIn(file);
  return knownVoice(mapOfVoice(voice), expectedChange(voice.person.voiceType));
}

/** As printed with --json; the schema is in docs/judge.schema.json. */
function judgementJson(judgement: Judgement) {
  const of = judgement.keys.length;
  const says = (because: (Because & { key?: number }) | null) => (because ? inWords(because, of) : null);
  return allInEnglish({
    verdict: judgement.verdict,
    because: judgementInWords(judgement),
    code: judgement.because?.fault ?? null,
    keys: judgement.keys.map((k, key) => ({
      tonicMidi: k.tonicMidi,
      verdict: k.verdict,
      because: says(k.because && { ...k.because, key }),
      code: k.because?.fault ?? null,
      notes: k.notes.map((n) => ({
        midi: n.midi,
        slide: n.slide,
        startS: round(n.startS),
        endS: round(n.endS),
        sungMidi: n.sungMidi === null ? null : round(n.sungMidi),
        levelDb: n.levelDb === null ? null : round(n.levelDb),
        verdict: n.verdict,
        because: n.because?.fault ?? null,
      })),
    })),
  });
}

const round = (x: number) => Math.round(x * 1000) / 1000;

async function main() {
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: {
      exercise: { type: 'string' },
      keys: { type: 'string' },
      tempo: { type: 'string' },
      sound: { type: 'string' },
      voice: { type: 'string' },
      json: { type: 'boolean', default: false },
    },
  });
  const exercise = SHELF.find((e) => e.id === values.exercise);
  if (!values.exercise || !values.keys || positionals.length !== 1) throw new Error(USAGE);
  if (!exercise) throw new Error(`There is no exercise "${values.exercise}": npm run -s shelf lists them.`);
  const keys = values.keys.split(',').map((k) => whole(k, 'key', 24, 96));
  const tempo = values.tempo === undefined ? exercise.tempo[1] : whole(values.tempo, 'tempo', 20, 300);
  const voice = await knownIn(values.voice);
  const pcm = readWav(await readFile(positionals[0]));
  const { judgement } = hearExercise(pcm, { exercise, sound: values.sound ?? exercise.sounds[0], keys, tempo }, voice);
  if (values.json) process.stdout.write(`${JSON.stringify(judgementJson(judgement))}\n`);
  else {
    const said = judgementJson(judgement);
    process.stdout.write(`${said.verdict}: ${said.because}\n`);
    for (const k of said.keys)
      process.stdout.write(`  ${noteName(k.tonicMidi).padEnd(4)} ${k.verdict}${k.because ? `: ${k.because}` : ''}\n`);
  }
}

main().catch((error: Error) => {
  process.stderr.write(`${error.message}\n`);
  process.exitCode = 1;
});
