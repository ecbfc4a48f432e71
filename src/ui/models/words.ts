import type { Manner } from '../../core/exercise/model';

export const MANNER_WORDS: Record<Manner, string> = { 'like-this': 'Like this', 'not-like-this': 'Not like this' };
