import { createWriteStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { note } from '../data/audit';
import { bringIn, BroughtIn, BundleError, bundleOf } from '../data/bundle-file';
import { dayOf } from './day';
import { Problem } from './problem';
import { inPresentStudio, mustBe } from './studio';

const MOST_BYTES = 20e9;
/** How every ZIP file begins. */
const ZIP_MAGIC = 'PK';

/** The whole studio as a file to keep. */
export async function takeOutBundle(): Promise<Response> {
  const { studioId } = await mustBe('owner');
  await inPresentStudio((tx) => note(tx, { did: 'took out', what: 'bundle' }));
  const { stream } = await bundleOf(studioId);
  return new Response(stream, {
    headers: {
      'content-type': 'application/zip',
      'content-disposition': `attachment; filename="wendel-studio-${dayOf(new Date())}.zip"`,
      'cache-control': 'no-store',
    },
  });
}

/** Bring in a bundle that is sent; `dryRun` only says what would come. @throws Problem (422) in words for its owner; nothing is changed then. */
export async function bringInBundle(body: ReadableStream<Uint8Array> | null, dryRun: boolean): Promise<BroughtIn> {
  const { studioId, name } = await mustBe('owner');
  if (!body) throw new Problem('The file did not arrive: choose it again.', 422);
  const folder = await mkdtemp(join(tmpdir(), 'wendel-bundle-'));
  try {
    const path = join(folder, 'bundle.zip');
    let total = 0;
    const checked = new Transform({
      transform(piece: Buffer, _encoding, done) {
        if (total === 0 && piece.subarray(0, 2).toString('latin1') !== ZIP_MAGIC)
          return done(new Problem('This is no bundle: a bundle is a ZIP file made by Wendel. Nothing was changed.', 422));
        total += piece.length;
        done(total > MOST_BYTES ? new Problem('The file is too large. Nothing was changed.', 413) : null, piece);
      },
    });
    await pipeline(Readable.fromWeb(body as never), checked, createWriteStream(path));
    return await bringIn(studioId, path, dryRun, name);
  } catch (error) {
    if (error instanceof BundleError) throw new Problem(error.message, 422);
    throw error;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
