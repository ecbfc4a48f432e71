import { z, ZodError } from 'zod';
import { SoundFileError } from '../core/format/wav';
import type { Role } from '../core/format/studio';
import { Refusal, RefusalCode } from '../studio/refusal';
import { ownHost } from './own-host';
import { asAtLeast } from './let-in';
import { sayInAnswer } from './language';
import { said, Said } from '../core/words/said';

/** What a refusal is to a browser. */
export const STATUS: Record<RefusalCode, number> = {
  incomplete: 400,
  'signed-out': 401,
  'not-allowed': 403,
  'not-found': 404,
  'too-slow': 408,
  conflict: 409,
  gone: 410,
  'too-large': 413,
  'wrong-address': 421,
  unfit: 422,
  'too-often': 429,
  full: 507,
};

/** Classes of PostgreSQL's codes that mean the server is not there or going: 08 connection, 57P shutdown. */
const AWAY = /^(08|57P|ECONN|EPIPE|ETIMEDOUT)/;
/** A change in a transaction that may only read. */
const READ_ONLY = /^25006$/;

/** An id that is there already, here or where this studio can't look. */
const TAKEN = /^(23505|42501)$/;

/** What no row can hold: PostgreSQL's class 22 (a number, a time or a text out of bounds) and rows against a rule (23502, 23503, 23514). */
const UNFIT = /^(22...|23502|23503|23514)$/;

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

/** What is wrong with one part of what was sent; the name of the part is the program's. */
const issueSays = ({ path, message }: z.core.$ZodIssue): Said =>
  path.length ? said('{part}: {problem}', { part: { own: path.join('.') }, problem: message }) : message;

/** No browser and no proxy keeps an answer: after signing out nothing of a studio is found on a shared computer. */
function unkept(answer: Response): Response {
  if (!answer.headers.has('cache-control')) answer.headers.set('cache-control', 'private, no-store');
  return answer;
}

/** A fault in words for the log: what the database was asked and which rule it broke, and never with what values: they are people's. */
export function faultWords(error: unknown): Record<string, unknown>[] {
  const words: Record<string, unknown>[] = [];
  for (let e = error as Record<string, unknown> | undefined; e instanceof Error; e = e.cause as typeof e) {
    const { code, constraint, table, column, query } = e as Record<string, unknown>;
    // A database's own message may quote the values, and the query builder's lists them.
    const asked = typeof code === 'string' || typeof query === 'string';
    words.push({ name: e.name, ...(asked ? { code, constraint, table, column, query } : { message: e.message }), at: placesOf(e) });
  }
  return words;
}

/** The lines of a stack that say where, without the message above them. */
const placesOf = ({ stack }: Error): string[] =>
  (stack ?? '')
    .split('\n')
    .filter((line) => /^\s+at /.test(line))
    .slice(0, 6);

/**
 * Run a route handler's work: its value as JSON, or what went wrong as { error } with a fitting status. `who` may ask: a member of a
 * studio of at least that role, or anyone (who then shows a key of another kind, or needs none). Changes asked for by another
 * site's page in the same browser are refused.
 */
export async function respond(request: Request, who: Role | 'anyone', work: () => Promise<unknown>): Promise<Response> {
  /** A no, in the language of whoever asked. */
  const fail = async (says: Said, status: number) => unkept(Response.json({ error: await sayInAnswer(request, says) }, { status }));
  if (!ownHost(request.headers.get('host'))) return fail(said('This address is not Wendel’s: see WENDEL_URL in the README.'), 421);
  if (fromElsewhere(request)) return fail(said('This was asked for by another site and is refused: open Wendel itself.'), 403);
  try {
    const value = await (who === 'anyone' ? work() : asAtLeast(who, work, request.headers.get('x-wendel-account')));
    return unkept(value instanceof Response ? value : Response.json(value ?? { ok: true }));
  } catch (error) {
    if (error instanceof Refusal) return fail(error.says, STATUS[error.code]);
    if (error instanceof SoundFileError) return fail(error.says, 422);
    if (error instanceof ZodError)
      return fail(said('The request is not complete: {what}', { what: { all: error.issues.map(issueSays), as: 'semicolon' } }), 400);
    if (error instanceof SyntaxError) return fail(said('The request is not complete: it holds no JSON.'), 400);
    if (isOf(error, READ_ONLY)) return fail(said('Your account may look and change nothing.'), 403);
    if (isOf(error, TAKEN)) return fail(said('Something with this id is there already: load the page anew and try again.'), 409);
    if (isOf(error, UNFIT))
      return fail(said('Something in the request can’t be stored (a number, a time or a sign out of bounds): nothing was changed.'), 400);
    if (isOf(error, AWAY, /Connection terminated|timeout exceeded when trying to connect/))
      return fail(said('The database is away for a moment and is being started again. Nothing is lost: try again shortly.'), 503);
    console.error(JSON.stringify({ fault: faultWords(error) }));
    return fail(
      said(
        'Wendel could not do that because of a fault of its own. Nothing was changed. Try again; if it stays, look at the server messages.',
      ),
      500,
    );
  }
}
