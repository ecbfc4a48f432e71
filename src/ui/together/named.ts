import { said } from '../../core/words/said';

/** Names of singers one after another, as a sentence says them. */
export const named = (names: readonly string[]) => ({ all: names.map((own) => said('{name}', { name: { own } })), as: 'and' as const });
