import type { Step } from '../../core/plan/progress';

export const STEP_WORDS: Record<Step, string> = {
  advance: 'go on',
  hold: 'stay here',
  'step-back': 'one step back',
  stop: 'leave it for now',
};
