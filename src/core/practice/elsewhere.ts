import { dayLater } from '../plan/days';
import { said, Said } from '../words/said';
import type { Elsewhere, ElsewhereId, Entry } from './types';

/**
 * What a voice does besides practice, and in what share of those minutes it works. Teachers speak in about three tenths of their
 * hours (published dosimetry of teachers, from memory); the rest is this house's.
 */
export const ELSEWHERE: Record<ElsewhereId, { name: string; told: string; works: number }> = {
  rehearsal: { name: 'Rehearsal', told: 'rehearsal, {minutes} min', works: 0.4 },
  show: { name: 'Show or concert', told: 'show or concert, {minutes} min', works: 0.6 },
  choir: { name: 'Choir', told: 'choir, {minutes} min', works: 0.5 },
  lesson: { name: 'Singing lesson', told: 'singing lesson, {minutes} min', works: 0.5 },
  teaching: { name: 'Teaching, or long talking', told: 'teaching, or long talking, {minutes} min', works: 0.3 },
};

/** What a day's other singing leaves of its practice. */
export interface OtherSinging {
  /** Share of the minutes. */
  share: number;
  /** No test, no weight, no range. */
  light: boolean;
  because: Said;
}

/** From so many minutes of a working voice on the day practice is halved, and spares the voice; so many the day before spare it too (common practice, no source of the figures). */
const HALF_FROM_MIN = 20;
const LIGHT_FROM_MIN = 40;
const LIGHT_AFTER_MIN = 60;
const HALF = 0.5;
const AFTER = 0.7;

export const isElsewhere = (e: Entry): e is Entry & { what: Elsewhere } => e.what.kind === 'elsewhere';
/** The log as it stands: without lines of other singing that others stand instead of. The log itself only grows. */
export function asItStands(log: readonly Entry[]): Entry[] {
  const replaced = new Set(log.flatMap((e) => (isElsewhere(e) && e.what.instead ? [e.what.instead] : [])));
  return log.filter((e) => !isElsewhere(e) || (!replaced.has(e.id) && e.what.minutes > 0));
}

/** A day's lines of other singing. */
export const elsewhereOn = (log: readonly Entry[], day: string): Elsewhere[] =>
  log.flatMap((e) => (e.day === day && isElsewhere(e) ? [e.what] : []));

const worked = (lines: readonly Elsewhere[]): number =>
  lines.reduce((sum, { where, minutes }) => sum + minutes * ELSEWHERE[where].works, 0);

/** @example elsewhereInWords({ kind: 'elsewhere', where: 'choir', minutes: 90 }) // "choir, 90 min" */
export const elsewhereInWords = ({ where, minutes }: Elsewhere): Said => said(ELSEWHERE[where].told, { minutes });

/** What the other singing of a day, and of the day before, leaves of its practice; null: all of it. */
export function otherSinging(log: readonly Entry[], day: string): OtherSinging | null {
  const [lines, before] = [elsewhereOn(log, day), elsewhereOn(log, dayLater(day, -1))];
  const told = (of: readonly Elsewhere[]) => ({ told: { all: of.map(elsewhereInWords), as: 'semicolon' } as const });
  const now = worked(lines);
  if (now >= LIGHT_FROM_MIN)
    return {
      share: HALF,
      light: true,
      because: said('The voice has worked today ({told}): only what eases it, and half of that.', told(lines)),
    };
  const after = worked(before) >= LIGHT_AFTER_MIN;
  if (now >= HALF_FROM_MIN)
    return { share: HALF, light: after, because: said('The voice has worked today ({told}): half the usual minutes.', told(lines)) };
  if (after)
    return {
      share: AFTER,
      light: true,
      because: said('The voice worked hard yesterday ({told}): light work today, and less.', told(before)),
    };
  return null;
}
