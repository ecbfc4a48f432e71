import type { Level } from '../../core/song/risks';
import type { Fit } from '../../core/song/ways';
import type { Work } from '../../core/song/work';
import { texts } from '../../core/words/said';

export const LEVEL_WORDS: Record<Level, string> = texts({ safe: 'safe', 'some care': 'wants some care', risky: 'risky' });
export const FIT_WORDS: Record<Fit, string> = texts({ good: 'good here', 'with care': 'with care', no: 'not here' });
export const WORK_WORDS: Record<Work, string> = texts({
  straw: 'On a straw',
  ng: 'On ng',
  oo: 'On “oo”',
  vowels: 'On its vowels',
  words: 'On its words',
});
