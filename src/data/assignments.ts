import { and, desc, eq } from 'drizzle-orm';
import type { PlanItem } from '../core/plan/types';
import { StudioTx } from './client';
import { assignment } from './schema';

export async function insertAssignment({ db, studioId }: StudioTx, singerId: string, note: string, items: PlanItem[]): Promise<string> {
  const [row] = await db.insert(assignment).values({ studioId, singerId, note, items }).returning({ id: assignment.id });
  return row.id;
}

export async function findAssignment({ db, studioId }: StudioTx, id: string) {
  const [row] = await db
    .select()
    .from(assignment)
    .where(and(eq(assignment.studioId, studioId), eq(assignment.id, id)));
  return row;
}

export async function assignmentsOfSinger({ db, studioId }: StudioTx, singerId: string) {
  return db
    .select({ id: assignment.id, createdAt: assignment.createdAt, items: assignment.items, note: assignment.note })
    .from(assignment)
    .where(and(eq(assignment.studioId, studioId), eq(assignment.singerId, singerId)))
    .orderBy(desc(assignment.createdAt));
}
