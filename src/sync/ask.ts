import { said } from '../core/words/said';
import { SaidError } from '../core/words/said-error';
import type { AnswerOf, BodyOf, ParamsOf, QueryOf, RouteName } from '../contract/routes';
import { accountHeader } from './answer';

/** What goes along with a route of the table: only what it takes. */
export type Along<N extends RouteName> = (keyof ParamsOf<N> extends never ? { params?: undefined } : { params: ParamsOf<N> }) &
  (BodyOf<N> extends undefined ? { body?: undefined } : { body: BodyOf<N> }) &
  (QueryOf<N> extends undefined ? { query?: undefined } : { query?: QueryOf<N> });

/** Nothing need be given where a route takes nothing. */
type Given<N extends RouteName> = Record<string, never> extends Along<N> ? [along?: Along<N>] : [along: Along<N>];

/** Method and path that a route's name is made of. */
type MethodOf<N extends RouteName> = N extends `${infer Method} ${string}` ? Method : never;
type PathOf<N extends RouteName> = N extends `${string} ${infer Path}` ? Path : never;

/** A route's path with its names filled in. @example pathOf('/api/takes/[takeId]', { takeId: 'a' }) // '/api/takes/a' */
export const pathOf = (path: string, params: Record<string, string> = {}): string =>
  path.replace(/\[(\w+)\]/g, (_, name: string) => encodeURIComponent(params[name]));

/** The address of a route, for what asks by itself: a link, an audio element, a worker. @example addressOf('GET /api/takes/[takeId]/audio', { takeId }) */
export const addressOf = <N extends RouteName>(name: N, params: ParamsOf<N>): string =>
  pathOf((name.split(' ') as [MethodOf<N>, PathOf<N>])[1], params);

/** A request in parts, to be sent now or said as a word that is kept until the server has it. */
export function requestOf<N extends RouteName>(name: N, ...[along]: Given<N>): { method: MethodOf<N>; path: string; body?: unknown } {
  const [method, path] = name.split(' ') as [MethodOf<N>, PathOf<N>];
  const query = along?.query ? `?${new URLSearchParams(along.query as Record<string, string>).toString()}` : '';
  return { method, path: pathOf(path, along?.params) + query, body: along?.body };
}

/** Fetch from the server; its JSON answer. @throws Error with the server's own words, or what to do when it can't be reached. */
export async function fetchAnswer<T>(path: string, init?: RequestInit): Promise<T> {
  let response: Response;
  try {
    response = await fetch(path, { ...init, headers: { ...accountHeader(), ...init?.headers } });
  } catch {
    throw new SaidError('The server can’t be reached. Nothing here is lost: check that Wendel is running, then try again.');
  }
  const answer = await response.json().catch(() => undefined);
  if (!response.ok) throw new SaidError(answer?.error ?? said('The server answered {status}: try again.', { status: response.status }));
  return answer as T;
}

/**
 * Ask a route of the table. @throws Error as `fetchAnswer`.
 *
 * @example const { id } = await ask('POST /api/singers', { body: singer });
 */
export function ask<N extends RouteName>(name: N, ...given: Given<N>): Promise<AnswerOf<N>> {
  const { method, path, body } = requestOf(name, ...given);
  return fetchAnswer(
    path,
    body === undefined ? { method } : { method, headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) },
  );
}
