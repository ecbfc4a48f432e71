import type { Id } from '../core/format/id';
import { format, subDays } from 'date-fns';
import { and, asc, eq, gte } from 'drizzle-orm';
import { asItStands } from '../core/practice/elsewhere';
import type { Entry } from '../core/practice/types';
import { StudioTx } from './client';
import { practice } from './schema';

/** Days that proposals and logs look back. */
const LATELY_DAYS = 60;

/** The first day of what counts as lately. */
export const lately = (): string => format(subDays(new Date(), LATELY_DAYS), 'yyyy-MM-dd');

/** A singer's log from a day on as it stands, oldest first. */
export async function practiceOf({ db, studioId }: StudioTx, singerId: Id<'singer'>, fromDay = '0001-01-01'): Promise<Entry[]> {
  const rows = await db
    .select({
      id: practice.id,
      assignmentId: practice.assignmentId,
      day: practice.day,
      at: practice.at,
      what: practice.what,
      answer: practice.answer,
      granted: practice.granted,
    })
    .from(practice)
    .where(and(eq(practice.studioId, studioId), eq(practice.singerId, singerId), gte(practice.day, fromDay)))
    .orderBy(asc(practice.at));
  return asItStands(
    rows.map(({ answer, granted, ...r }) => ({
      ...r,
      at: r.at.toISOString(),
      ...(answer ? { answer } : {}),
      ...(granted ? { granted } : {}),
    })),
  );
}

/** Add lines to a singer's log; one that is there already stays as it is. */
export async function addPractice({ db, studioId }: StudioTx, singerId: Id<'singer'>, entries: readonly Entry[]): Promise<void> {
  if (entries.length === 0) return;
  await db
    .insert(practice)
    .values(
      entries.map((e) => ({
        ...e,
        id: e.id as Id<'entry'>,
        assignmentId: e.assignmentId as Id<'assignment'> | null,
        at: new Date(e.at),
        studioId,
        singerId,
      })),
    )
    .onConflictDoNothing();
}

/** Keep the coach's word on a line of a log. @returns false where there is no such line. */
export async function answerPractice(
  { db, studioId }: StudioTx,
  id: Id<'entry'>,
  word: { answer?: string; granted?: boolean },
): Promise<boolean> {
  const rows = await db
    .update(practice)
    .set(word)
    .where(and(eq(practice.studioId, studioId), eq(practice.id, id)))
    .returning({ id: practice.id });
  return rows.length > 0;
}
