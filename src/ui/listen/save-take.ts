import type { Recording } from '../../audio/input';
import type { TakeFindings, Task, Trace } from '../../core/take/types';
import { request } from '../kit/request';

/** A recording with the identity it keeps for good: sending it twice stores it once. */
export interface PendingTake {
  id: string;
  singerId: string;
  task: Task;
  vowel: string;
  source: 'microphone' | 'file' | 'simulated';
  recordedAt: string;
  recording: Recording;
}

export interface StoredTake {
  take: { id: string; durationS: number };
  analysis: { findings: TakeFindings | null; trace: Trace | null; error: string | null } | null;
}

const FIRST_WAIT_MS = 60;
const LONGEST_WAIT_MS = 1000;
const GIVE_UP_MS = 120_000;

export async function uploadTake({ recording, ...take }: PendingTake): Promise<void> {
  const digest = await crypto.subtle.digest('SHA-256', recording.wav);
  const sha256 = Array.from(new Uint8Array(digest), (b) => b.toString(16).padStart(2, '0')).join('');
  const query = new URLSearchParams({
    singerId: take.singerId,
    task: take.task,
    vowel: take.vowel,
    source: take.source,
    recordedAt: take.recordedAt,
    sha256,
  });
  await request(`/api/takes/${take.id}?${query}`, { method: 'PUT', headers: { 'content-type': 'audio/wav' }, body: recording.wav });
}

/** Wait for the analysis of a stored take, looking often at first. */
export async function analysed(takeId: string, signal: AbortSignal): Promise<StoredTake> {
  const until = Date.now() + GIVE_UP_MS;
  for (let wait = FIRST_WAIT_MS; Date.now() < until; wait = Math.min(LONGEST_WAIT_MS, wait * 1.15)) {
    const stored = await request<StoredTake>(`/api/takes/${takeId}`, { signal });
    if (stored.analysis) return stored;
    await new Promise((resolve) => setTimeout(resolve, wait));
  }
  throw new Error('The take is stored, but its analysis is taking long: it will appear on the map when it is done.');
}

export const discardTake = (takeId: string): Promise<void> => request(`/api/takes/${takeId}`, { method: 'DELETE' });
