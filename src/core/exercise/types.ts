import { FindingName } from '../map/types';

/** One note of a pattern. `slide` joins it to the next by an unbroken glide. */
export interface Step {
  /** Major-scale degree of the key, 1 up. */
  degree: number;
  /** Length in crotchets. */
  beats: number;
  slide?: boolean;
}

export const FAMILIES = ['scale', 'siren', 'straw', 'toggle', 'hold'] as const;
export type Family = (typeof FAMILIES)[number];

/** A place in the singer's own map that keys are counted from. */
export type Anchor = 'low' | 'high' | 'change';

/** Which note of the pattern is put where: `edge` of the pattern at `anchor` plus `semitones`. */
export interface KeyPlace {
  edge: 'bottom' | 'top';
  anchor: Anchor;
  semitones: number;
}

export interface Exercise {
  id: string;
  name: string;
  family: Family;
  steps: Step[];
  /** Crotchets a minute: slowest, usual, fastest. */
  tempo: [number, number, number];
  /** What to sing it on, easiest first. */
  sounds: string[];
  /** Rung on the difficulty ladder, 1 easy to 6. */
  grade: number;
  /** -1 takes weight off, +1 adds weight. */
  weight: -1 | 0 | 1;
  /** Keys walk from the first place to the second by semitone; of those that fit the voice the last `most` are sung. */
  keys: { from: KeyPlace; to: KeyPlace; most?: number };
  role: 'warm-up' | 'straw' | 'work' | 'test';
  suits: FindingName[];
  avoid: FindingName[];
  /** Exercises that should be easy before this one. */
  after: string[];
  minutes: number;
  timesADay: number;
  /** What the singer does, in words a singer understands. */
  how: string;
  /** What it is for: completes "because ...". */
  purpose: string;
  caution: string;
}
