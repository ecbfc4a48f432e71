import { sing } from '../sim/sing';
import type { Pcm } from '../voice/types';
import type { Trial } from './types';

/** For tests: the sounds of a trial one by one, as the ear room plays them. */
export const soundsOf = (trial: Trial): Pcm[] =>
  trial.sounds.map(({ profile, task, seed, gainDb }) => {
    const { pcm } = sing(profile, task, { seed, vowel: 'ah', sampleRate: 22050, snrDb: 50 });
    return { ...pcm, samples: pcm.samples.map((x) => x * 10 ** (gainDb / 20)) };
  });
