import { createHash } from 'node:crypto';
import { readdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { writeWav } from '../core/format/wav';
import { spool } from './spool';

const wav = writeWav({ samples: Float32Array.from({ length: 300_000 }, (_, i) => Math.sin(i / 20)), sampleRate: 44100 }, 24);
const sha256 = createHash('sha256').update(wav).digest('hex');
const leftOver = () => readdirSync(tmpdir()).filter((name) => name.startsWith('wendel-take-'));

async function* inPieces(bytes: Uint8Array, size: number) {
  for (let at = 0; at < bytes.length; at += size) yield bytes.subarray(at, at + size);
}

test.each([1000, 65_536, 1_000_000])('what arrives in pieces of %i bytes is given back whole, and leaves nothing behind', async (size) => {
  const before = leftOver();
  const file = await spool(inPieces(wav, size), sha256);
  expect(file).toMatchObject({ bytes: wav.length, layout: { sampleRate: 44100, bits: 24, channels: 1 } });
  const pieces: Buffer[] = [];
  for await (const piece of file.pieces(100_000)) pieces.push(piece);
  expect(pieces.slice(0, -1).every((p) => p.length === 100_000)).toBe(true);
  expect(Buffer.concat(pieces).equals(Buffer.from(wav))).toBe(true);
  await file.remove();
  expect(leftOver()).toEqual(before);
});

test('a line that falls silent, or drips, is let go and leaves nothing behind', async () => {
  const before = leftOver();
  async function* silent() {
    yield wav.subarray(0, 5000);
    await new Promise(() => {});
  }
  async function* dripping() {
    for (let at = 0; ; at++) {
      yield wav.subarray(at, at + 1);
      await new Promise((done) => setTimeout(done, 5));
    }
  }
  await expect(spool(silent(), sha256, { silenceMs: 50 })).rejects.toMatchObject({ code: 'too-slow' });
  await expect(spool(dripping(), sha256, { firstMs: 50 })).rejects.toMatchObject({ code: 'too-slow' });
  expect(leftOver()).toEqual(before);
});
