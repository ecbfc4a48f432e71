import { AwsClient } from 'aws4fetch';
import { createHash } from 'node:crypto';
import type { Piece } from './take-audio';

/** Where pieces of sound rest outside of the database. Each of its ways throws when the store refuses or doesn't answer. */
export interface SoundStore {
  /** Keep bytes under a key, in the place of what was there. */
  put(key: string, bytes: Buffer): Promise<void>;
  get(key: string): Promise<Buffer>;
  /** Delete what lies under a key; nothing there is as well. */
  remove(key: string): Promise<void>;
}

/** What is waited for, ms: a piece of 1 MB takes a second over a slow line. Shorter than a transaction may stand still (`PATIENCE`). */
const LONGEST_MS = 30_000;
/** A store that is busy (429, 5xx) is asked again, waiting longer each time. */
const RETRIES = 2;
const USUAL_REGION = 'us-east-1';

const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');

/**
 * A store that speaks S3's protocol (signature version 4, path-style addresses), or null where none is set: WENDEL_SOUND_STORE is the
 * address of a bucket, perhaps with a folder in it; WENDEL_SOUND_STORE_KEY, _SECRET and _REGION open it.
 *
 * @example soundStore({ WENDEL_SOUND_STORE: 'https://s3.example.org/choir', WENDEL_SOUND_STORE_KEY: 'k', WENDEL_SOUND_STORE_SECRET: 's' })
 */
export function soundStore(env: Record<string, string | undefined> = process.env): SoundStore | null {
  const address = env.WENDEL_SOUND_STORE?.replace(/\/+$/, '');
  if (!address) return null;
  const client = new AwsClient({
    accessKeyId: env.WENDEL_SOUND_STORE_KEY ?? '',
    secretAccessKey: env.WENDEL_SOUND_STORE_SECRET ?? '',
    region: env.WENDEL_SOUND_STORE_REGION ?? USUAL_REGION,
    service: 's3',
    retries: RETRIES,
  });
  async function ask(method: 'PUT' | 'GET' | 'DELETE', key: string, body?: Buffer): Promise<Response> {
    const signal = AbortSignal.timeout(LONGEST_MS);
    // The hash is signed as well: what arrives otherwise is refused.
    const headers = body && { 'x-amz-content-sha256': sha256(body) };
    const answer = await client.fetch(`${address}/${key}`, { method, body: body && new Uint8Array(body), headers, signal });
    if (!answer.ok)
      throw new Error(`The sound store answered ${answer.status} to ${method} ${key}: ${(await answer.text()).slice(0, 300)}`);
    return answer;
  }
  return {
    async put(key, bytes) {
      await (await ask('PUT', key, bytes)).arrayBuffer();
    },
    async get(key) {
      return Buffer.from(await (await ask('GET', key)).arrayBuffer());
    },
    async remove(key) {
      await (await ask('DELETE', key)).arrayBuffer();
    },
  };
}

/**
 * The bytes of a piece, wherever it lies. Not inside a transaction: a store may be slow.
 * @throws Error when it lies in a store that isn't set, doesn't answer, or has something else under its key.
 */
export async function bytesOf(piece: Piece, store: SoundStore | null = soundStore()): Promise<Buffer> {
  if ('bytes' in piece) return piece.bytes;
  if (!store) throw new Error(`${piece.storedAs} lies in the sound store, and none is set: set WENDEL_SOUND_STORE as it was.`);
  const bytes = await store.get(piece.storedAs);
  // Its key ends in its hash.
  if (!piece.storedAs.endsWith(sha256(bytes))) throw new Error(`The sound store has something else under ${piece.storedAs}.`);
  return bytes;
}
