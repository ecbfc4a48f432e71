import type { CoachMark } from '../core/map/types';
import { accountHeader, answerOf, expectYes } from './answer';
import { addressOf } from './ask';
import { fileOf, forgetKept, KeptTake, keptTakes, TakeIdentity, updateKept } from './kept-takes';
import { lane } from './lane';
import { putFile } from './put-file';

const sent = new Set<(takeId: string) => void>();

/** Called with each take that has reached the server. */
export function onSent(listener: (takeId: string) => void): () => void {
  sent.add(listener);
  return () => sent.delete(listener);
}

const pathOf = ({ id, via, spoken }: TakeIdentity): string =>
  !via
    ? addressOf('PUT /api/takes/[takeId]', { takeId: id })
    : spoken
      ? addressOf('PUT /api/p/[token]/spoken/[entryId]', { token: via, entryId: id })
      : addressOf('PUT /api/p/[token]/takes/[takeId]', { token: via, takeId: id });

/** Send one take and the marks made while it was recorded. Repeating is harmless: id and hash make it the same take. */
export async function sendTake(take: TakeIdentity, wav: ArrayBuffer, marks: CoachMark[]): Promise<void> {
  const { id, singerId, task, vowel, colour, source, recordedAt, lessonId, step, asked, song } = take;
  const path = pathOf(take);
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
    ...(song ? { song: JSON.stringify(song) } : {}),
  });
  expectYes(await putFile({ path: `${path}?${query}`, file: wav, headers: accountHeader() }));
  for (const { id: markId, ...mark } of marks)
    expectYes(
      await answerOf(addressOf('PUT /api/takes/[takeId]/marks/[markId]', { takeId: id, markId }), {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(mark),
      }),
    );
  await forgetKept(id).catch(() => {});
  sent.forEach((listener) => listener(id));
}

const ready = async (): Promise<KeptTake[]> =>
  (await keptTakes()).filter((t) => t.state === 'ready' && !t.refused).sort((a, b) => a.recordedAt.localeCompare(b.recordedAt));

/** Sends kept takes to the server, oldest first; then they are forgotten here. */
export const takesLane = lane<KeptTake>({
  name: 'wendel-outbox',
  pending: ready,
  send: async (take) => sendTake(take, await fileOf(take), take.marks),
  refuse: (take, why) => updateKept(take.id, { refused: why }),
});
