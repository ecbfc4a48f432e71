import { said } from '../core/words/said';
import { Refusal } from '../studio/refusal';

/** Most bytes a request may hold that isn't sound or a bundle: a plan, a lesson, a day of practice are a tenth of it. */
const MOST_BYTES = 256 * 1024;

/** What a request holds, read no further than it may be long: nobody's body is gathered without limit. @throws Refusal (too-large) when it is longer. */
export async function bytesOf(request: Request, mostBytes: number): Promise<Buffer> {
  const tooLong = () =>
    new Refusal('too-large', said('The request is too large ({most} KB at most): nothing was changed.', { most: mostBytes / 1024 }));
  if (Number(request.headers.get('content-length') ?? 0) > mostBytes) throw tooLong();
  const reader = request.body?.getReader();
  const pieces: Uint8Array[] = [];
  let bytes = 0;
  for (;;) {
    const { done, value } = (await reader?.read()) ?? { done: true, value: undefined };
    if (done || !value) break;
    bytes += value.length;
    if (bytes > mostBytes) {
      await reader!.cancel();
      throw tooLong();
    }
    pieces.push(value);
  }
  return Buffer.concat(pieces);
}

/**
 * What a request holds as JSON. @throws Refusal (too-large) when it is longer than it may be, (incomplete) when it holds what can't be stored;
 * SyntaxError when it is no JSON.
 */
export const jsonOf = async (request: Request, mostBytes = MOST_BYTES): Promise<unknown> =>
  JSON.parse((await bytesOf(request, mostBytes)).toString(), storable);

/** Signs the database can't hold and no keyboard makes: NUL, and halves of a pair that stands for one sign. */
function storable(key: string, value: unknown): unknown {
  for (const text of [key, value])
    if (typeof text === 'string' && (text.includes('\0') || !text.isWellFormed()))
      throw new Refusal('incomplete', 'The request holds a sign that can’t be stored: nothing was changed.');
  return value;
}
