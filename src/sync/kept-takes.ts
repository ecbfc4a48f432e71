// Takes kept in this browser (IndexedDB) from the first moment of recording until the server has them.
import type { Said } from '../core/words/said';
import { DBSchema, IDBPDatabase, openDB } from 'idb';
import type { CoachMark } from '../core/map/types';
import type { Asked, Colour, Task } from '../core/take/types';
import { encodeSamples, wavOf } from '../core/format/wav';
import { Account, isMine, presentAccount } from './account';

/** What a take is, apart from its sound. The id is its own for good: sending it twice stores it once. */
export interface TakeIdentity {
  id: string;
  singerId: string;
  /** For messages; the server has its own. */
  singerName: string;
  task: Task;
  vowel: string;
  colour: Colour | null;
  source: 'microphone' | 'file' | 'simulated';
  recordedAt: string;
  lessonId: string | null;
  step: string;
  asked: Asked | null;
  /** The song it is a take of, in which key; absent: none. */
  song?: { id: string; semitones: number } | null;
  /** The singer's own link it goes by; absent: the coach's side. */
  via?: string;
  /** A word spoken to the coach, of the line of the log with this id: it is no take, and nothing is heard in it. */
  spoken?: true;
  /** Heard on this device and forgotten: it is never kept, and never sent. */
  hereOnly?: boolean;
  /** Whose take it is; an earlier version kept it without. */
  account?: Account;
}

export interface KeptTake extends TakeIdentity {
  state: 'recording' | 'ready';
  sampleRate: number;
  /** Samples kept so far, in blocks of their own. */
  samples: number;
  /** The whole file, where it didn't come in blocks. */
  file?: ArrayBuffer;
  marks: CoachMark[];
  /** Why the server would not have it, in its own words: it isn't sent again by itself. */
  refused?: Said;
}

interface Kept extends DBSchema {
  takes: { key: string; value: KeptTake };
  blocks: { key: [string, number]; value: Float32Array };
}

let opened: Promise<IDBPDatabase<Kept>> | undefined;

function store(): Promise<IDBPDatabase<Kept>> {
  opened ??= openDB<Kept>('wendel-takes', 1, {
    upgrade(db) {
      db.createObjectStore('takes', { keyPath: 'id' });
      db.createObjectStore('blocks');
    },
    terminated() {
      opened = undefined;
    },
  });
  opened.catch(() => (opened = undefined));
  return opened;
}

/** Held as long as a take is being recorded: if nobody holds it the recording was cut off. */
export const recordingLock = (takeId: string) => `wendel-recording-${takeId}`;

export async function beginKept(take: TakeIdentity, sampleRate: number): Promise<void> {
  await (await store()).put('takes', { ...take, state: 'recording', sampleRate, samples: 0, marks: [] });
}

/** Add a block of samples to a take under way; the row and the block change together. */
export async function addBlock(takeId: string, number: number, block: Float32Array): Promise<void> {
  const tx = (await store()).transaction(['takes', 'blocks'], 'readwrite');
  const take = await tx.objectStore('takes').get(takeId);
  if (take) {
    void tx.objectStore('blocks').put(block, [takeId, number]);
    void tx.objectStore('takes').put({ ...take, samples: take.samples + block.length });
  }
  await tx.done;
}

/** Change what is said of a kept take; nothing happens when it is gone. */
export async function updateKept(takeId: string, change: Partial<KeptTake>): Promise<void> {
  const tx = (await store()).transaction('takes', 'readwrite');
  const take = await tx.store.get(takeId);
  if (take) void tx.store.put({ ...take, ...change });
  await tx.done;
}

/** Keep a take that is there as a whole. */
export async function keepFile(take: TakeIdentity, file: ArrayBuffer): Promise<void> {
  await (await store()).put('takes', { ...take, account: presentAccount(), state: 'ready', sampleRate: 0, samples: 0, file, marks: [] });
}

/** The present account's takes. What an earlier version kept for a singer's link is that link's. */
export async function keptTakes(): Promise<KeptTake[]> {
  return (await store()).getAll('takes').then((all) => all.filter((t) => isMine(bound(t))));
}

/** How many takes of other accounts are kept here. */
export async function othersTakes(): Promise<number> {
  return (await store()).getAll('takes').then((all) => all.filter((t) => !isMine(bound(t))).length);
}

const bound = ({ account, via }: TakeIdentity): { account?: Account } => ({ account: account ?? (via ? `link:${via}` : undefined) });

export async function forgetKept(takeId: string): Promise<void> {
  const tx = (await store()).transaction(['takes', 'blocks'], 'readwrite');
  void tx.objectStore('takes').delete(takeId);
  void tx.objectStore('blocks').delete(IDBKeyRange.bound([takeId, 0], [takeId, Infinity]));
  await tx.done;
}

/** The take's WAV file, put together from its blocks. */
export async function fileOf(take: KeptTake): Promise<ArrayBuffer> {
  if (take.file) return take.file;
  const blocks = await (await store()).getAll('blocks', IDBKeyRange.bound([take.id, 0], [take.id, Infinity]));
  const pieces = blocks.map((block) => encodeSamples(block, 24));
  return wavOf(pieces, take.sampleRate, 24).buffer;
}

/** Takes whose recording was begun and not ended: those that were cut off, and those that somebody is still at. */
export async function unended(): Promise<{ cutOff: KeptTake[]; underWay: KeptTake[] }> {
  const held = new Set((await navigator.locks.query()).held?.map((l) => l.name));
  const begun = (await keptTakes()).filter((t) => t.state === 'recording');
  const underWay = begun.filter((t) => held.has(recordingLock(t.id)));
  return { cutOff: begun.filter((t) => !underWay.includes(t)), underWay };
}

/**
 * Resolves when nobody is at the take any more. A page that is left lets go of its takes only when its worker has ended,
 * which may be after the next page has looked. Rejects when `signal` ends the wait.
 */
export async function letGo(takeId: string, signal: AbortSignal): Promise<void> {
  await navigator.locks.request(recordingLock(takeId), { mode: 'shared', signal }, () => {});
}
