import { said } from '../core/words/said';
import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { mkdtemp, open, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { checkLength, HEADER_BYTES, MAX_TAKE_BYTES, SoundFileError, wavLayout, WavLayout } from '../core/format/wav';
import { Refusal } from '../studio/refusal';

/** A line that says nothing for so long is gone; after a first minute one must bring this much on average (a take over a slow telephone line). */
const SILENCE_MS = 30_000;
const FIRST_MS = 60_000;
const LEAST_BYTES_A_SECOND = 2000;

/** A recording that has arrived whole, in a file of its own until it is stored. */
export interface Spooled {
  layout: WavLayout;
  bytes: number;
  /** Its bytes in pieces of at most so many. */
  pieces(most: number): AsyncIterable<Buffer>;
  remove(): Promise<void>;
}

export const tooLarge = () =>
  new Refusal(
    'too-large',
    said('The recording is larger than {most} MB (about twelve minutes): cut it into shorter takes.', {
      most: Math.round(MAX_TAKE_BYTES / 1e6),
    }),
  );

const tooSlow = () => new Refusal('too-slow', 'The recording stopped arriving: nothing was stored. Send it again.');

/**
 * Receive a WAV file into a temporary one. Nothing else is held meanwhile: a slow line, or ten, keep nobody waiting.
 * @throws SoundFileError when it is none, too long, cut off or not what its hash says; Refusal when it is too large or stops arriving.
 */
export async function spool(
  body: AsyncIterable<Uint8Array> | null,
  sha256: string,
  { silenceMs = SILENCE_MS, firstMs = FIRST_MS } = {},
): Promise<Spooled> {
  const folder = await mkdtemp(join(tmpdir(), 'wendel-take-'));
  const remove = () => rm(folder, { recursive: true, force: true });
  const path = join(folder, 'take.wav');
  try {
    const file = await open(path, 'wx', 0o600);
    const hash = createHash('sha256');
    const started = Date.now();
    let head = Buffer.alloc(0);
    let layout: WavLayout | undefined;
    let bytes = 0;
    const readHead = () => {
      layout = wavLayout(head);
      checkLength(layout);
    };
    try {
      for await (const chunk of body ? unlessSilent(body, silenceMs) : []) {
        bytes += chunk.length;
        if (bytes > MAX_TAKE_BYTES) throw tooLarge();
        const lateS = (Date.now() - started - firstMs) / 1000;
        if (bytes < LEAST_BYTES_A_SECOND * lateS) throw tooSlow();
        if (!layout) {
          head = Buffer.concat([head, chunk]);
          if (head.length >= HEADER_BYTES) readHead();
        }
        hash.update(chunk);
        await file.write(chunk);
      }
    } finally {
      await file.close();
    }
    if (bytes === 0) throw new SoundFileError('The recording is empty: record again.');
    if (!layout) readHead();
    const { dataStart, dataBytes, bits, channels } = layout!;
    if (dataStart + dataBytes > bytes) throw new SoundFileError('The recording arrived cut off: nothing was stored. Send it again.');
    if (hash.digest('hex') !== sha256) throw new SoundFileError('The recording changed on its way: nothing was stored. Send it again.');
    if (dataBytes < (bits / 8) * channels) throw new SoundFileError('The recording holds no sound: record again.');
    return { layout: layout!, bytes, pieces: (most) => piecesOf(path, most), remove };
  } catch (error) {
    await remove();
    throw error;
  }
}

/** What comes, as long as it comes. */
async function* unlessSilent(body: AsyncIterable<Uint8Array>, silenceMs: number): AsyncGenerator<Uint8Array> {
  const from = body[Symbol.asyncIterator]();
  try {
    for (;;) {
      let timer: NodeJS.Timeout | undefined;
      const silence = new Promise<never>((_, fail) => {
        timer = setTimeout(() => fail(tooSlow()), silenceMs);
      });
      const next = await Promise.race([from.next(), silence]).finally(() => clearTimeout(timer));
      if (next.done) return;
      yield next.value;
    }
  } finally {
    // Not waited for: a line that is silent doesn't answer this either.
    void from.return?.()?.catch(() => {});
  }
}

/** A file in pieces that are full but for the last. */
async function* piecesOf(path: string, most: number): AsyncGenerator<Buffer> {
  for await (const piece of createReadStream(path, { highWaterMark: most })) yield piece as Buffer;
}
