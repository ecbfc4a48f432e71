import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Ajv from 'ajv/dist/2020';
import { songToMidi } from '../core/format/song-midi';
import { songToMusicXml } from '../core/format/song-musicxml';
import { writeWav } from '../core/format/wav';
import { sing } from '../core/sim/sing';
import { songTask } from '../core/sim/song';
import { typicalProfile } from '../core/sim/typical';
import { DEMO_SONGS } from '../core/song/demo-songs';

const folder = mkdtempSync(join(tmpdir(), 'wendel-song-'));
const file = (name: string, content: string | Uint8Array) => {
  writeFileSync(join(folder, name), content);
  return join(folder, name);
};
const [heron] = DEMO_SONGS;
const XML = file('heron.musicxml', songToMusicXml(heron));
const VOICE = file(
  'voice.json',
  JSON.stringify({
    range: { touched: { low: 'F3', high: 'C6' }, usable: { low: 'G3', high: 'A5' } },
    passaggi: [{ up: 'A4', down: 'G4', name: 'flip' }],
    person: { voiceType: 'mezzo' },
  }),
);
const run = (...args: string[]) => spawnSync(process.execPath, ['bin/core.mjs', 'song', ...args], { encoding: 'utf8', maxBuffer: 1e8 });
const json = (...args: string[]) => JSON.parse(run(...args, '--json').stdout);

test('prints range, tessitura, crossings, phrases and keys in order, as its schema says; MusicXML and MIDI alike', () => {
  const said = json(XML, '--voice', VOICE);
  const validate = new Ajv({ strict: false }).compile(JSON.parse(readFileSync('docs/song.schema.json', 'utf8')));
  expect([validate(said), validate.errors]).toEqual([true, null]);
  expect(said).toMatchObject({
    title: 'The Heron’s Song',
    bars: 25,
    notes: 50,
    range: { low: 60, high: 77, lowName: 'C4', highName: 'F5' },
  });
  expect(said.phrases).toHaveLength(7);
  expect(said.transpositions).toHaveLength(15);
  expect(new Set(said.transpositions.map((t: { semitones: number }) => ((t.semitones % 12) + 12) % 12)).size).toBe(12);
  for (const t of said.transpositions) expect(t.decidingBars.length).toBeGreaterThanOrEqual(2);
  // A4 stands in bars 2, 5, 6, ...: the first step over it, by hand, is Bb4 in bar 6.
  expect(said.crossings[0]).toMatchObject({ bar: 6, from: 69, to: 70, direction: 'up', by: 'step' });
  const midi = json(file('heron.mid', songToMidi(heron)), '--voice', VOICE);
  expect(midi.range).toEqual(said.range);
  expect(midi.crossings.map((c: { from: number }) => c.from)).toEqual(said.crossings.map((c: { from: number }) => c.from));
});

test('a take is followed, and what came true is said', () => {
  const { pcm } = sing(typicalProfile('mezzo', 'flip'), songTask(heron), { seed: 5, sampleRate: 22050, snrDb: 40 });
  const { take } = json(XML, '--voice', VOICE, '--take', file('take.wav', writeWav(pcm)));
  expect(take).toMatchObject({ followed: true, semitones: 0 });
  expect(take.notes).toHaveLength(50);
  expect(take.record.risky.sung + take.record.safe.sung + take.record['some care'].sung).toBe(
    take.bars.filter((b: { sung: boolean }) => b.sung).length,
  );
  const other = json(file('gates.mid', songToMidi(DEMO_SONGS[1])), '--voice', VOICE, '--take', join(folder, 'take.wav')).take;
  expect(other).toMatchObject({ followed: false, notes: [], record: null });
});

test('what can’t be read is said in a line', () => {
  for (const [args, says] of [
    [[XML], /Usage/],
    [[file('no.mid', 'MThd'), '--voice', VOICE], /not a MIDI file/],
    [[XML, '--voice', VOICE, '--part', 'P9'], /no such part/],
    [[join(folder, 'none.xml'), '--voice', VOICE], /ENOENT/],
  ] as const) {
    const { status, stderr, stdout } = run(...args);
    expect([status, stdout]).toEqual([1, '']);
    expect(stderr).toMatch(says);
  }
});
