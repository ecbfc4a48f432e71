// What the coach says of a thing, kept in this browser until the server has it: the last word on each thing, in the order said.
import { answerOf, expectYes, Refused } from '../../audio/answer';
import type { OutboxState } from '../../audio/outbox';

export interface Word {
  method: 'PUT' | 'PATCH' | 'DELETE';
  /** The thing it is about: a later word on it takes the place of an earlier one. */
  path: string;
  body?: unknown;
}
type Kept = Word & { id: string };

const KEY = 'wendel-words';
const HEARD_KEY = 'wendel-words-heard';
/** A page that is being made while a word arrives takes no longer than this. */
const IN_THE_MAKING_MS = 10_000;
const FIRST_RETRY_MS = 1000;
const LONGEST_RETRY_MS = 20_000;

/** Stands in where the browser keeps nothing. */
let held: string | null = null;
let state: OutboxState = { waiting: 0, trouble: null };
let timer: ReturnType<typeof setTimeout> | undefined;
let pause = FIRST_RETRY_MS;
const watchers = new Set<() => void>();
const heard = new Set<(word: Word, refused: string | null) => void>();

function kept(): Kept[] {
  try {
    return JSON.parse(held ?? localStorage.getItem(KEY) ?? '[]') as Kept[];
  } catch {
    return [];
  }
}

function keep(words: Kept[], heardAt = 0): void {
  held = null;
  const text = JSON.stringify(words);
  try {
    localStorage.setItem(KEY, text);
    if (heardAt) localStorage.setItem(HEARD_KEY, String(heardAt));
  } catch {
    held = text;
  }
}

/** Whether a word arrived so lately, from the page before this one, that this page may have been made without it. */
export const heardLately = (): boolean => Date.now() - Number(localStorage.getItem(HEARD_KEY)) < IN_THE_MAKING_MS;

export const wordsState = (): OutboxState => state;
export function watchWords(watcher: () => void): () => void {
  watchers.add(watcher);
  return () => watchers.delete(watcher);
}
/** Called with each word that the server answered: why it will not have it, or null. */
export function onHeard(listener: (word: Word, refused: string | null) => void): () => void {
  heard.add(listener);
  return () => heard.delete(listener);
}

/** What was said under a path and isn't with the server yet, e.g. before this page was opened. */
export const wordsUnder = (path: string): Word[] => kept().filter((w) => w.path.startsWith(path));

/** Say a word: kept here at once, sent when the hand has rested for `restMs`. */
export function say(word: Word, restMs = 0): void {
  keep([...kept().filter((w) => w.path !== word.path), { ...word, id: crypto.randomUUID() }]);
  clearTimeout(timer);
  timer = setTimeout(() => void sendWords(), restMs);
}

/** Send what waits, one after another and one browser tab at a time; on trouble try again later, soon at first. */
export async function sendWords(): Promise<void> {
  clearTimeout(timer);
  await navigator.locks.request('wendel-words', async () => {
    let trouble: string | null = null;
    for (let word = kept()[0]; word; word = kept()[0]) {
      const { id, method, path, body } = word;
      let refused: string | null = null;
      try {
        expectYes(await answerOf(path, { method, headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }));
      } catch (error) {
        if (error instanceof Refused) refused = error.message;
        else {
          trouble = (error as Error).message;
          break;
        }
      }
      pause = FIRST_RETRY_MS;
      keep(
        kept().filter((w) => w.id !== id),
        Date.now(),
      );
      heard.forEach((listener) => listener(word, refused));
    }
    state = { waiting: kept().length, trouble };
    watchers.forEach((w) => w());
  });
  if (state.waiting === 0) return;
  clearTimeout(timer);
  timer = setTimeout(() => void sendWords(), pause);
  pause = Math.min(LONGEST_RETRY_MS, 2 * pause);
}
