// What is said of a thing (a mark, a plan, a note, where a lesson stands, a line of practice), kept in this browser until the server has
// it: the last word on each thing, in the order said. In localStorage, which is read at once: a page that is opened again shows it.
import type { Said } from '../core/words/said';
import { Account, isMine, presentAccount } from './account';
import { answerOf, expectYes } from './answer';
import { lane } from './lane';

export interface Word {
  method: 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  path: string;
  body?: unknown;
  /** The thing it is about, where that isn't the path: a later word on it takes the place of an earlier one. */
  subject?: string;
  /** The page that says it knows already: nothing is drawn anew when it has arrived. */
  quiet?: boolean;
}
export interface KeptWord extends Word {
  id: string;
  account?: Account;
  /** Why the server would not have it: it is shown, and not sent again by itself. */
  refused?: Said;
}

const KEY = 'wendel-words';
const HEARD_KEY = 'wendel-words-heard';
/** A page that is being made while a word arrives takes no longer than this. */
const IN_THE_MAKING_MS = 10_000;

/** Stands in where the browser keeps nothing. */
let held: string | null = null;
const heard = new Set<(word: Word, refused: Said | null) => void>();

function all(): KeptWord[] {
  try {
    return JSON.parse(held ?? localStorage.getItem(KEY) ?? '[]') as KeptWord[];
  } catch {
    return [];
  }
}

function keep(words: KeptWord[], heardAt = 0): void {
  held = null;
  const text = JSON.stringify(words);
  try {
    localStorage.setItem(KEY, text);
    if (heardAt) localStorage.setItem(HEARD_KEY, String(heardAt));
  } catch {
    held = text;
  }
}

const subjectOf = ({ subject, path }: Word): string => subject ?? path;
const pending = (): KeptWord[] => all().filter((w) => isMine(w) && !w.refused);
const change = (id: string, to: Partial<KeptWord>): void => keep(all().map((w) => (w.id === id ? { ...w, ...to } : w)));

/** Whether a word arrived so lately, from the page before this one, that this page may have been made without it. */
export const heardLately = (): boolean => Date.now() - Number(localStorage.getItem(HEARD_KEY)) < IN_THE_MAKING_MS;

/** Called with each word that the server answered: why it will not have it, or null. */
export function onHeard(listener: (word: Word, refused: Said | null) => void): () => void {
  heard.add(listener);
  return () => heard.delete(listener);
}
const tell = (word: Word, refused: Said | null) => heard.forEach((listener) => listener(word, refused));

/** What the present account said under a path and isn't with the server yet, e.g. before this page was opened. */
export const wordsUnder = (path: string): KeptWord[] => pending().filter((w) => w.path.startsWith(path));

/** What the present account said and the server would not have. */
export const refusedWords = (): KeptWord[] => all().filter((w) => isMine(w) && w.refused);

/** How many words of other accounts wait here. */
export const othersWords = (): number => all().filter((w) => !isMine(w)).length;

export const wordsLane = lane<KeptWord>({
  name: 'wendel-words',
  pending,
  async send(word) {
    const { id, method, path, body, quiet } = word;
    expectYes(await answerOf(path, { method, headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }));
    keep(
      all().filter((w) => w.id !== id),
      quiet ? 0 : Date.now(),
    );
    tell(word, null);
  },
  refuse(word, why) {
    change(word.id, { refused: why });
    tell(word, why);
  },
});

/** Say a word: kept here at once, sent when the hand has rested for `restMs`. */
export function say(word: Word, restMs = 0): void {
  const others = all().filter((w) => !(isMine(w) && subjectOf(w) === subjectOf(word)));
  keep([...others, { ...word, id: crypto.randomUUID(), account: presentAccount() }]);
  wordsLane.flushIn(restMs);
}

/** Send once more what was refused. */
export function sayAgain(id: string): void {
  change(id, { refused: undefined });
  wordsLane.flushIn(0);
}

/** Take back a word that was refused. */
export const takeBack = (id: string): void => keep(all().filter((w) => w.id !== id));
