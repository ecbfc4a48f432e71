import { allInEnglish, inEnglish } from '../core/format/say';
import { readFile } from 'node:fs/promises';
import { ENGINE } from '../core/engine';
import { readWav, SoundFileError } from '../core/format/wav';
import { mapVoice } from '../core/map/pool';
import { TakeEvidence, VoiceMap } from '../core/map/types';
import { noteWithCents } from '../core/music/pitch';
import { analyseTake } from '../core/take/analyse';
import { Asked, Task, TASKS } from '../core/take/types';
import { HOP_S } from '../core/voice/types';
import { Options, round, TakeOutcome, takeJson, voiceJson } from './analyze-json';

const USAGE = `Usage: npm run -s analyze -- FILE.wav [MORE.wav ...] --task ${TASKS.join('|')} [--json] [--frames] [--f0-csv]
       [--degrees 1,2,3,4,5,4,3,2,1] [--key 60]
Several files are taken as one singer's and pooled. --f0-csv prints time_s,f0_hz for one file.`;

function parse(args: string[]): Options {
  const options: Options = { files: [], task: 'free', json: false, frames: false, f0Csv: false, asked: null };
  for (let i = 0; i < args.length; i++) {
    const arg = args[i];
    if (arg === '--json') options.json = true;
    else if (arg === '--frames') options.frames = true;
    else if (arg === '--f0-csv') options.f0Csv = true;
    else if (arg === '--degrees') options.asked = { ...options.asked, degrees: degreesIn(args[++i]) };
    else if (arg === '--key') options.asked = { ...options.asked, tonicMidi: keyIn(args[++i]) };
    else if (arg === '--task' || arg.startsWith('--task=')) {
      const task = arg === '--task' ? args[++i] : arg.slice(7);
      if (!TASKS.includes(task as Task)) throw new Error(`The task "${task}" is unknown: use one of ${TASKS.join(', ')}.`);
      options.task = task as Task;
    } else if (arg.startsWith('--')) throw new Error(`The option ${arg} is unknown.\n${USAGE}`);
    else options.files.push(arg);
  }
  if (options.files.length === 0) throw new Error(USAGE);
  if (options.f0Csv && options.files.length !== 1) throw new Error('--f0-csv takes exactly one file.');
  return options;
}

function degreesIn(text = ''): number[] {
  const degrees = text.split(',').map(Number);
  if (degrees.some((d) => !Number.isInteger(d) || d < 1 || d > 22))
    throw new Error(`"${text}" is not a pattern: give scale degrees from 1 to 22 with commas between, for example 1,3,5,3,1.`);
  return degrees;
}

function keyIn(text = ''): number {
  const midi = Number(text);
  if (!Number.isInteger(midi) || midi < 12 || midi > 108)
    throw new Error(`"${text}" is not a key: give its tonic as a MIDI note from 12 to 108.`);
  return midi;
}

async function analyseFile(file: string, task: Task, asked: Asked | null): Promise<TakeOutcome> {
  try {
    const pcm = readWav(await readFile(file));
    const { findings, track } = analyseTake(pcm, task, { asked });
    return { file, findings, track };
  } catch (error) {
    if (error instanceof SoundFileError || error instanceof RangeError) return { file, error: error.message };
    const code = (error as NodeJS.ErrnoException).code;
    if (code === 'ENOENT') return { file, error: 'There is no such file: check the path.' };
    if (code === 'EISDIR') return { file, error: 'This is a folder: name a WAV file in it.' };
    if (code === 'EACCES') return { file, error: 'The file may not be read: check its permissions.' };
    return { file, error: `The file could not be read: ${(error as Error).message}` };
  }
}

function table(outcomes: TakeOutcome[], map: VoiceMap): string {
  const lines: string[] = [];
  for (const { file, error, findings: f } of outcomes) {
    lines.push(file);
    if (error || !f) {
      lines.push(`  ${error}`);
      continue;
    }
    lines.push(
      `  ${f.durationS.toFixed(1)} s at ${f.sampleRate} Hz, voice ${f.quality.snrDb.toFixed(0)} dB over the room${f.quality.usable ? '' : ' — not usable'}`,
    );
    for (const reason of f.quality.reasons) lines.push(`  ${inEnglish(reason)}`);
    if (f.range) lines.push(`  range   ${noteWithCents(f.range.lowestMidi)} to ${noteWithCents(f.range.highestMidi)}`);
    if (f.speakingMidi !== null) lines.push(`  speaks  ${noteWithCents(f.speakingMidi)}`);
    for (const e of f.events)
      lines.push(
        `  ${e.kind.padEnd(7)} ${e.timeS.toFixed(2)} s  ${noteWithCents(e.midi)}, going ${e.direction} (${Math.round(e.confidence * 100)} %)`,
      );
    if (f.pattern) lines.push(`  sang    ${f.pattern.name} in ${f.pattern.keys.map((k) => noteWithCents(k.tonicMidi)).join(', ')}`);
    for (const n of f.notes)
      lines.push(`  note    ${n.startS.toFixed(2)}-${n.endS.toFixed(2)} s  ${noteWithCents(n.midi + n.cents / 100)}`);
  }
  lines.push('', 'Voice');
  lines.push(
    map.extreme
      ? `  range    ${noteWithCents(map.extreme.low.midi)} to ${noteWithCents(map.extreme.high.midi)}`
      : '  range    not enough evidence',
  );
  for (const p of map.passaggi)
    lines.push(
      `  passaggio ${noteWithCents(p.midi)} (${noteWithCents(p.lowMidi)} to ${noteWithCents(p.highMidi)}), ${p.name}: up ${p.up.found} of ${p.up.of}, down ${p.down.found} of ${p.down.of}`,
    );
  if (map.passaggi.length === 0) lines.push('  passaggio not enough evidence');
  for (const f of map.findings) lines.push(`  ${inEnglish(f.because)}`);
  return lines.join('\n');
}

async function main() {
  const options = parse(process.argv.slice(2));
  const outcomes: TakeOutcome[] = [];
  for (const file of options.files) outcomes.push(await analyseFile(file, options.task, options.asked));
  const failed = outcomes.some((o) => o.error);
  if (options.f0Csv) {
    const { error, track } = outcomes[0];
    if (error || !track) throw new Error(error);
    process.stdout.write('time_s,f0_hz\n' + Array.from(track.f0, (hz, i) => `${round(i * HOP_S)},${round(hz, 3)}`).join('\n') + '\n');
    return;
  }
  const evidence: TakeEvidence[] = outcomes.flatMap((o) => (o.findings ? [{ takeId: o.file, findings: o.findings, marks: [] }] : []));
  const map = mapVoice(evidence);
  if (options.json)
    process.stdout.write(
      JSON.stringify(allInEnglish({ engine: ENGINE, takes: outcomes.map((o) => takeJson(o, options)), voice: voiceJson(map) })) + '\n',
    );
  else process.stdout.write(table(outcomes, map) + '\n');
  if (failed) process.exitCode = 1;
}

main().catch((error: Error) => {
  process.stderr.write(`${error.message}\n`);
  process.exitCode = 1;
});
