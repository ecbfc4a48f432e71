import type { Manner } from '../../core/exercise/model';
import { texts } from '../../core/words/said';

export const MANNER_WORDS: Record<Manner, string> = texts({ 'like-this': 'Like this', 'not-like-this': 'Not like this' });
