import { AnswerOf, GivenBody, GivenParams, GivenQuery, ParamsOf, Route, RouteName, ROUTES } from '../contract/routes';
import { areIds } from '../core/format/id';
import { Refusal } from '../studio/refusal';
import { jsonOf } from './body';
import { respond } from './respond';

/** What a route's handler works with: all of it checked against the table of routes. */
export interface Given<N extends RouteName> {
  params: GivenParams<N>;
  body: GivenBody<N>;
  query: GivenQuery<N>;
  /** For what goes along as a file, and for headers. */
  request: Request;
}

/** @throws Refusal (not-found) where something in the path can't be the id of anything. */
function checked(params: Record<string, string>) {
  if (!areIds(params)) throw new Refusal('not-found', 'There is nothing at this address: it is not complete, or what it named is gone.');
  return params;
}

/**
 * A route of the table, to be exported under its method: who may not is refused before anything is read, what goes along is checked against
 * its shape, and what `work` gives is the answer.
 *
 * @example export const PUT = handle('PUT /api/singers/[singerId]', ({ params, body }) => inPresentStudio(editSinger, params.singerId, body));
 */
export function handle<N extends RouteName>(name: N, work: (given: Given<N>) => Promise<AnswerOf<N> | Response>) {
  const { who, body, query, itsId, file, mostBytes }: Route = ROUTES[name];
  return (request: Request, context: { params: Promise<ParamsOf<N> | undefined> }): Promise<Response> =>
    respond(request, who, async () => {
      // A path without names has none at all.
      const params = checked((await context.params) ?? {});
      const withItsId = (sent: unknown) => (itsId ? { ...(sent as object), id: params[itsId] } : sent);
      const asked = Object.fromEntries(new URL(request.url).searchParams);
      return work({
        params: params as unknown as GivenParams<N>,
        query: query?.parse(file ? withItsId(asked) : asked) as GivenQuery<N>,
        body: body?.parse(withItsId(await jsonOf(request, mostBytes))) as GivenBody<N>,
        request,
      });
    });
}
