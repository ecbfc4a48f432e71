// Lines of a singer's log that the server doesn't have yet, kept in this browser until it has.
import { DBSchema, IDBPDatabase, openDB } from 'idb';
import type { Entry } from '../core/practice/types';
import { answerOf } from './answer';

interface Kept extends DBSchema {
  entries: { key: string; value: Entry & { token: string } };
}

let opened: Promise<IDBPDatabase<Kept>> | undefined;

function store(): Promise<IDBPDatabase<Kept>> {
  opened ??= openDB<Kept>('wendel-practice', 1, {
    upgrade(db) {
      db.createObjectStore('entries', { keyPath: 'id' });
    },
    terminated() {
      opened = undefined;
    },
  });
  opened.catch(() => (opened = undefined));
  return opened;
}

/** What waits on a page, oldest first; nothing where the browser keeps nothing. */
export async function keptEntries(token: string): Promise<Entry[]> {
  try {
    const all = await (await store()).getAll('entries');
    return all
      .filter((e) => e.token === token)
      .map(({ token: _mine, ...e }) => (void _mine, e))
      .sort((a, b) => a.at.localeCompare(b.at));
  } catch {
    return [];
  }
}

export async function keepEntry(token: string, entry: Entry): Promise<void> {
  await (await store()).put('entries', { ...entry, token });
}

/** Send what waits; answers what still does. A line the server won't have is put aside, so that it holds up no other. */
export async function sendEntries(token: string, held: readonly Entry[] = []): Promise<{ waiting: Entry[]; refused: string | null }> {
  const kept = await keptEntries(token);
  const waiting = [...kept, ...held.filter((h) => !kept.some((k) => k.id === h.id))];
  if (waiting.length === 0) return { waiting, refused: null };
  const answer = await answerOf(`/api/p/${token}/entries`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ entries: waiting }),
  });
  if (answer === null || answer.status >= 500 || answer.status === 429) return { waiting, refused: null };
  if (answer.error !== null) return { waiting, refused: answer.error };
  try {
    const tx = (await store()).transaction('entries', 'readwrite');
    for (const e of waiting) void tx.store.delete(e.id);
    await tx.done;
  } catch {
    // Sent again later they are the same lines.
  }
  return { waiting: [], refused: null };
}
