import type { Verdict } from '../../core/judge/types';
import { texts } from '../../core/words/said';

/** A verdict, before its reason. */
export const VERDICT_WORDS: Record<Verdict, string> = texts({
  yes: 'It went as meant.',
  'not yet': 'Not yet as meant:',
  'not told': 'It can’t be told:',
});

/** A verdict by itself. */
export const VERDICT_NAMES: Record<Verdict, string> = texts({ yes: 'yes', 'not yet': 'not yet', 'not told': 'not told' });

/** A verdict as one sign, beside words or a label that say it. */
export const VERDICT_SIGNS: Record<Verdict, string> = { yes: '●', 'not yet': '○', 'not told': '–' };
