import type { CrossingStyle, SingerProfile } from '../sim/profile';
import type { SimTask } from '../sim/score';

/** What an ear is asked: where a voice changes, what it does there, which register a note is in, which of two is louder. */
export const EAR_TASKS = ['place', 'name', 'register', 'louder'] as const;
export type EarTask = (typeof EAR_TASKS)[number];

/** One sound of a trial, for the simulated singer; `gainDb` louder or softer than it sings. */
export interface EarSound {
  profile: SingerProfile;
  task: SimTask;
  seed: number;
  gainDb: number;
}

export type EarChoice =
  | { kind: 'note'; midi: number }
  | { kind: 'style'; style: CrossingStyle }
  | { kind: 'register'; register: 'chest' | 'head' }
  | { kind: 'which'; which: 1 | 2 };

/** One question: what sounds, one after another, what can be answered, and which answer is right. */
export interface Trial {
  task: EarTask;
  /** 0 plain to 1 hard. */
  level: number;
  sounds: EarSound[];
  choices: EarChoice[];
  /** Index of the right one. */
  right: number;
  /** What makes it as hard as it is, in the task's own unit: semitones of the leap, share of head off the middle, dB. */
  size: number;
}

/** How an ear has done in one task. */
export interface EarRecord {
  /** Where the next trial lies, 0 plain to 1 hard. */
  level: number;
  answers: number;
  right: number;
  /** Levels at which the way turned from harder to easier or back, oldest first. */
  turns: number[];
  /** Whether the last answer was right; null before any. */
  last: boolean | null;
}
