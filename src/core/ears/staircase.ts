import { median } from '../signal/stats';
import type { EarRecord } from './types';

/** Four right in five: hard enough to learn by, easy enough to go on (common practice of training; the aim of the staircase below). */
export const AIM = 0.8;
/** A right answer makes the next so much harder at first, and at last. */
const FIRST_STEP = 0.08;
const LAST_STEP = 0.02;
/** The step shrinks by this with each turn. */
const SHRINKS = 0.8;
/** Turns that are told from: the first ones are still on the way. */
const FIRST_TOLD = 3;
const LEAST_TURNS = 6;

export const NO_ANSWERS: EarRecord = { level: 0.15, answers: 0, right: 0, turns: [], last: null };

/**
 * The record after an answer: weighted up and down, so that it settles where `AIM` of the answers are right: a wrong answer goes back
 * by AIM / (1 - AIM) times what a right one goes on (Kaernbach 1991, "Simple adaptive testing with the weighted up-down method").
 */
export function answered({ level, answers, right, turns, last }: EarRecord, isRight: boolean): EarRecord {
  const step = Math.max(LAST_STEP, FIRST_STEP * SHRINKS ** turns.length);
  const next = isRight ? level + step : level - (step * AIM) / (1 - AIM);
  const turned = last !== null && last !== isRight;
  return {
    level: Math.min(1, Math.max(0, next)),
    answers: answers + 1,
    right: right + (isRight ? 1 : 0),
    turns: turned ? [...turns, level] : turns,
    last: isRight,
  };
}

/** The level at which this ear is right four times in five: the median of the turns once the way has settled; null before that. */
export const thresholdOf = ({ turns }: EarRecord): number | null =>
  turns.length < LEAST_TURNS ? null : median(turns.slice(FIRST_TOLD + ((turns.length - FIRST_TOLD) % 2)));
