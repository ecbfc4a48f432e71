import type { Grades } from '../plan/types';

/** Where a singer stood in the plan when a week was assigned. */
export interface Stand {
  /** The phase's name, as the school calls it. */
  phase: string;
  grades: Grades;
}

/** A stretch of weeks in one phase of the plan. */
export interface Chapter {
  phase: string;
  /** The first days of its first and of its last week. */
  from: string;
  to: string;
  weeks: number;
  /** The grades in its last week. */
  grades: Grades;
}

/** The chapters of a singer's work, first to last, from the weeks that were assigned (in any order; older ones have no stand). */
export function chaptersOf(assigned: readonly { startsOn: string; stand: Stand | null }[]): Chapter[] {
  const chapters: Chapter[] = [];
  const weeks = assigned.flatMap(({ startsOn, stand }) => (stand ? [{ startsOn, ...stand }] : []));
  for (const { startsOn, phase, grades } of weeks.sort((a, b) => a.startsOn.localeCompare(b.startsOn))) {
    const last = chapters[chapters.length - 1];
    if (last?.phase !== phase) chapters.push({ phase, from: startsOn, to: startsOn, weeks: 1, grades });
    else {
      // A week that was assigned twice is one week.
      if (last.to !== startsOn) last.weeks++;
      last.to = startsOn;
      last.grades = grades;
    }
  }
  return chapters;
}
