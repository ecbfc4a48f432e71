import { handle } from '@/server/handle';
import { inPresentStudio } from '@/server/let-in';
import { editSinger, removeSinger, setArchived, singerRecord } from '@/studio/singers';

const PATH = '/api/singers/[singerId]';

export const GET = handle(`GET ${PATH}`, ({ params }) => inPresentStudio(singerRecord, params.singerId));
export const PUT = handle(`PUT ${PATH}`, ({ params, body }) => inPresentStudio(editSinger, params.singerId, body));
export const PATCH = handle(`PATCH ${PATH}`, ({ params, body }) => inPresentStudio(setArchived, params.singerId, body.archived));
export const DELETE = handle(`DELETE ${PATH}`, ({ params, body }) => inPresentStudio(removeSinger, params.singerId, body.name));
