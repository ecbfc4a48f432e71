import type { HeardTake } from '../../audio/take-messages';
import type { TakeAnswer } from '../../contract/answers';
import { ask } from '../../sync/ask';
import { SaidError } from '../../core/words/said-error';

/** A stored take with what was heard in it, by the server or already here. */
export type StoredTake = Pick<TakeAnswer, 'take'> & { analysis: HeardTake | null };

const GIVE_UP_MS = 120_000;

/** The analysis of a stored take: the server answers when it is there, or every few seconds that it isn't yet. */
export async function analysed(takeId: string): Promise<StoredTake> {
  for (const until = Date.now() + GIVE_UP_MS; Date.now() < until;) {
    const stored = await ask('GET /api/takes/[takeId]', { params: { takeId }, query: { wait: '' } });
    if (stored.analysis) return stored;
  }
  throw new SaidError('The take is stored, but its analysis is taking long: it will appear on the map when it is done.');
}

export const discardTake = (takeId: string): Promise<void> => ask('DELETE /api/takes/[takeId]', { params: { takeId } });
