import type { Id } from '../core/format/id';
import { and, desc, eq, ne } from 'drizzle-orm';
import type { Stand } from '../core/practice/chapters';
import { StudioTx } from './client';
import { AssignedItem, assignment, singer } from './schema';

export interface NewAssignment {
  singerId: Id<'singer'>;
  note: string;
  startsOn: string;
  items: AssignedItem[];
  stand: Stand | null;
}

export async function insertAssignment({ db, studioId }: StudioTx, values: NewAssignment): Promise<Id<'assignment'>> {
  const [row] = await db
    .insert(assignment)
    .values({ ...values, studioId })
    .returning({ id: assignment.id });
  return row.id;
}

export async function findAssignment({ db, studioId }: StudioTx, id: Id<'assignment'>) {
  const [row] = await db
    .select()
    .from(assignment)
    .where(and(eq(assignment.studioId, studioId), eq(assignment.id, id)));
  return row;
}

export async function assignmentsOfSinger({ db, studioId }: StudioTx, singerId: Id<'singer'>) {
  return db
    .select({
      id: assignment.id,
      createdAt: assignment.createdAt,
      startsOn: assignment.startsOn,
      items: assignment.items,
      note: assignment.note,
      stand: assignment.stand,
    })
    .from(assignment)
    .where(and(eq(assignment.studioId, studioId), eq(assignment.singerId, singerId)))
    .orderBy(desc(assignment.createdAt));
}

/** The newest assignment of every other singer, by the singer's name: what can be copied from. */
export async function newestOfOthers({ db, studioId }: StudioTx, singerId: Id<'singer'>) {
  const rows = await db
    .selectDistinctOn([assignment.singerId], { id: assignment.id, singer: singer.name })
    .from(assignment)
    .innerJoin(singer, eq(singer.id, assignment.singerId))
    .where(and(eq(assignment.studioId, studioId), ne(assignment.singerId, singerId)))
    .orderBy(assignment.singerId, desc(assignment.createdAt));
  return rows.sort((a, b) => a.singer.localeCompare(b.singer));
}
