/** What a server answered: its status and what it said when that is no yes; null when no answer came at all. */
export type FileAnswer = { status: number; error: string | null } | null;

/** Ask the server. */
export async function answerOf(path: string, init: RequestInit): Promise<FileAnswer> {
  let response: Response;
  try {
    response = await fetch(path, init);
  } catch {
    return null;
  }
  if (response.ok) return { status: response.status, error: null };
  const { error } = ((await response.json().catch(() => null)) ?? {}) as { error?: string };
  return { status: response.status, error: error ?? `The server answered ${response.status}.` };
}

/** The server answered, and not with yes; asking again is no use. */
export class Refused extends Error {}

/** @throws Error in words unless the server said yes: Refused where asking again is no use. */
export function expectYes(answer: FileAnswer): void {
  if (answer === null) throw new Error('The server can’t be reached.');
  const { status, error } = answer;
  if (error === null) return;
  if (status === 401) throw new Error('You are not signed in any more: sign in, in another tab of this browser.');
  // A server in trouble may do better later; a request it doesn't accept stays unaccepted.
  throw status >= 500 || status === 408 || status === 429 ? new Error(error) : new Refused(error);
}
