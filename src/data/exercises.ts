import { and, eq } from 'drizzle-orm';
import type { Exercise } from '../core/exercise/types';
import { StudioTx } from './client';
import { exercise } from './schema';

/** The studio's own exercises, by name. Their ids stand in them. */
export async function ownExercises({ db, studioId }: StudioTx): Promise<Exercise[]> {
  const rows = await db.select({ exercise: exercise.exercise }).from(exercise).where(eq(exercise.studioId, studioId));
  return rows.map((r) => r.exercise).sort((a, b) => a.name.localeCompare(b.name));
}

export async function putExercise({ db, studioId }: StudioTx, own: Exercise): Promise<void> {
  await db
    .insert(exercise)
    .values({ id: own.id, studioId, exercise: own })
    .onConflictDoUpdate({ target: exercise.id, set: { exercise: own, changedAt: new Date() } });
}

export async function deleteExercise({ db, studioId }: StudioTx, id: string): Promise<void> {
  await db.delete(exercise).where(and(eq(exercise.studioId, studioId), eq(exercise.id, id)));
}
