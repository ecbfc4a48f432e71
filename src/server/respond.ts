import { ZodError } from 'zod';
import { SoundFileError } from '../core/format/wav';
import type { Role } from '../data/door-schema';
import { Problem } from './problem';
import { asAtLeast } from './studio';

/** Classes of PostgreSQL's codes that mean the server is not there or going: 08 connection, 57P shutdown. */
const AWAY = /^(08|57P|ECONN|EPIPE|ETIMEDOUT)/;
/** A change in a transaction that may only read. */
const READ_ONLY = /^25006$/;

/** An id that is there already, here or where this studio can't look. */
const TAKEN = /^(23505|42501)$/;

/** Whether an error, or what caused it, has such a code or words. */
function isOf(error: unknown, code: RegExp, words = /^\b$/): boolean {
  for (let e = error as { code?: string; message?: string; cause?: unknown } | undefined; e; e = e.cause as typeof e)
    if (code.test(e.code ?? '') || words.test(e.message ?? '')) return true;
  return false;
}

/** Whether a change was asked for by another site's page in the same browser. */
function fromElsewhere(request: Request): boolean {
  if (request.method === 'GET' || request.method === 'HEAD') return false;
  const site = request.headers.get('sec-fetch-site');
  if (site) return site !== 'same-origin' && site !== 'none';
  // An older browser tells the origin only.
  const origin = request.headers.get('origin');
  return origin !== null && URL.parse(origin)?.host !== request.headers.get('host');
}

const fail = (error: string, status: number) => Response.json({ error }, { status });

/**
 * Run a route handler's work: its value as JSON, or what went wrong as { error } with a fitting status. `who` may ask: a member of a
 * studio of at least that role, or anyone (who then shows a key of another kind, or needs none). Changes asked for by another
 * site's page in the same browser are refused.
 */
export async function respond(request: Request, who: Role | 'anyone', work: () => Promise<unknown>): Promise<Response> {
  if (fromElsewhere(request)) return fail('This was asked for by another site and is refused: open Wendel itself.', 403);
  try {
    const value = await (who === 'anyone' ? work() : asAtLeast(who, work));
    return value instanceof Response ? value : Response.json(value ?? { ok: true });
  } catch (error) {
    if (error instanceof Problem) return fail(error.message, error.status);
    if (error instanceof SoundFileError) return fail(error.message, 422);
    if (error instanceof ZodError)
      return fail(`The request is not complete: ${error.issues.map((i) => `${i.path.join('.')}: ${i.message}`).join('; ')}`, 400);
    if (error instanceof SyntaxError) return fail('The request is not complete: it holds no JSON.', 400);
    if (isOf(error, READ_ONLY)) return fail('Your account may look and change nothing.', 403);
    if (isOf(error, TAKEN)) return fail('Something with this id is there already: load the page anew and try again.', 409);
    if (isOf(error, AWAY, /Connection terminated|timeout exceeded when trying to connect/))
      return fail('The database is away for a moment and is being started again. Nothing is lost: try again shortly.', 503);
    console.error(error);
    return fail(
      'Wendel could not do that because of a fault of its own. Nothing was changed. Try again; if it stays, look at the server messages.',
      500,
    );
  }
}
