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
