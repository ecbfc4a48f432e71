import { handle } from '@/server/handle';
import { inPresentStudio } from '@/server/let-in';
import { awaitTake, receiveTake, uploadOf } from '@/server/receive-take';
import { discardTake, noteTake } from '@/studio/takes';

const PATH = '/api/takes/[takeId]';
const LONGEST_WAIT_MS = 10_000;

export const PUT = handle(`PUT ${PATH}`, ({ query, request }) => receiveTake(query, uploadOf(request)));
export const GET = handle(`GET ${PATH}`, ({ params, query }) => awaitTake(params.takeId, query.wait === undefined ? 0 : LONGEST_WAIT_MS));
export const PATCH = handle(`PATCH ${PATH}`, ({ params, body }) => inPresentStudio(noteTake, params.takeId, body));
export const DELETE = handle(`DELETE ${PATH}`, ({ params }) => inPresentStudio(discardTake, params.takeId));
