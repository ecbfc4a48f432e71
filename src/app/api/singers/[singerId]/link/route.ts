import { handle } from '@/server/handle';
import { inPresentStudio } from '@/server/let-in';
import { sendLink } from '@/server/links';
import { endLink } from '@/studio/links';

const PATH = '/api/singers/[singerId]/link';

export const POST = handle(`POST ${PATH}`, ({ params, request }) => sendLink(params.singerId, request.headers.get('origin') ?? undefined));
export const DELETE = handle(`DELETE ${PATH}`, ({ params }) => inPresentStudio(endLink, params.singerId));
