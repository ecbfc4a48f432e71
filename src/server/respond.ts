import { ZodError } from 'zod';
import { SoundFileError } from '../core/format/wav';
import { Problem } from './problem';

/** Classes of PostgreSQL's codes that mean the server is not there or going: 08 connection, 57P shutdown. */
const AWAY = /^(08|57P|ECONN|EPIPE|ETIMEDOUT)/;

function databaseAway(error: unknown): boolean {
  for (let e = error as { code?: string; message?: string; cause?: unknown } | undefined; e; e = e.cause as typeof e)
    if (AWAY.test(e.code ?? '') || /Connection terminated|timeout exceeded when trying to connect/.test(e.message ?? '')) return true;
  return false;
}

/**
 * Run a route handler's work: its value as JSON, or what went wrong as { error } with a fitting status. Changes asked for
 * by another site's page in the same browser are refused.
 */
export async function respond(request: Request, work: () => Promise<unknown>): Promise<Response> {
  const site = request.headers.get('sec-fetch-site');
  if (request.method !== 'GET' && site && site !== 'same-origin' && site !== 'none')
    return Response.json({ error: 'This was asked for by another site and is refused: open Wendel itself.' }, { status: 403 });
  try {
    const value = await work();
    return value instanceof Response ? value : Response.json(value ?? { ok: true });
  } catch (error) {
    if (error instanceof Problem) return Response.json({ error: error.message }, { status: error.status });
    if (error instanceof SoundFileError) return Response.json({ error: error.message }, { status: 422 });
    if (error instanceof ZodError)
      return Response.json(
        { error: `The request is not complete: ${error.issues.map((i) => `${i.path.join('.')}: ${i.message}`).join('; ')}` },
        { status: 400 },
      );
    if (databaseAway(error))
      return Response.json(
        { error: 'The database is away for a moment and is being started again. Nothing is lost: try again shortly.' },
        { status: 503 },
      );
    console.error(error);
    return Response.json(
      {
        error:
          'Wendel could not do that because of a fault of its own. Nothing was changed. Try again; if it stays, look at the server messages.',
      },
      { status: 500 },
    );
  }
}
