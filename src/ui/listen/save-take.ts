import type { Recording } from '../../audio/input';
import type { Colour, TakeFindings, Task, Trace } from '../../core/take/types';
import { request } from '../kit/request';

/** A recording with the identity it keeps for good: sending it twice stores it once. */
export interface PendingTake {
  id: string;
  singerId: string;
  task: Task;
  vowel: string;
  colour: Colour | null;
  source: 'microphone' | 'file' | 'simulated';
  recordedAt: string;
  recording: Recording;
}

export interface StoredTake {
  take: { id: string; durationS: number };
  analysis: { findings: TakeFindings | null; trace: Trace | null; error: string | null } | null;
}

const GIVE_UP_MS = 120_000;

export async function uploadTake({ recording, ...take }: PendingTake): Promise<void> {
  const digest = await crypto.subtle.digest('SHA-256', recording.wav);
  const sha256 = Array.from(new Uint8Array(digest), (b) => b.toString(16).padStart(2, '0')).join('');
  const query = new URLSearchParams({
    singerId: take.singerId,
    task: take.task,
    vowel: take.vowel,
    ...(take.colour ? { colour: take.colour } : {}),
    source: take.source,
    recordedAt: take.recordedAt,
    sha256,
  });
  await request(`/api/takes/${take.id}?${query}`, { method: 'PUT', headers: { 'content-type': 'audio/wav' }, body: recording.wav });
}

/** The analysis of a stored take: the server answers when it is there, or every few seconds that it isn't yet. */
export async function analysed(takeId: string): Promise<StoredTake> {
  for (const until = Date.now() + GIVE_UP_MS; Date.now() < until;) {
    const stored = await request<StoredTake>(`/api/takes/${takeId}?wait`);
    if (stored.analysis) return stored;
  }
  throw new Error('The take is stored, but its analysis is taking long: it will appear on the map when it is done.');
}

export const discardTake = (takeId: string): Promise<void> => request(`/api/takes/${takeId}`, { method: 'DELETE' });
