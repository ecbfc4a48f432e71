import { fitOf } from '../../core/song/fit';
import type { FitOfOne, ToFit } from './fits';

/** Lays a song on one voice after another: for a choir it takes seconds. */
self.onmessage = ({ data: { song, voices } }: MessageEvent<ToFit>) => {
  for (const { singerId, voice } of voices) self.postMessage({ singerId, fit: fitOf(song, voice) } satisfies FitOfOne);
};
