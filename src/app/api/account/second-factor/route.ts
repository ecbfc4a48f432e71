import { beginSecondFactor, confirmSecondFactor, endSecondFactor } from '@/server/accounts';
import { handle } from '@/server/handle';

const PATH = '/api/account/second-factor';

export const POST = handle(`POST ${PATH}`, ({ body }) => beginSecondFactor(body));
export const PUT = handle(`PUT ${PATH}`, ({ body }) => confirmSecondFactor(body));
export const DELETE = handle(`DELETE ${PATH}`, ({ body }) => endSecondFactor(body));
