import type { Step } from '../../core/plan/progress';
import { texts } from '../../core/words/said';

export const STEP_WORDS: Record<Step, string> = texts({
  advance: 'go on',
  hold: 'stay here',
  'step-back': 'one step back',
  stop: 'leave it for today',
  ask: 'hear it first',
  return: 'begin again gently',
  'another-way': 'try another way',
});
