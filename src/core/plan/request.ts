import type { RoadDate } from './dates';
import { Phase, PlanRequest } from './types';

/** Practice a day where nothing else is agreed, minutes: "beginners 15 to 20 minutes a day" (common practice, no source). */
export const USUAL_MINUTES = 20;

/** What is agreed with a singer about practice, and what the coach has confirmed. */
export type Terms = Pick<PlanRequest, 'minutesADay' | 'materials' | 'straws' | 'phase' | 'phaseId' | 'grades'> & {
  /** What practice has to bend to; missing in older ones. */
  dates?: RoadDate[];
  /** Minutes a week that may be belted; missing: no limit was set. */
  beltMinutes?: number;
  /** How many weeks a phase lasts where the coach has said so, by its id; missing in older ones. */
  phaseWeeks?: Record<string, number>;
  /** A trial of one that is under way, by its id and first day (core/practice/trial.ts). */
  trial?: { id: string; begun: string };
};

/** Twenty minutes a day, a straw and a glass of water, the first phase, nothing confirmed yet. */
export const USUAL_TERMS: Terms = { minutesADay: USUAL_MINUTES, materials: ['straw', 'water'], straws: [], phase: 0, grades: {} };

/** A request with what is usual where nothing is given. */
export const usualRequest = (given: Pick<PlanRequest, 'map' | 'voiceType' | 'school' | 'shelf'> & Partial<PlanRequest>): PlanRequest => ({
  ...USUAL_TERMS,
  minor: false,
  today: null,
  ...given,
});

/** Terms in which the singer is in one of the phases, named by its id, so that it stays the same when the map changes. */
export const inPhase = (terms: Terms, phases: readonly Pick<Phase, 'id'>[], phase: number): Terms => ({
  ...terms,
  phase,
  phaseId: phases[phase].id,
});
