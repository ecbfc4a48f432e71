import { texts } from '../../core/words/said';
import type { Fit } from '../../core/song/fit';
import type { Song } from '../../core/song/types';
import type { SongVoice } from '../../core/song/voice';

export interface ToFit {
  song: Song;
  voices: { singerId: string; voice: SongVoice }[];
}
export interface FitOfOne {
  singerId: string;
  fit: Fit;
}

const NOT_WORKED_OUT = texts('Whom it fits could not be worked out: open the page again.');

/** Work out whom a song fits, one singer after another, off the page's own thread. @returns how to give it up. */
export function fitAll(asked: ToFit, onFit: (one: FitOfOne) => void, onProblem: (problem: string) => void): () => void {
  const worker = new Worker(new URL('./fits.worker.ts', import.meta.url), { type: 'module' });
  worker.onmessage = ({ data }: MessageEvent<FitOfOne>) => onFit(data);
  worker.onerror = () => onProblem(NOT_WORKED_OUT);
  worker.postMessage(asked);
  return () => worker.terminate();
}
