import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { WaveFile } from 'wavefile';
import { asStored, encodeSamples, readWav, SoundFileError, wavLayout, wavOf, writeWav } from './wav';

const RATE = 22050;
const tone = Float32Array.from({ length: 2000 }, (_, i) => 0.5 * Math.sin((2 * Math.PI * 440 * i) / RATE));

describe('files by another library (wavefile)', () => {
  test.each([
    ['8', 1 / 100],
    ['16', 1e-4],
    ['24', 1e-6],
    ['32', 1e-6],
    ['32f', 1e-6],
    ['64', 1e-6],
  ])('%s bits', (depth, tolerance) => {
    const scale = { 8: 127, 16: 32767, 24: 8388607, 32: 2147483647 }[depth] ?? 1;
    const wav = new WaveFile();
    wav.fromScratch(
      1,
      RATE,
      depth,
      Array.from(tone, (v) => (depth === '8' ? Math.round(v * scale) + 128 : scale === 1 ? v : Math.round(v * scale))),
    );
    const { samples, sampleRate } = readWav(wav.toBuffer());
    expect(sampleRate).toBe(RATE);
    expect(samples.length).toBe(tone.length);
    samples.forEach((v, i) => expect(Math.abs(v - tone[i])).toBeLessThan(tolerance));
  });

  test('what we write is read by it', () => {
    for (const bits of [16, 24] as const) {
      const wav = new WaveFile(writeWav({ samples: tone, sampleRate: RATE }, bits));
      const got = wav.getSamples(false) as unknown as Float64Array;
      got.forEach((v, i) => expect(v / 2 ** (bits - 1)).toBeCloseTo(tone[i], bits === 16 ? 4 : 6));
    }
  });
});

test('a file made piece by piece while recording is the file made at the end, and holds what was heard', () => {
  const hot = tone.map((x, i) => x * 1.5 + 1e-9 * i);
  const kept = asStored(hot);
  const pieces = [kept.subarray(0, 333), kept.subarray(333)].map((p) => encodeSamples(p, 24));
  expect(wavOf(pieces, RATE, 24)).toEqual(writeWav({ samples: hot, sampleRate: RATE }, 24));
  expect(readWav(wavOf(pieces, RATE, 24)).samples).toEqual(kept);
});

const sox = existsSync('/usr/bin/sox') ? describe : describe.skip;
sox('files written by sox', () => {
  const folder = mkdtempSync(join(tmpdir(), 'wendel-sox-'));
  const make = (name: string, ...args: string[]) => {
    const path = join(folder, name);
    execFileSync('sox', ['-n', ...args.slice(0, -1), path, ...args[args.length - 1].split(' ')]);
    return readWav(readFileSync(path));
  };
  test.each([8000, 44100, 48000, 96000, 192000])('at %i Hz', (rate) => {
    const { samples, sampleRate } = make(`r${rate}.wav`, '-r', String(rate), '-b', '16', 'synth 0.2 sine 440 vol 0.5');
    expect(sampleRate).toBe(rate);
    expect(samples.length).toBe(rate * 0.2);
    expect(Math.max(...samples.slice(0, 4000))).toBeCloseTo(0.5, 2);
  });
  test('24-bit stereo in the extensible form is mixed down', () => {
    const { samples } = make('ext.wav', '-r', '48000', '-b', '24', '-c', '2', 'synth 0.1 sine 440 vol 0.5 remix 1 0');
    expect(Math.max(...samples)).toBeCloseTo(0.25, 2);
  });
  test('32-bit float', () => {
    expect(Math.max(...make('f.wav', '-r', '44100', '-e', 'floating-point', '-b', '32', 'synth 0.1 sine 440 vol 0.5').samples)).toBeCloseTo(
      0.5,
      2,
    );
  });
});

describe('bad files say what to do', () => {
  const good = writeWav({ samples: tone, sampleRate: RATE }, 16);
  const patched = (at: number, bytes: number[]) => {
    const copy = Uint8Array.from(good);
    copy.set(bytes, at);
    return copy;
  };
  test.each<[string, Uint8Array, RegExp]>([
    ['empty', new Uint8Array(0), /empty/],
    ['text', new TextEncoder().encode('this is no sound at all, just a letter'), /not a WAV/],
    ['no data', good.slice(0, 36), /holds no sound/],
    ['no channels', patched(22, [0, 0]), /no channels/],
    ['compressed', patched(20, [2, 0]), /compressed/],
    ['4 kHz', patched(24, [0xa0, 0x0f, 0, 0]), /8000 to 192000/],
    ['12 bits', patched(34, [12, 0]), /16- or 24-bit/],
    ['data of no length', good.slice(0, 44), /holds no sound/],
  ])('%s', (_, bytes, message) => {
    expect(() => readWav(bytes)).toThrow(SoundFileError);
    expect(() => readWav(bytes)).toThrow(message);
  });

  test('a file cut off in the middle gives what is there', () => {
    expect(readWav(good.slice(0, 44 + 1001)).samples.length).toBe(500);
  });

  test('no bytes whatever make it fail in another way', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 200 }), fc.nat({ max: 60 }), fc.boolean(), (noise, at, headed) => {
        const bytes = headed ? patched(Math.min(at, 60), [...noise.slice(0, 40)]) : noise;
        try {
          wavLayout(bytes);
          readWav(bytes);
        } catch (error) {
          if (!(error instanceof SoundFileError)) throw error;
        }
      }),
      { numRuns: 2000 },
    );
  });
});
