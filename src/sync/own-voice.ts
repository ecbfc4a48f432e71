// The last key of each exercise in the singer's own voice, kept on this device only (IndexedDB): today's, and the one before today.
import { DBSchema, IDBPDatabase, openDB } from 'idb';
import { presentAccount } from './account';

export interface OwnKey {
  /** The singer's own day. */
  day: string;
  sound: Blob;
}

interface Kept {
  newest: OwnKey;
  before: OwnKey | null;
}

interface Store extends DBSchema {
  keys: { key: string; value: Kept };
}

let opened: Promise<IDBPDatabase<Store>> | null = null;
const store = () => (opened ??= openDB<Store>('wendel-own-voice', 1, { upgrade: (db) => void db.createObjectStore('keys') }));
const keyOf = (exerciseId: string) => `${presentAccount() ?? ''} ${exerciseId}`;

/** Keep a key of today's. @returns the newest of an earlier day; null where there is none, or nothing can be kept here. */
export async function keepOwn(exerciseId: string, key: OwnKey): Promise<OwnKey | null> {
  try {
    const db = await store();
    const kept = await db.get('keys', keyOf(exerciseId));
    const before = kept ? (kept.newest.day === key.day ? kept.before : kept.newest) : null;
    await db.put('keys', { newest: key, before }, keyOf(exerciseId));
    return before;
  } catch {
    return null;
  }
}
