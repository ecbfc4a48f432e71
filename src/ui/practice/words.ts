import { judgementInWords } from '../../core/judge/words';
import type { Sign } from '../../core/plan/safety';
import { readinessOf } from '../../core/practice/readiness';
import type { Arm, Check, Done, Entry, Felt, TrialLine } from '../../core/practice/types';

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
export function toldInWords(what: Entry['what']): string {
  if (what.kind === 'item')
    return [...what.signs.filter((s) => s !== 'effort').map((s) => SIGN_WORDS[s].toLowerCase()), `in ${what.name}`].join(', ');
  if (what.kind === 'elsewhere' || what.kind === 'trial') return '';
  if (what.kind === 'check') return what.sounded === false ? 'the soft high note didn’t come' : '';
  return [what.pain && 'it hurts', what.hoarse && 'hoarse', what.ill && 'ill'].filter(Boolean).join(', ');
}

/** What was done in a trial of one. */
export const ARM_WORDS: Record<Arm, string> = { straw: 'the straw', hum: 'humming', nothing: 'silence' };

/** A day of a trial, as a line of the log has it. */
export const trialInWords = ({ arm, minutes, before, after }: TrialLine): string =>
  `trial: leap at the change ${before.leapSt.toFixed(1)} st before ${ARM_WORDS[arm]}, ${after.leapSt.toFixed(1)} st ${minutes < 1 ? 'right' : `${Math.round(minutes)} min`} after`;

/** Of a day's check against good days, in a word; by semitones that are taken off. */
export const READY_WORDS = ['as on good days', 'a little under good days', 'under good days', 'far under good days'];

/** A check, as a line of the log has it. */
export function checkInWords(check: Check, log: readonly Entry[], day: string): string {
  const { stands, lowerSt, because } = readinessOf(check, log, day);
  const said = stands.length === 0 ? 'kept, to compare with' : [READY_WORDS[lowerSt], ...because].join('. ');
  return `${check.warm ? 'soft note after the warm-up' : 'check of the voice'}: ${said}`;
}
