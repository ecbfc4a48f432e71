import type { SingerProfile } from '../../core/sim/profile';
import type { SimTask } from '../../core/sim/score';
import { sing } from '../../core/sim/sing';
import type { Vowel } from '../../core/sim/tract';
import type { Pcm } from '../../core/voice/types';
import { klattPerformance } from './klatt';
import { RATE } from './makers';
import { praatIsThere } from './praat';
import { peopleSpeak, speakersPerformance } from './speakers';

/** What a simulated singer is heard with: quiet, as at a desk. */
const QUIET_DB = 55;

/** One who performs what a simulated singer would: by name, whether its program is on this machine, and its sound; alike `singer`, alike voice; on "ah" unless asked for another vowel. */
export interface Performer {
  name: string;
  there: boolean;
  performs(profile: SingerProfile, task: SimTask, seed: number, singer: number, vowel?: Vowel): Pcm;
}

/** Our own simulated singer, and two makers of voices that aren't ours. */
export const PERFORMERS: readonly Performer[] = [
  {
    name: 'the simulated singer',
    there: true,
    performs: (profile, task, seed, _, vowel = 'ah') => sing(profile, task, { seed, vowel, snrDb: QUIET_DB, sampleRate: RATE }).pcm,
  },
  {
    name: 'Praat’s synthesiser',
    there: praatIsThere,
    performs: (profile, task, seed, voiceSeed, vowel = 'ah') => klattPerformance(profile, task, { seed, vowel, voiceSeed }),
  },
  {
    name: 'the pulses of people who were recorded',
    there: peopleSpeak,
    performs: (profile, task, seed, voiceSeed, vowel = 'ah') => speakersPerformance(profile, task, { seed, vowel, voiceSeed }),
  },
];
