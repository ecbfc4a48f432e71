import type { Entry } from '../core/practice/types';
import { say, wordsUnder } from './words';

const pathOf = (token: string) => `/api/p/${token}/entries`;

/** Say a line of a singer's log: each is a word of its own, so that one the server won't have holds up no other. */
export function sayLine(token: string, line: Entry): void {
  const path = pathOf(token);
  say({ method: 'POST', path, subject: `${path}#${line.id}`, body: { entries: [line] } });
}

/** Lines that the server doesn't have yet, in the order said. */
export const linesWaiting = (token: string): Entry[] =>
  wordsUnder(pathOf(token)).flatMap(({ body }) => (body as { entries: Entry[] }).entries);
