// Mixes a follow-along and encodes it as WAV, off the page's own thread.
import { mix } from '../core/exercise/mix';
import { encodeSamples, wavOf } from '../core/format/wav';
import type { ToMix } from './mixdown';

onmessage = ({ data: { follow, instrument, rate } }: MessageEvent<ToMix>) => {
  const pieces = [...mix(follow, instrument, rate)].map((block) => encodeSamples(block, 16));
  const wav = wavOf(pieces, rate, 16);
  postMessage(wav.buffer, { transfer: [wav.buffer] });
};
