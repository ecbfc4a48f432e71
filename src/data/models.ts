import { and, eq, inArray, isNull, like, or, SQL, sql } from 'drizzle-orm';
import { Model, modelledSong } from '../core/exercise/model';
import { StudioTx } from './client';
import { model } from './schema';

const columns = { id: model.id, exerciseId: model.exerciseId, manner: model.manner, singerId: model.singerId };

/** Models made for everybody and, where a singer is named, for them; of those that fit only, where that is said. */
const chosen = ({ db, studioId }: StudioTx, singerId: string | null, fits?: SQL): Promise<Model[]> =>
  db
    .select(columns)
    .from(model)
    .where(
      and(eq(model.studioId, studioId), singerId ? or(isNull(model.singerId), eq(model.singerId, singerId)) : isNull(model.singerId), fits),
    )
    .orderBy(model.exerciseId, model.manner);

/** Models made for everybody and, where a singer is named, for them; of some exercises only, where these are named. */
export async function modelsFor(tx: StudioTx, singerId: string | null, exerciseIds?: readonly string[]): Promise<Model[]> {
  if (exerciseIds?.length === 0) return [];
  return chosen(tx, singerId, exerciseIds && inArray(model.exerciseId, [...exerciseIds]));
}

/** Models of these songs' phrases made for a singer, or for everybody. */
export async function modelsOfSongs(tx: StudioTx, singerId: string, songIds: readonly string[]): Promise<Model[]> {
  if (songIds.length === 0) return [];
  return chosen(tx, singerId, or(...songIds.map(phrasesOfSong)));
}

const phrasesOfSong = (songId: string) => like(model.exerciseId, `${modelledSong(songId)}%`);

/** Delete the models of a song's phrases. */
export async function deleteModelsOfSong({ db, studioId }: StudioTx, songId: string): Promise<void> {
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
export async function putModel({ db, studioId }: StudioTx, { wav, ...row }: Model & { wav: Buffer }): Promise<void> {
  await db
    .insert(model)
    .values({ ...row, wav, studioId })
    .onConflictDoUpdate({
      target: [model.studioId, model.exerciseId, model.manner, model.singerId],
      set: { id: row.id, wav, madeAt: sql`now()` },
    });
}

export async function deleteModel({ db, studioId }: StudioTx, id: string): Promise<void> {
  await db.delete(model).where(and(eq(model.studioId, studioId), eq(model.id, id)));
}

export async function soundOfModel({ db, studioId }: StudioTx, id: string): Promise<(Model & { wav: Buffer }) | undefined> {
  const [row] = await db
    .select({ ...columns, wav: model.wav })
    .from(model)
    .where(and(eq(model.studioId, studioId), eq(model.id, id)));
  return row;
}
