import { clipOf } from '../../audio/clip';
import { singAside } from '../../audio/simulated';
import type { Trial } from '../../core/ears/types';

const RATE = 44100;
/** Quiet between the two of a pair. */
const GAP_S = 0.4;

/** The sound of a trial: one after another, as the simulated singer sings them. */
export async function soundOf({ sounds }: Trial): Promise<Blob> {
  const sung = await Promise.all(
    sounds.map(({ profile, task, seed }) => singAside({ profile, task, options: { seed, vowel: 'ah', sampleRate: RATE, snrDb: 50 } })),
  );
  const gap = Math.round(GAP_S * RATE);
  const all = new Float32Array(sung.reduce((n, { samples }) => n + samples.length + gap, 0));
  let at = 0;
  sung.forEach(({ samples }, i) => {
    const gain = 10 ** (sounds[i].gainDb / 20);
    for (let k = 0; k < samples.length; k++) all[at + k] = gain * samples[k];
    at += samples.length + gap;
  });
  return clipOf({ samples: all, sampleRate: RATE });
}
