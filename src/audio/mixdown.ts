import type { FollowAlong } from '../core/exercise/follow-along';
import type { InstrumentSample } from '../core/exercise/mix';
import { decodedPiano, NO_PIANO, PIANO_RATE } from './piano-samples';
import { SaidError } from '../core/words/said-error';

export interface ToMix {
  follow: Pick<FollowAlong, 'notes' | 'totalS'>;
  instrument: InstrumentSample[];
  rate: number;
}

/** A follow-along as a WAV file (mono, 16 bits). @throws Error in words. */
export async function mixdown(follow: FollowAlong): Promise<Blob> {
  let instrument: InstrumentSample[];
  try {
    instrument = (await decodedPiano()).map(({ midi, buffer }) => ({ midi, samples: buffer.getChannelData(0) }));
  } catch {
    throw new SaidError(NO_PIANO);
  }
  const worker = new Worker(new URL('./mix.worker.ts', import.meta.url), { type: 'module' });
  try {
    const wav = await new Promise<ArrayBuffer>((resolve, reject) => {
      worker.onmessage = ({ data }: MessageEvent<ArrayBuffer>) => resolve(data);
      worker.onerror = () =>
        reject(new SaidError('The sound file could not be made: there may be too little memory. Make it of fewer exercises.'));
      worker.postMessage({ follow: { notes: follow.notes, totalS: follow.totalS }, instrument, rate: PIANO_RATE } satisfies ToMix);
    });
    return new Blob([wav], { type: 'audio/wav' });
  } finally {
    worker.terminate();
  }
}
