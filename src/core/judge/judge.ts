import { patternSpan } from '../exercise/pattern';
import type { NoteProfile, TakeFindings, Trace } from '../take/types';
import { alignKeys } from './align';
import { CHECKS, judgeKey } from './checks';
import { Hearing } from './hearing';
import { earlierIn } from './level';
import { CROSSES_ST } from './register';
import { handOver } from './hand-over';
import { doubtedLeap } from './leaps';
import { Audible, audibleOn } from './sounds';
import type { Asked, Fault, Judgement, KnownVoice } from './types';

/** What is said of a take that could not be listened to: too short, too quiet, broken. */
export const NOT_USABLE: Judgement = { verdict: 'not told', because: { fault: 'not-usable' }, keys: [] };

/**
 * Judge a take of an exercise against what was asked, note by note and key by key: the right notes, never stopped, never leapt, not
 * faded, across the change with a hand-over heard, and what the exercise's own measure asks for. A take is a yes when every key is;
 * one key that is not yet makes the take not yet.
 *
 * @param voice where the singer's change lies; without it, the middle of the keys, as far as a change may lie there
 */
export function judgeTake(
  asked: Asked,
  { findings, trace }: { findings: Pick<TakeFindings, 'quality' | 'events' | 'profile'>; trace: Trace },
  voice: KnownVoice | null = null,
): Judgement {
  if (!findings.quality.usable || asked.keys.length === 0) return NOT_USABLE;
  const { keys: heard, midi, octave } = alignKeys(asked, trace);
  const audible = audibleOn(asked.sound);
  const hearing: Hearing = {
    asked,
    audible,
    trace,
    midi,
    events: findings.events,
    leapDoubted: false,
    earlier: earlierIn(heard, { trace, midi }),
    crossing: crossingOf(asked, octave, audible, findings.profile, voice),
  };
  const keys = heard.map((key) => judgeKey(key, hearing));
  const doubted = doubtedLeap(keys);
  if (doubted >= 0) keys[doubted] = judgeKey(heard[doubted], { ...hearing, leapDoubted: true });
  const not = keys.some((k) => k.verdict === 'not yet') ? 'not yet' : keys.some((k) => k.verdict === 'not told') ? 'not told' : null;
  if (!not) return { verdict: 'yes', because: null, keys };
  const weightiest = keys
    .flatMap(({ verdict, because }, key) => (verdict === not && because ? [{ ...because, key }] : []))
    .reduce((a, b) => (weightOf(b.fault) < weightOf(a.fault) ? b : a));
  return { verdict: not, because: weightiest, keys };
}

const weightOf = (fault: Fault) => CHECKS.findIndex((c) => c.fault === fault);

/** Aims in which chest hands over on the way up; chest work may carry it. */
const HANDS_OVER: readonly string[] = ['across', 'head-blend', 'head'];
/** A blend of chest may carry it a little way; so far over the change it is pulled (common practice, no source). */
const CARRIES_ST = 4;

/** Where nothing is known of a voice its change lies between these (B♭3, the lowest bass's, and B4; common practice, no source). */
const LOWEST_CHANGE = 58;
const HIGHEST_CHANGE = 71;

/** The change that an exercise takes the voice across, and what was heard of the hand-over; null where it doesn't. */
function crossingOf(
  asked: Asked,
  octave: number,
  audible: Audible,
  profile: readonly NoteProfile[],
  voice: KnownVoice | null,
): Hearing['crossing'] {
  const { exercise, keys } = asked;
  const handsOver = HANDS_OVER.includes(exercise.aim) || exercise.measure === 'crosses' || exercise.measure === 'blends';
  if (!handsOver && exercise.aim !== 'chest-blend') return null;
  const span = patternSpan(exercise);
  const [low, high] = [Math.min(...keys) + span.bottom + octave, Math.max(...keys) + span.top + octave];
  const changeMidi = voice?.changeMidi ?? Math.min(HIGHEST_CHANGE, Math.max(LOWEST_CHANGE, (low + high) / 2));
  if (low > changeMidi - CROSSES_ST || high < changeMidi + (handsOver ? CROSSES_ST : CARRIES_ST)) return null;
  return { changeMidi: changeMidi - octave, handOver: handOver(profile, audible, changeMidi, voice?.handsOver ?? null) };
}
