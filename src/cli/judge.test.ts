import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { exerciseById } from '../core/exercise/shelf';
import { renderKey } from '../core/exercise/render';
import { writeWav } from '../core/format/wav';
import { sing } from '../core/sim/sing';
import { typicalProfile } from '../core/sim/typical';

const run = (command: string, ...args: string[]) =>
  spawnSync(process.execPath, ['bin/core.mjs', command, ...args], { encoding: 'utf8', maxBuffer: 1e8 });
const folder = mkdtempSync(join(tmpdir(), 'wendel-judge-'));

test('the shelf is printed with all that a follow-along needs', () => {
  const shelf = JSON.parse(run('shelf', '--json').stdout);
  expect(shelf.find((e: { id: string }) => e.id === 'triad-warm-up')).toMatchObject({
    family: 'scale',
    strand: 'evenness',
    tempo: { slowest: 90, usual: 100, fastest: 116 },
    pattern: [
      { degree: 1, semitones: 0, beats: 0.5, slide: false },
      { semitones: 4 },
      { semitones: 7 },
      { semitones: 4 },
      { semitones: 0 },
    ],
  });
});

test('a take is judged against the exercise, its keys and the voice', () => {
  const e = exerciseById('five-note-ah');
  const keys = [64, 65];
  const { pcm } = sing(
    typicalProfile('mezzo', 'flip'),
    { kind: 'exercise', keys: keys.map((k) => renderKey(e, k, 100)) },
    { seed: 4, vowel: 'ah', sampleRate: 22050 },
  );
  const [file, voice] = [join(folder, 'take.wav'), join(folder, 'voice.json')];
  writeFileSync(file, writeWav(pcm));
  writeFileSync(
    voice,
    JSON.stringify({ range: { touched: { low: 'A3', high: 'A5' } }, passaggi: [{ up: 'A4', down: 'G4', name: 'flip' }] }),
  );
  const args = ['--exercise', 'five-note-ah', '--keys', '64,65', '--tempo', '100', '--sound', 'ah', file];
  const judged = JSON.parse(run('judge', ...args, '--voice', voice, '--json').stdout);
  expect(judged).toMatchObject({
    verdict: 'not yet',
    because: expect.stringMatching(/^The (first|second) key /),
    keys: [{ tonicMidi: 64 }, { tonicMidi: 65 }],
  });
  expect(judged.keys[0].notes).toHaveLength(9);
  expect(run('judge', ...args).stdout).toMatch(/^not yet: The (first|second) key /);
});

test('what can’t be judged is said in a sentence', () => {
  expect(run('judge', '--exercise', 'nothing', '--keys', '60', 'x.wav').stderr).toContain('There is no exercise "nothing"');
  expect(run('judge', '--exercise', 'five-note-ah', '--keys', 'sixty', 'x.wav').stderr).toContain('"sixty" is no key');
  expect(run('judge').stderr).toContain('Usage');
  writeFileSync(join(folder, 'odd.json'), '{"range":{"touched":{"low":"H9","high":60}}}');
  const odd = run('judge', '--exercise', 'five-note-ah', '--keys', '60', '--voice', join(folder, 'odd.json'), 'x.wav');
  expect([odd.status, odd.stderr]).toEqual([1, expect.stringContaining('range.touched.low')]);
});
