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
  // A server in trouble may do better later, and a coach may sign in again; a request it doesn't accept stays unaccepted.
  throw status >= 500 || [401, 408, 429].includes(status) ? new Error(error) : new Refused(error);
}
