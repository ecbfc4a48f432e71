import { judgementInWords } from '../../core/judge/words';
import type { Sign } from '../../core/plan/safety';
import { readinessOf } from '../../core/practice/readiness';
import type { Arm, Check, Done, Entry, Felt, TrialLine } from '../../core/practice/types';
import { said, Said, texts } from '../../core/words/said';
import { VERDICT_NAMES } from '../kit/verdict';

export const SIGN_WORDS: Record<Exclude<Sign, 'effort'>, string> = texts({
  scratch: 'Scratchy',
  tickle: 'A tickle',
  tight: 'Tight',
  rasp: 'A rasp',
  hoarse: 'Hoarse now',
  'soft-gone': 'High soft notes gone',
  pain: 'It hurts',
  dizzy: 'Dizzy',
});

/** How an exercise went, as a line of the log has it; null where nobody listened. */
export function heardInWords({ success, judged }: Done): Said | null {
  if (judged?.verdict === 'yes' || (!judged && success)) return said(', as meant');
  if (judged) return said(', {verdict}: {because}', { verdict: VERDICT_NAMES[judged.verdict], because: judgementInWords(judged) });
  return success === null ? null : said(', not yet as meant');
}

export const FELT_WORDS: Record<Felt, string> = texts({ breastbone: 'Breastbone', nose: 'Bridge of the nose', crown: 'Crown' });
const FELT_AT: Record<Felt, string> = texts({ breastbone: 'the breastbone', nose: 'the bridge of the nose', crown: 'the crown' });

/** What was felt, as a line of the log has it. */
export const feltInWords = ({ felt = [], lighter }: Done): Said[] => [
  ...(felt.length > 0 ? [said(', buzzed at {places}', { places: { all: felt.map((f) => FELT_AT[f]), as: 'and' } })] : []),
  ...(lighter === undefined ? [] : [lighter ? said(', lighter after it') : said(', no lighter after it')]),
];

const SIGNS_TOLD: Record<Exclude<Sign, 'effort'>, string> = texts({
  scratch: 'scratchy',
  tickle: 'a tickle',
  tight: 'tight',
  rasp: 'a rasp',
  hoarse: 'hoarse now',
  'soft-gone': 'high soft notes gone',
  pain: 'it hurts',
  dizzy: 'dizzy',
});

/** What was told of trouble, in short; null where nothing was. */
export function toldInWords(what: Entry['what']): Said | null {
  if (what.kind === 'item')
    return said('{signs}, in {exercise}', {
      signs: { all: what.signs.flatMap((s) => (s === 'effort' ? [] : [SIGNS_TOLD[s]])), as: 'comma' },
      exercise: what.name,
    });
  if (what.kind === 'elsewhere' || what.kind === 'trial') return null;
  if (what.kind === 'check') return what.sounded === false ? said('the soft high note didn’t come') : null;
  const told = [...(what.pain ? [said('it hurts')] : []), ...(what.hoarse ? [said('hoarse')] : []), ...(what.ill ? [said('ill')] : [])];
  return told.length ? said('{told}', { told: { all: told, as: 'comma' } }) : null;
}

/** What was done in a trial of one. */
export const ARM_WORDS: Record<Arm, string> = texts({ straw: 'the straw', hum: 'humming', nothing: 'silence' });

/** A day of a trial, as a line of the log has it. */
export function trialInWords({ arm, minutes, before, after }: TrialLine): Said {
  const of = { before: before.leapSt, after: after.leapSt, arm: ARM_WORDS[arm], minutes: Math.round(minutes) };
  return minutes < 1
    ? said('trial: leap at the change {before, number, ::.0} st before {arm}, {after, number, ::.0} st right after', of)
    : said('trial: leap at the change {before, number, ::.0} st before {arm}, {after, number, ::.0} st {minutes} min after', of);
}

/** Of a day's check against good days, in a word; by semitones that are taken off. */
export const READY_WORDS = texts(['as on good days', 'a little under good days', 'under good days', 'far under good days']);

/** A check, as a line of the log has it, sentence by sentence. */
export function checkInWords(check: Check, log: readonly Entry[], day: string): Said[] {
  const { stands, lowerSt, because } = readinessOf(check, log, day);
  const ready = stands.length === 0 ? said('kept, to compare with') : READY_WORDS[lowerSt];
  return [
    check.warm ? said('soft note after the warm-up: {ready}.', { ready }) : said('check of the voice: {ready}.', { ready }),
    ...(stands.length === 0 ? [] : because),
  ];
}
