import { judgementInWords } from '../../core/judge/words';
import type { Sign } from '../../core/plan/safety';
import type { Before, Done, Felt } from '../../core/practice/types';

export const SIGN_WORDS: Record<Exclude<Sign, 'effort'>, string> = {
  scratch: 'Scratchy',
  tickle: 'A tickle',
  tight: 'Tight',
  rasp: 'A rasp',
  hoarse: 'Hoarse now',
  'soft-gone': 'High soft notes gone',
  pain: 'It hurts',
  dizzy: 'Dizzy',
};

/** How an exercise went, as a line of the log has it; empty where nobody listened. */
export function heardInWords({ success, judged }: Done): string {
  if (judged) return `, ${judged.verdict === 'yes' ? 'as meant' : `${judged.verdict}: ${judgementInWords(judged)}`}`;
  return success === null ? '' : success ? ', as meant' : ', not yet as meant';
}

export const FELT_WORDS: Record<Felt, string> = { breastbone: 'Breastbone', nose: 'Bridge of the nose', crown: 'Crown' };

/** What was felt, as a line of the log has it; empty where nothing was told. */
export const feltInWords = ({ felt = [], lighter }: Done): string =>
  [
    felt.length > 0 && `, buzzed at ${felt.map((f) => FELT_WORDS[f].toLowerCase()).join(' and ')}`,
    lighter !== undefined && (lighter ? ', lighter after it' : ', no lighter after it'),
  ]
    .filter(Boolean)
    .join('');

/** What was told of trouble, in short. */
export function toldInWords(what: Before | Done): string {
  if (what.kind === 'item')
    return [...what.signs.filter((s) => s !== 'effort').map((s) => SIGN_WORDS[s].toLowerCase()), `in ${what.name}`].join(', ');
  return [what.pain && 'it hurts', what.hoarse && 'hoarse', what.ill && 'ill'].filter(Boolean).join(', ');
}
