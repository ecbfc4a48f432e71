import { accountHeader } from '../../sync/answer';

/** Ask the server; its JSON answer. @throws Error with the server's own words, or what to do when it can't be reached. */
export async function request<T>(path: string, init?: RequestInit): Promise<T> {
  let response: Response;
  try {
    response = await fetch(path, { ...init, headers: { ...accountHeader(), ...init?.headers } });
  } catch {
    throw new Error('The server can’t be reached. Nothing here is lost: check that Wendel is running, then try again.');
  }
  const body = await response.json().catch(() => undefined);
  if (!response.ok) throw new Error(body?.error ?? `The server answered ${response.status}: try again.`);
  return body as T;
}

export const sendJson = <T>(method: 'POST' | 'PUT', path: string, body: unknown): Promise<T> =>
  request(path, { method, headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) });
