import { createWriteStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { note } from '../data/audit';
import type { BroughtIn } from '../contract/answers';
import { bringIn, bundleOf } from '../studio/bundle-file';
import { dayOf } from '../studio/day';
import { Refusal } from '../studio/refusal';
import { inPresentStudio, mustBe } from './let-in';

const MOST_BYTES = 20e9;
/** How every ZIP file begins. */
const ZIP_MAGIC = 'PK';

/** The whole studio as a file to keep. */
export async function takeOutBundle(): Promise<Response> {
  const { studioId } = await mustBe('owner');
  await inPresentStudio(({ tx }) => note(tx, { did: 'took out', what: 'bundle' }));
  const { stream } = await bundleOf(studioId);
  return new Response(stream, {
    headers: {
      'content-type': 'application/zip',
      'content-disposition': `attachment; filename="wendel-studio-${dayOf(new Date())}.zip"`,
      'cache-control': 'no-store',
    },
  });
}

/** Bring in a bundle that is sent; `dryRun` only says what would come. @throws Refusal (unfit) in words for its owner; nothing is changed then. */
export async function bringInBundle(body: ReadableStream<Uint8Array> | null, dryRun: boolean): Promise<BroughtIn> {
  const { studioId, name } = await mustBe('owner');
  if (!body) throw new Refusal('unfit', 'The file did not arrive: choose it again.');
  const folder = await mkdtemp(join(tmpdir(), 'wendel-bundle-'));
  try {
    const path = join(folder, 'bundle.zip');
    let total = 0;
    const checked = new Transform({
      transform(piece: Buffer, _encoding, done) {
        if (total === 0 && piece.subarray(0, 2).toString('latin1') !== ZIP_MAGIC)
          return done(new Refusal('unfit', 'This is no bundle: a bundle is a ZIP file made by Wendel. Nothing was changed.'));
        total += piece.length;
        done(total > MOST_BYTES ? new Refusal('too-large', 'The file is too large. Nothing was changed.') : null, piece);
      },
    });
    await pipeline(Readable.fromWeb(body as never), checked, createWriteStream(path));
    return await bringIn(studioId, path, dryRun, name);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
