// Sends kept takes to the server, again and again until it has them; then they are forgotten here.
import type { CoachMark } from '../core/map/types';
import { answerOf, expectYes, Refused } from './answer';
import { fileOf, forgetKept, KeptTake, keptTakes, TakeIdentity, updateKept } from './kept';
import { putFile } from './send';

/** What waits in this browser, and why, for whoever shows it. */
export interface OutboxState {
  waiting: number;
  /** In words; null while all is well. */
  trouble: string | null;
}

const FIRST_RETRY_MS = 1000;
const LONGEST_RETRY_MS = 20_000;

let state: OutboxState = { waiting: 0, trouble: null };
const watchers = new Set<() => void>();
const sent = new Set<(takeId: string) => void>();
let retry: ReturnType<typeof setTimeout> | undefined;
let pause = FIRST_RETRY_MS;

function tell(next: OutboxState) {
  state = next;
  watchers.forEach((w) => w());
}

export const outboxState = (): OutboxState => state;
export function watchOutbox(watcher: () => void): () => void {
  watchers.add(watcher);
  return () => watchers.delete(watcher);
}
/** Called with each take that has reached the server. */
export function onSent(listener: (takeId: string) => void): () => void {
  sent.add(listener);
  return () => sent.delete(listener);
}

/** Send one take and the marks made while it was recorded. Repeating is harmless: id and hash make it the same take. */
export async function sendTake(take: TakeIdentity, wav: ArrayBuffer, marks: CoachMark[]): Promise<void> {
  const { id, singerId, task, vowel, colour, source, recordedAt, lessonId, step, asked, via } = take;
  const takes = via ? `/api/p/${via}/takes` : '/api/takes';
  const query = new URLSearchParams({
    singerId,
    task,
    vowel,
    source,
    recordedAt,
    step,
    ...(colour ? { colour } : {}),
    ...(lessonId ? { lessonId } : {}),
    ...(asked ? { asked: JSON.stringify(asked) } : {}),
  });
  expectYes(await putFile({ path: `${takes}/${id}?${query}`, file: wav }));
  for (const { id: markId, ...mark } of marks)
    expectYes(
      await answerOf(`${takes}/${id}/marks/${markId}`, {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(mark),
      }),
    );
  await forgetKept(id).catch(() => {});
  sent.forEach((listener) => listener(id));
}

/** Send what is ready, oldest first, one browser tab at a time; on trouble try again later, soon at first. */
export async function flushOutbox(): Promise<void> {
  clearTimeout(retry);
  await navigator.locks.request('wendel-outbox', { ifAvailable: true }, async (lock) => {
    if (!lock) return;
    let trouble: string | null = null;
    for (const take of await ready()) {
      try {
        await sendTake(take, await fileOf(take), take.marks);
        pause = FIRST_RETRY_MS;
      } catch (error) {
        if (error instanceof Refused) await updateKept(take.id, { refused: error.message });
        else {
          trouble = (error as Error).message;
          break;
        }
      }
    }
    tell({ waiting: (await ready()).length, trouble });
  });
  if (state.waiting === 0) return;
  retry = setTimeout(() => void flushOutbox(), pause);
  pause = Math.min(LONGEST_RETRY_MS, 2 * pause);
}

const ready = async (): Promise<KeptTake[]> =>
  (await keptTakes()).filter((t) => t.state === 'ready' && !t.refused).sort((a, b) => a.recordedAt.localeCompare(b.recordedAt));
