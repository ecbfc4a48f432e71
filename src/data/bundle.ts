import type { Id } from '../core/format/id';
import type { StudioTx } from './client';

/**
 * Tables of a bundle, each after those it points at. Left out on purpose: links (keys), messages (they hold keys), kept maps
 * (worked out again), and sound, which lies in files of its own.
 */
export const BUNDLED = [
  'singer',
  'lesson',
  'protocol',
  'exercise',
  'model',
  'template',
  'song',
  'repertoire',
  'pin',
  'take',
  'analysis',
  'mark',
  'ear_answer',
  'song_take',
  'assignment',
  'practice',
  'spoken_word',
] as const;
export type Bundled = (typeof BUNDLED)[number];

export type BundleRow = Record<string, unknown>;

/** All rows of a table of this studio as plain values, in a steady order. */
export async function rowsOf(tx: StudioTx, table: Bundled): Promise<BundleRow[]> {
  const { rows } = await tx.execute(
    `select to_jsonb(t) - 'studio_id' as row from ${table} t where studio_id = $1 order by to_jsonb(t)::text`,
    [tx.studioId],
  );
  return (rows as { row: BundleRow }[]).map((r) => r.row);
}

/** Put rows into a table of this studio; those that are there already stay as they are. How many were new. */
export async function insertRows(tx: StudioTx, table: Bundled, rows: readonly BundleRow[]): Promise<number> {
  if (rows.length === 0) return 0;
  const { rows: done } = await tx.execute(
    `with new as (
       insert into ${table} select * from jsonb_populate_recordset(null::${table}, $1::jsonb) on conflict do nothing returning 1
     ) select count(*)::int as n from new`,
    [JSON.stringify(rows.map((r) => ({ ...r, studio_id: tx.studioId })))],
  );
  return (done as { n: number }[])[0].n;
}

/** Ids of takes whose sound isn't there. */
export async function silentTakes(tx: StudioTx): Promise<Id<'take'>[]> {
  const { rows } = await tx.execute(
    'select id from take where studio_id = $1 and sound_removed_at is null and not exists (select 1 from take_audio a where a.take_id = take.id)',
    [tx.studioId],
  );
  return (rows as { id: Id<'take'> }[]).map((r) => r.id);
}
