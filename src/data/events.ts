import type { Id } from '../core/format/id';
import { Client } from 'pg';
import type { Change } from '../contract/answers';

/** The database tells here what was stored (migration 0017). */
const CHANNEL = 'wendel_changes';
const RECONNECT_MS = 1000;

type Listener = (change: Change) => void;
interface Hearing {
  listeners: Map<string, Set<Listener>>;
  /** While somebody listens: one connection for the whole process. */
  client: Client | null;
}

// On globalThis: pages and routes may each have a copy of this module.
const held = globalThis as unknown as { wendelChanges?: Hearing };
const hearing = (): Hearing => (held.wendelChanges ??= { listeners: new Map(), client: null });

function tell(payload: string | undefined): void {
  const { studioId, ...change } = JSON.parse(payload ?? '{}') as Change & { studioId: Id<'studio'> };
  for (const listener of hearing().listeners.get(studioId) ?? []) listener(change);
}

/** Listen as long as anybody does; after a database that was away everybody looks again by their own slow looks. */
async function connect(): Promise<void> {
  const now = hearing();
  if (now.client || now.listeners.size === 0) return;
  const client = (now.client = new Client({ connectionString: process.env.WENDEL_APP_URL, keepAlive: true }));
  const again = () => {
    if (now.client === client) now.client = null;
    setTimeout(() => void connect(), RECONNECT_MS).unref();
  };
  client.on('error', () => {});
  client.once('end', again);
  client.on('notification', ({ payload }) => tell(payload));
  try {
    await client.connect();
    await client.query(`listen ${CHANNEL}`);
  } catch {
    await client.end().catch(() => {});
  }
}

/**
 * Be called with each change of one studio until the function that comes back is called. None is kept for whoever comes late, and some
 * may be missed while the database restarts: whoever waits for one looks for himself now and then.
 */
export function onChange(studioId: Id<'studio'>, listener: Listener): () => void {
  const now = hearing();
  const of = now.listeners.get(studioId) ?? new Set();
  now.listeners.set(studioId, of.add(listener));
  void connect();
  return () => {
    of.delete(listener);
    if (of.size === 0) now.listeners.delete(studioId);
  };
}

/** Stop listening, for good (a test that ends). */
export async function stopListening(): Promise<void> {
  const now = hearing();
  now.listeners.clear();
  await now.client?.end();
}
