import { said, Said } from '../core/words/said';
import { SaidError } from '../core/words/said-error';
import { presentAccount } from './account';

/** What a server answered: its status and what it said when that is no yes; null when no answer came at all. */
export type FileAnswer = { status: number; error: Said | null } | null;

/** As whom something is sent: the server refuses it when somebody else has signed in meanwhile. */
export const accountHeader = (): Record<string, string> => {
  const account = presentAccount();
  return account?.startsWith('coach:') ? { 'x-wendel-account': account.slice('coach:'.length) } : {};
};

/** Ask the server. */
export async function answerOf(path: string, init: RequestInit): Promise<FileAnswer> {
  let response: Response;
  try {
    response = await fetch(path, { ...init, headers: { ...accountHeader(), ...init.headers } });
  } catch {
    return null;
  }
  // Read to its end either way: an answer that isn't keeps its connection, of which a browser has six.
  const { error } = ((await response.json().catch(() => null)) ?? {}) as { error?: string };
  if (response.ok) return { status: response.status, error: null };
  return { status: response.status, error: error ?? said('The server answered {status}.', { status: response.status }) };
}

/** The server answered, and not with yes; asking again is no use. */
export class Refused extends SaidError {}

/** Nothing would be taken now, whatever it is: no network, nobody signed in, the database away, asked too often. */
export class Away extends SaidError {}

/** @throws SaidError unless the server said yes: Refused where asking again is no use, Away where asking anything is none now. */
export function expectYes(answer: FileAnswer): void {
  if (answer === null) throw new Away('The server can’t be reached.');
  const { status, error } = answer;
  if (error === null) return;
  if (status === 401) throw new Away('You are not signed in any more: sign in, in another tab of this browser.');
  if (status === 503 || status === 429) throw new Away(error);
  // A server in trouble may do better later; a request it doesn't accept stays unaccepted.
  throw status >= 500 || status === 408 ? new SaidError(error) : new Refused(error);
}
