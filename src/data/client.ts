import type { Id } from '../core/format/id';
import { drizzle, NodePgDatabase } from 'drizzle-orm/node-postgres';
import { Pool } from 'pg';

/** A transaction that may touch one studio's rows only. */
export interface StudioTx {
  db: NodePgDatabase;
  studioId: Id<'studio'>;
  /** The account of who does it; null: Wendel itself, or a singer by their link. */
  actorId: string | null;
  /** Nothing can be changed in it. */
  readOnly: boolean;
  /** Singers whose rows were looked up, to be noted in the log of looks. */
  saw: Set<Id<'singer'>>;
  /** Run raw SQL in the same transaction (the job queue joins in through this). */
  execute(text: string, values?: unknown[]): Promise<{ rows: unknown[] }>;
}

// Kept on globalThis: a development server reloads modules but must not open a new pool each time.
const held = globalThis as unknown as { wendelPool?: Pool };

/**
 * No connection waits or is waited for without end: who waits longer for one is told that the database is busy; a transaction that
 * does nothing for a minute, and a query that takes one, are ended by the server.
 */
const PATIENCE = { connectionTimeoutMillis: 10_000, idle_in_transaction_session_timeout: 60_000, statement_timeout: 60_000 };

/** A pool whose connections may break: the next query opens another. */
export function openPool(connectionString: string, max: number): Pool {
  const pool = new Pool({ connectionString, max, ...PATIENCE });
  // One that breaks while idle (the database restarted) is dropped.
  pool.on('error', () => {});
  // One that breaks in the middle of a transaction fails that transaction; unheard, the event would end the process.
  pool.on('connect', (client) => client.on('error', () => {}));
  return pool;
}

/** The pool of the application role, from the environment variable WENDEL_APP_URL. */
export function pool(): Pool {
  if (!held.wendelPool) {
    const connectionString = process.env.WENDEL_APP_URL;
    if (!connectionString) throw new Error('WENDEL_APP_URL is not set: start Wendel with npm start, which sets it.');
    held.wendelPool = openPool(connectionString, 10);
  }
  return held.wendelPool;
}

export interface Access {
  /** Who does it, for the log of changes; without: Wendel itself. */
  actor?: string;
  /** Their account; without: they have none. */
  actorId?: string | null;
  /** The database refuses every change. */
  readOnly?: boolean;
}

/** Run `work` in one transaction as one studio (row-level security holds it to that studio). */
export async function inStudio<T>(
  studioId: Id<'studio'>,
  work: (tx: StudioTx) => Promise<T>,
  { actor = '', actorId = null, readOnly = false }: Access = {},
): Promise<T> {
  const client = await pool().connect();
  try {
    await client.query(readOnly ? 'begin read only' : 'begin');
    // Queries here take milliseconds: compiling one for its estimated cost (jit) takes longer than running it.
    await client.query(
      "select set_config('wendel.studio', $1, true), set_config('wendel.actor', $2, true), set_config('wendel.actor_id', $3, true), set_config('jit', 'off', true)",
      [studioId, actor, actorId ?? ''],
    );
    const result = await work({
      db: drizzle(client),
      studioId,
      actorId,
      readOnly,
      saw: new Set(),
      execute: (text, values) => client.query(text, values as unknown[]),
    });
    await client.query('commit');
    return result;
  } catch (error) {
    await client.query('rollback').catch(() => {});
    throw error;
  } finally {
    client.release();
  }
}

/** Ids of all studios, oldest first. */
export async function studioIds(): Promise<Id<'studio'>[]> {
  const { rows } = await pool().query('select studio_ids() as id');
  return rows.map((row: { id: Id<'studio'> }) => row.id);
}
