import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { z } from 'zod';
import { writeWav } from '../core/format/wav';
import { sing } from '../core/sim/sing';
import { typicalProfile } from '../core/sim/typical';

const folder = mkdtempSync(join(tmpdir(), 'wendel-cli-'));
const analyze = (...args: string[]) => {
  const started = performance.now();
  const { status, stdout, stderr } = spawnSync(process.execPath, ['bin/core.mjs', 'analyze', ...args], {
    encoding: 'utf8',
    maxBuffer: 1e8,
  });
  return { status, stdout, stderr, ms: performance.now() - started };
};
const siren = (name: string, seed: number) => {
  const path = join(folder, name);
  writeFileSync(path, writeWav(sing(typicalProfile('tenor', 'flip'), { kind: 'siren', legS: 2.5 }, { seed }).pcm, 16));
  return path;
};

const midi = z.number().min(20).max(110);
const Range = z.strictObject({ lowestMidi: midi, highestMidi: midi }).nullable();
const Take = z.strictObject({
  file: z.string(),
  task: z.string(),
  durationS: z.number(),
  sampleRate: z.number(),
  quality: z.strictObject({ clipped: z.boolean(), snrDb: z.number(), usable: z.boolean(), reasons: z.array(z.string()) }),
  f0: z.strictObject({ hopS: z.number(), startS: z.number(), hz: z.array(z.number().min(0)) }).optional(),
  notes: z.array(z.strictObject({ startS: z.number(), endS: z.number(), midi: z.number().int(), cents: z.number() })),
  range: Range,
  events: z.array(
    z.strictObject({
      timeS: z.number(),
      midi,
      direction: z.enum(['up', 'down']),
      kind: z.enum(['flip', 'crack', 'dip', 'timbre']),
      confidence: z.number(),
    }),
  ),
});
const Answer = z.strictObject({
  engine: z.string(),
  takes: z.array(z.union([Take, z.strictObject({ file: z.string(), task: z.string(), error: z.string() })])),
  voice: z.strictObject({
    range: Range,
    passaggi: z.array(
      z.strictObject({
        midi,
        lowMidi: midi,
        highMidi: midi,
        upMidi: midi.nullable(),
        downMidi: midi.nullable(),
        confidence: z.number(),
        zone: z.strictObject({ first: midi, last: midi }),
        impression: z.boolean(),
      }),
    ),
  }),
});

test('several takes are one singer, pooled, as one JSON object of the documented form', () => {
  const { status, stdout } = analyze(siren('a.wav', 1), siren('b.wav', 2), '--task', 'siren', '--json', '--frames');
  expect(status).toBe(0);
  const answer = Answer.parse(JSON.parse(stdout));
  expect(answer.takes).toHaveLength(2);
  expect(answer.voice.passaggi).toHaveLength(1);
  const [first] = answer.takes as z.infer<typeof Take>[];
  expect(first.f0!.hz.length).toBeCloseTo(first.durationS / 0.005, -1);
});

test('a file that cannot be read carries its error, the others go on, and the exit code says so', () => {
  const garbage = join(folder, 'garbage.wav');
  writeFileSync(garbage, 'no sound at all, only words');
  const { status, stdout } = analyze(garbage, siren('c.wav', 3), join(folder, 'missing.wav'), '--task', 'siren', '--json');
  expect(status).toBe(1);
  const { takes, voice } = Answer.parse(JSON.parse(stdout));
  expect(takes.map((t) => 'error' in t)).toEqual([true, false, true]);
  expect(voice.range).not.toBeNull();
});

test('the table for people, the CSV for one file, and words for wrong options', () => {
  const path = siren('d.wav', 4);
  expect(analyze(path, '--task', 'siren').stdout).toMatch(/passaggio [A-G]#?\d/);
  const csv = analyze(path, '--task', 'siren', '--f0-csv').stdout.trim().split('\n');
  expect(csv[0]).toBe('time_s,f0_hz');
  expect(csv[1].split(',')[0]).toBe('0');
  expect(analyze(path, '--task', 'yodel')).toMatchObject({
    status: 1,
    stderr: expect.stringMatching(/siren, scale, sustain, speech, free/),
  });
  expect(analyze()).toMatchObject({ status: 1, stderr: expect.stringMatching(/^Usage/) });
});

test('a scale is held against the pattern and key asked for', () => {
  const file = join(folder, 'scale.wav');
  const { pcm } = sing(
    typicalProfile('mezzo', 'blend'),
    { kind: 'pattern', degrees: [1, 3, 5, 3, 1], tonics: [60, 61] },
    { seed: 2, sampleRate: 22050 },
  );
  writeFileSync(file, writeWav(pcm, 16));
  const { stdout } = analyze(file, '--task', 'scale', '--degrees', '1,3,5,3,1', '--key', '59', '--json');
  const [take] = (
    JSON.parse(stdout) as { takes: { pattern: { keys: { tonicMidi: number; cents: number[] }[] }; quality: { reasons: string[] } }[] }
  ).takes;
  expect(take.pattern.keys.map((k) => [k.tonicMidi, k.cents.length])).toEqual([
    [60, 5],
    [61, 5],
  ]);
  expect(take.quality.reasons.join()).toMatch(/Sung in C, asked for in B/);
  expect(analyze(file, '--degrees', '1,x').stderr).toMatch(/not a pattern/);
});
