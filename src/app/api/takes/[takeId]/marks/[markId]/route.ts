import { handle } from '@/server/handle';
import { inPresentStudio } from '@/server/let-in';
import { removeMark, setMark } from '@/studio/takes';

const PATH = '/api/takes/[takeId]/marks/[markId]';

export const PUT = handle(`PUT ${PATH}`, ({ params, body }) => inPresentStudio(setMark, params.takeId, params.markId, body));
export const DELETE = handle(`DELETE ${PATH}`, ({ params }) => inPresentStudio(removeMark, params.takeId, params.markId));
