import { handle } from '@/server/handle';
import { inPresentStudio } from '@/server/let-in';
import { decide, forgetChoice } from '@/studio/songs';

const PATH = '/api/singers/[singerId]/songs/[songId]';

export const PUT = handle(`PUT ${PATH}`, ({ params, body }) => inPresentStudio(decide, params.singerId, params.songId, body));
export const DELETE = handle(`DELETE ${PATH}`, ({ params }) => inPresentStudio(forgetChoice, params.singerId, params.songId));
