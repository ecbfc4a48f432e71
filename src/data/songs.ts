import type { Id } from '../core/format/id';
import { and, asc, desc, eq, sql } from 'drizzle-orm';
import type { Chosen } from '../core/format/song';
import type { BarOutcome, Heard, PredictedBar } from '../core/song/outcome';
import type { Song } from '../core/song/types';
import { StudioTx } from './client';
import { repertoire, song, songTake, take } from './schema';

export interface SongRow {
  id: Id<'song'>;
  song: Song;
  note: string;
}

const columns = { id: song.id, song: song.song, note: song.note };

/** The studio's songs by title, without their notes. */
export async function songLines({ db, studioId }: StudioTx) {
  return db
    .select({
      id: song.id,
      title: sql<string>`${song.song}->>'title'`,
      style: sql<string>`${song.song}->>'style'`,
      bars: sql<number>`jsonb_array_length(${song.song}->'bars')`,
      lowest: sql<number>`(select min((n->>'midi')::int) from jsonb_array_elements(${song.song}->'notes') n)`,
      highest: sql<number>`(select max((n->>'midi')::int) from jsonb_array_elements(${song.song}->'notes') n)`,
      singers: sql<number>`(select count(*)::int from repertoire r where r.song_id = ${song.id})`,
    })
    .from(song)
    .where(eq(song.studioId, studioId))
    .orderBy(sql`lower(${song.song}->>'title')`, asc(song.id));
}

export async function findSong({ db, studioId }: StudioTx, id: Id<'song'>): Promise<SongRow | undefined> {
  const [row] = await db
    .select(columns)
    .from(song)
    .where(and(eq(song.studioId, studioId), eq(song.id, id)));
  return row;
}

export async function putSong({ db, studioId }: StudioTx, { id, ...row }: SongRow): Promise<void> {
  await db
    .insert(song)
    .values({ id, studioId, ...row })
    .onConflictDoUpdate({ target: song.id, set: { ...row, changedAt: new Date() } });
}

/** Delete a song with what was decided about it; takes of it stay as takes. */
export async function deleteSong({ db, studioId }: StudioTx, id: Id<'song'>): Promise<void> {
  await db.delete(song).where(and(eq(song.studioId, studioId), eq(song.id, id)));
}

/** A singer's songs with what is decided about each, by title. */
export async function repertoireOf({ db, studioId }: StudioTx, singerId: Id<'singer'>) {
  return db
    .select({ ...columns, chosen: repertoire.chosen })
    .from(repertoire)
    .innerJoin(song, eq(song.id, repertoire.songId))
    .where(and(eq(repertoire.studioId, studioId), eq(repertoire.singerId, singerId)))
    .orderBy(sql`lower(${song.song}->>'title')`, asc(song.id));
}

export async function chosenFor({ db, studioId }: StudioTx, singerId: Id<'singer'>, songId: Id<'song'>): Promise<Chosen | null> {
  const [row] = await db
    .select({ chosen: repertoire.chosen })
    .from(repertoire)
    .where(and(eq(repertoire.studioId, studioId), eq(repertoire.singerId, singerId), eq(repertoire.songId, songId)));
  return row?.chosen ?? null;
}

/** What is chosen of a song, singer by singer. */
export const choicesOf = ({ db, studioId }: StudioTx, songId: Id<'song'>) =>
  db
    .select({ singerId: repertoire.singerId, chosen: repertoire.chosen })
    .from(repertoire)
    .where(and(eq(repertoire.studioId, studioId), eq(repertoire.songId, songId)));

/** A song whose key is chosen for a singer, and how its high phrases are taken. */
export interface ChosenSong extends Omit<Chosen, 'semitones'> {
  id: Id<'song'>;
  song: Song;
  semitones: number;
}

/** A singer's songs whose key is chosen, the last decided first; `most` of them. */
export async function newestChoices({ db, studioId }: StudioTx, singerId: Id<'singer'>, most: number): Promise<ChosenSong[]> {
  const rows = await db
    .select({ id: song.id, song: song.song, chosen: repertoire.chosen })
    .from(repertoire)
    .innerJoin(song, eq(song.id, repertoire.songId))
    .where(and(eq(repertoire.studioId, studioId), eq(repertoire.singerId, singerId), keyIsChosen))
    .orderBy(desc(repertoire.changedAt), asc(song.id))
    .limit(most);
  return rows.map(({ chosen, ...row }) => ({ ...row, ...chosen, semitones: chosen.semitones! }));
}

const keyIsChosen = sql`${repertoire.chosen}->>'semitones' is not null`;

/** Titles of a singer's songs whose key is chosen. */
export async function chosenTitles({ db, studioId }: StudioTx, singerId: Id<'singer'>): Promise<string[]> {
  const title = sql<string>`${song.song}->>'title'`;
  const rows = await db
    .select({ title })
    .from(repertoire)
    .innerJoin(song, eq(song.id, repertoire.songId))
    .where(and(eq(repertoire.studioId, studioId), eq(repertoire.singerId, singerId), keyIsChosen))
    .orderBy(sql`lower(${title})`, asc(song.id));
  return rows.map((r) => r.title);
}

export async function choose({ db, studioId }: StudioTx, singerId: Id<'singer'>, songId: Id<'song'>, chosen: Chosen): Promise<void> {
  await db
    .insert(repertoire)
    .values({ studioId, singerId, songId, chosen })
    .onConflictDoUpdate({ target: [repertoire.singerId, repertoire.songId], set: { chosen, changedAt: new Date() } });
}

export async function unchoose({ db, studioId }: StudioTx, singerId: Id<'singer'>, songId: Id<'song'>): Promise<void> {
  await db
    .delete(repertoire)
    .where(and(eq(repertoire.studioId, studioId), eq(repertoire.singerId, singerId), eq(repertoire.songId, songId)));
}

export interface SongTakeRow {
  takeId: Id<'take'>;
  songId: Id<'song'>;
  semitones: number;
  predicted: PredictedBar[];
}

export async function insertSongTake({ db, studioId }: StudioTx, row: SongTakeRow): Promise<void> {
  await db.insert(songTake).values({ ...row, studioId });
}

/** What a take is a take of, with the song as it is now; none where it is no take of a song. */
export async function songOfTake({ db, studioId }: StudioTx, takeId: Id<'take'>): Promise<(SongTakeRow & { song: Song }) | undefined> {
  const [row] = await db
    .select({
      takeId: songTake.takeId,
      songId: songTake.songId,
      semitones: songTake.semitones,
      predicted: songTake.predicted,
      song: song.song,
    })
    .from(songTake)
    .innerJoin(song, eq(song.id, songTake.songId))
    .where(and(eq(songTake.studioId, studioId), eq(songTake.takeId, takeId)));
  return row;
}

export async function saveHeard({ db, studioId }: StudioTx, takeId: Id<'take'>, heard: Heard): Promise<void> {
  await db
    .update(songTake)
    .set({ heard })
    .where(and(eq(songTake.studioId, studioId), eq(songTake.takeId, takeId)));
}

/** A singer's takes of a song, newest first, with what was heard of each. */
export async function songTakesOf({ db, studioId }: StudioTx, singerId: Id<'singer'>, songId: Id<'song'>) {
  return db
    .select({
      takeId: songTake.takeId,
      songId: songTake.songId,
      semitones: songTake.semitones,
      predicted: songTake.predicted,
      heard: songTake.heard,
      recordedAt: take.recordedAt,
      durationS: take.durationS,
      silent: sql<boolean>`${take.soundRemovedAt} is not null`,
    })
    .from(songTake)
    .innerJoin(take, eq(take.id, songTake.takeId))
    .where(and(eq(songTake.studioId, studioId), eq(take.singerId, singerId), eq(songTake.songId, songId)))
    .orderBy(desc(take.recordedAt), asc(songTake.takeId));
}

/** How each bar of each of a singer's song takes went, newest take first, without the notes. */
export async function songBarsOf({ db, studioId }: StudioTx, singerId: Id<'singer'>) {
  return db
    .select({
      songId: songTake.songId,
      recordedAt: take.recordedAt,
      bars: sql<BarOutcome[]>`coalesce(${songTake.heard}->'outcome'->'bars', '[]')`,
    })
    .from(songTake)
    .innerJoin(take, eq(take.id, songTake.takeId))
    .where(and(eq(songTake.studioId, studioId), eq(take.singerId, singerId)))
    .orderBy(desc(take.recordedAt), asc(songTake.takeId));
}
