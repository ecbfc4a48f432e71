import type { Entry } from '../core/practice/types';
import { Account, isMine, presentAccount } from './account';
import { KeptWord, refusedWords, say, wordsUnder } from './words';
import { addressOf, requestOf } from './ask';

const pathOf = (token: string) => addressOf('POST /api/p/[token]/entries', { token });

/** Lines said lately, sent or not: a page that was made just before a line arrived, or is opened without a network, knows it all the same. */
const LATELY_KEY = 'wendel-log';
const LATELY_LINES = 200;
interface Said {
  account?: Account;
  line: Entry;
}

function lately(): Said[] {
  try {
    return JSON.parse(localStorage.getItem(LATELY_KEY) ?? '[]') as Said[];
  } catch {
    return [];
  }
}

function keepLately(said: readonly Said[]): void {
  try {
    localStorage.setItem(LATELY_KEY, JSON.stringify(said.slice(-LATELY_LINES)));
  } catch {
    // A browser that keeps nothing has what the server says.
  }
}

/** Say a line of a singer's log: each is a word of its own, so that one the server won't have holds up no other. */
export function sayLine(token: string, line: Entry): void {
  const path = pathOf(token);
  const day = line.day;
  // A day's lines rule that day: those of other days are the server's to tell.
  keepLately([...lately().filter((s) => s.line.day === day), { account: presentAccount(), line }]);
  say({ ...requestOf('POST /api/p/[token]/entries', { params: { token }, body: { entries: [line] } }), subject: `${path}#${line.id}` });
}

const linesOf = ({ body }: Pick<KeptWord, 'body'>): Entry[] => (body as { entries: Entry[] }).entries;

/** Lines that the server doesn't have yet, and those said lately that it may have, in the order said; none that it would not have. */
export function linesKept(token: string): Entry[] {
  const refused = new Set(refusedWords().flatMap((w) => (w.path === pathOf(token) ? linesOf(w).map((l) => l.id) : [])));
  const said = lately().flatMap((s) => (isMine(s) && s.account !== undefined && !refused.has(s.line.id) ? [s.line] : []));
  const waiting = wordsUnder(pathOf(token)).flatMap(linesOf);
  return [...said, ...waiting.filter((l) => !said.some((s) => s.id === l.id))];
}

/** Forget lines that were taken away. */
export const forgetLines = (word: Pick<KeptWord, 'body'>): void => {
  const gone = new Set(linesOf(word).map((l) => l.id));
  keepLately(lately().filter((s) => !gone.has(s.line.id)));
};
