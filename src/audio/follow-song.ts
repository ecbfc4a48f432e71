import type { Heard, heardIn } from '../core/song/outcome';
import { SaidError } from '../core/words/said-error';

export type ToFollow = Parameters<typeof heardIn>;

let worker: Worker | undefined;

/** Have what follows a song ready, so that it works without a network later. */
export const prepareToFollow = (): Worker => (worker ??= new Worker(new URL('./follow.worker.ts', import.meta.url), { type: 'module' }));

/** What is heard in a take of a song; one at a time. @throws Error in words when this device can't. */
export function followOnDevice(...asked: ToFollow): Promise<Heard> {
  const follower = prepareToFollow();
  return new Promise<Heard>((resolve, reject) => {
    follower.onmessage = ({ data }: MessageEvent<Heard>) => resolve(data);
    follower.onerror = () => {
      follower.terminate();
      worker = undefined;
      reject(new SaidError('What was sung could not be laid over the song on this device.'));
    };
    follower.postMessage(asked);
  });
}
