import { said } from '../core/words/said';
import { SaidError } from '../core/words/said-error';
import type { SingerProfile } from '../core/sim/profile';
import type { SimTask } from '../core/sim/score';
import type { SingOptions } from '../core/sim/sing';
import { typicalProfile } from '../core/sim/typical';
import type { Pcm } from '../core/voice/types';

export interface SingRequest {
  profile: SingerProfile;
  task: SimTask;
  options: SingOptions;
}

/** Fetch what the simulated singer runs on, by a moment of song nobody hears: a page that may be without a network later needs it then. */
export const loadSinger = (): Promise<Pcm> =>
  singAside({
    profile: typicalProfile('tenor', 'blend'),
    task: { kind: 'sustain', midi: 55, seconds: 0.05 },
    options: { seed: 1, sampleRate: 8000 },
  });

/** What the simulated singer sings, made in a worker. */
export function singAside(request: SingRequest): Promise<Pcm> {
  const worker = new Worker(new URL('./sim.worker.ts', import.meta.url), { type: 'module' });
  return new Promise<Pcm>((resolve, reject) => {
    worker.onmessage = ({ data }: MessageEvent<Pcm>) => resolve(data);
    worker.onerror = (event) =>
      reject(
        new SaidError(said('The simulated singer fell silent ({why}): reload the page and try again.', { why: { own: event.message } })),
      );
    worker.postMessage(request);
  }).finally(() => worker.terminate());
}
