import { handle } from '@/server/handle';
import { receivePracticeTake, uploadOf } from '@/server/receive-take';

export const PUT = handle('PUT /api/p/[token]/takes/[takeId]', ({ params, query, request }) =>
  receivePracticeTake(params.token, query, uploadOf(request)),
);
