import { handle } from '@/server/handle';
import { inPresentStudio } from '@/server/let-in';
import { sayHeard, takeBackHeard } from '@/studio/ears';

const PATH = '/api/ears/answers/[answerId]';

export const PUT = handle(`PUT ${PATH}`, ({ body }) => inPresentStudio(sayHeard, body));
export const DELETE = handle(`DELETE ${PATH}`, ({ params }) => inPresentStudio(takeBackHeard, params.answerId));
