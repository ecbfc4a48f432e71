import type { SafetyRule, Sign, Today } from '../plan/safety';
import { said, Said } from '../words/said';
import { dayLater, daysBetween } from '../plan/days';
import { Entry, isDone } from './types';

/** Who is asked to see a doctor sooner: those who live by the voice, and whoever sings in public soon. */
export interface Urgency {
  professional: boolean;
  /** Days until the next show, audition or exam; null: none is known. */
  daysToShow: number | null;
}

/** Hoarse on so many of so many days, or so long without a clear day, is a doctor's (AAO-HNSF guideline 2018, from memory: four weeks at most). */
const HOARSE_DAYS = 10;
const HOARSE_OF_DAYS = 14;
const NO_CLEAR_DAYS = 21;
/** Those who live by their voice, and those who sing in public within two weeks, go after one (common practice, no source). */
const URGENT_DAYS = 7;
const SHOW_SOON_DAYS = 14;
/** Told so often, a day is no chance. */
const LEAST_TOLD = 3;
/** The same sign after singing so often within two weeks. */
const SIGN_TIMES = 3;
const SIGN_OF_DAYS = 14;

/** What the log of a singer brings on by itself, in words for singer and coach, weightiest first. */
export interface Notice extends Pick<SafetyRule, 'id' | 'does'> {
  says: Said;
}

/** On each of the last days with an answer: whether the voice was hoarse, before or after singing. */
function hoarseDays(entries: readonly Entry[], today: string, days: number): Map<string, boolean> {
  const from = dayLater(today, -days);
  const out = new Map<string, boolean>();
  for (const { day, what } of entries) {
    if (day <= from || day > today || (what.kind !== 'item' && what.kind !== 'before')) continue;
    const hoarse = what.kind === 'item' ? what.signs.includes('hoarse') : what.hoarse;
    out.set(day, hoarse || (out.get(day) ?? false));
  }
  return out;
}

interface NoticeRule extends Omit<Notice, 'says'> {
  says(log: readonly Entry[], today: string, urgency: Urgency): Said | null;
}

const signed = (log: readonly Entry[], today: string, sign: Sign): number =>
  new Set(
    log
      .filter((e) => e.day > dayLater(today, -SIGN_OF_DAYS) && e.day <= today && isDone(e) && e.what.signs.includes(sign))
      .map((e) => e.day),
  ).size;

const painDays = (log: readonly Entry[], today: string): number =>
  new Set(
    log
      .filter((e) => e.day > dayLater(today, -SIGN_OF_DAYS) && e.day <= today)
      .filter(({ what }) => (what.kind === 'item' ? what.signs.includes('pain') : what.kind === 'before' && what.pain))
      .map((e) => e.day),
  ).size;

const NOTICES: readonly NoticeRule[] = [
  {
    id: 'hoarse-urgent',
    does: 'see-doctor',
    says(log, today, { professional, daysToShow }) {
      if (!professional && !(daysToShow !== null && daysToShow <= SHOW_SOON_DAYS)) return null;
      const told = hoarseDays(log, today, URGENT_DAYS);
      return told.size >= LEAST_TOLD && [...told.values()].every(Boolean)
        ? said('Hoarse for a week, with the voice needed soon: let a doctor look at the larynx now, before it is sung on.')
        : null;
    },
  },
  {
    id: 'hoarse-long',
    does: 'see-doctor',
    says(log, today) {
      const two = [...hoarseDays(log, today, HOARSE_OF_DAYS).values()].filter(Boolean).length;
      const three = hoarseDays(log, today, NO_CLEAR_DAYS);
      const first = [...three.keys()].sort()[0];
      const long = three.size >= LEAST_TOLD && first <= dayLater(today, -NO_CLEAR_DAYS + 2) && [...three.values()].every(Boolean);
      if (two < HOARSE_DAYS && !long) return null;
      return long
        ? said('Hoarse for three weeks without a clear day: a doctor should look at the larynx, at four weeks at the latest.')
        : said('Hoarse on {days} of {of} days: a doctor should look at the larynx, at four weeks at the latest.', {
            days: two,
            of: HOARSE_OF_DAYS,
          });
    },
  },
  {
    id: 'pain-again',
    does: 'see-doctor',
    says: (log, today) =>
      painDays(log, today) >= 2 ? said('It has hurt on two days within two weeks: a doctor should look before singing goes on.') : null,
  },
  {
    id: 'hoarse-after-often',
    does: 'leave-range',
    says(log, today) {
      const times = signed(log, today, 'hoarse');
      return times >= SIGN_TIMES
        ? said('Hoarse after singing on {times} days within two weeks: no range work until the coach has heard the voice.', { times })
        : null;
    },
  },
];

/** What a log brings on by itself on a day, weightiest first. Wendel advises; doctors and local rules decide. */
export const noticesOf = (log: readonly Entry[], today: string, urgency: Urgency): Notice[] =>
  NOTICES.flatMap(({ says, ...rule }) => {
    const text = says(log, today, urgency);
    return text ? [{ ...rule, says: text }] : [];
  });

/** What was answered about a day before singing, and told of it after. */
export const saidToday = (log: readonly Entry[], day: string): Today[] =>
  log
    .filter((e) => e.day === day)
    .flatMap(({ what }) =>
      what.kind === 'before'
        ? what
        : what.kind === 'item'
          ? { hoarse: what.signs.includes('hoarse'), ill: false, pain: what.signs.includes('pain') }
          : [],
    );

/** After illness or hoarseness the voice comes back in three days: shares of the day's minutes (common practice, no source). */
export const RETURN_SHARES = [0.3, 0.6, 0.8] as const;

/** What part of a day's minutes is sung on the way back from a day that was not well; 1 when that is long ago, or never was. */
export function returnShare(log: readonly Entry[], today: string): number {
  const unwell = log
    .filter((e) => e.day < today && e.what.kind === 'before' && (e.what.ill || e.what.hoarse || e.what.pain))
    .map((e) => e.day)
    .sort();
  const last = unwell[unwell.length - 1];
  if (last === undefined) return 1;
  return RETURN_SHARES[daysBetween(last, today) - 1] ?? 1;
}
