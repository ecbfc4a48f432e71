import type { Id } from '../core/format/id';
import { and, eq, isNull, like, or, sql } from 'drizzle-orm';
import { Model, modelledSong } from '../core/exercise/model';
import { StudioTx } from './client';
import { model } from './schema';

const columns = { id: model.id, exerciseId: model.exerciseId, manner: model.manner, singerId: model.singerId };

/**
 * Models made for everybody and, where a singer is named, for them; where it is said of what, those of some exercises and of some songs'
 * phrases only.
 */
export async function modelsFor(
  { db, studioId }: StudioTx,
  singerId: Id<'singer'> | null,
  only?: { exercises?: readonly string[]; songs?: readonly Id<'song'>[] },
): Promise<Model[]> {
  const of = only && [...(only.exercises ?? []).map((id) => eq(model.exerciseId, id)), ...(only.songs ?? []).map(phrasesOfSong)];
  if (of?.length === 0) return [];
  return db
    .select(columns)
    .from(model)
    .where(
      and(
        eq(model.studioId, studioId),
        singerId ? or(isNull(model.singerId), eq(model.singerId, singerId)) : isNull(model.singerId),
        of && or(...of),
      ),
    )
    .orderBy(model.exerciseId, model.manner);
}

const phrasesOfSong = (songId: Id<'song'>) => like(model.exerciseId, `${modelledSong(songId)}%`);

/** Delete the models of a song's phrases. */
export async function deleteModelsOfSong({ db, studioId }: StudioTx, songId: Id<'song'>): Promise<void> {
  await db.delete(model).where(and(eq(model.studioId, studioId), phrasesOfSong(songId)));
}

export async function countModels({ db, studioId }: StudioTx): Promise<number> {
  const [row] = await db
    .select({ n: sql<number>`count(*)::int` })
    .from(model)
    .where(eq(model.studioId, studioId));
  return row.n;
}

/** Keep a model; it takes the place of another of the same exercise, manner and singer. */
export async function putModel({ db, studioId }: StudioTx, { wav, ...row }: Omit<typeof model.$inferInsert, 'studioId'>): Promise<void> {
  await db
    .insert(model)
    .values({ ...row, wav, studioId })
    .onConflictDoUpdate({
      target: [model.studioId, model.exerciseId, model.manner, model.singerId],
      set: { id: row.id, wav, madeAt: sql`now()` },
    });
}

export async function deleteModel({ db, studioId }: StudioTx, id: Id<'model'>): Promise<void> {
  await db.delete(model).where(and(eq(model.studioId, studioId), eq(model.id, id)));
}

export async function soundOfModel({ db, studioId }: StudioTx, id: Id<'model'>): Promise<(Model & { wav: Buffer }) | undefined> {
  const [row] = await db
    .select({ ...columns, wav: model.wav })
    .from(model)
    .where(and(eq(model.studioId, studioId), eq(model.id, id)));
  return row;
}
