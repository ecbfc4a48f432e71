import { Sign, Today } from '../plan/safety';

/** Asked before the first exercise of a day. */
export interface Before extends Today {
  kind: 'before';
  tired: boolean;
}

/** One exercise practised, measured or not. */
export interface Done {
  kind: 'item';
  exerciseId: string;
  /** As it was called when it was sung. */
  name: string;
  sound: string;
  tempo: number;
  /** Tonics gone through, in order. */
  keys: number[];
  /** From begin to end, seconds. */
  seconds: number;
  /** What was heard of it: seconds voiced and oscillations of the folds; null when nobody listened. */
  load: Load | null;
  /** Whether it went as meant, by the exercise's own measure; null: not measured. */
  success: boolean | null;
  /** 0 none to 10 the most there is; null: not told. */
  effort: number | null;
  signs: Sign[];
  /** Told afterwards, practised without the page. */
  byHand: boolean;
}

/** Voice load: time dose in seconds, cycle dose in oscillations. */
export interface Load {
  voicedS: number;
  cycles: number;
}

/** A line of a singer's log. Ids are made where it is written, so that a line sent twice is one. */
export interface Entry {
  id: string;
  assignmentId: string | null;
  /** The singer's own day, "2026-11-25", and the moment (ISO 8601). */
  day: string;
  at: string;
  what: Before | Done;
}

export const isDone = (e: Entry): e is Entry & { what: Done } => e.what.kind === 'item';
