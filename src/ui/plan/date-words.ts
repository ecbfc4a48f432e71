import type { DateKind, RoadDate } from '../../core/plan/dates';
import { type SaidValue, texts } from '../../core/words/said';

export const KIND_WORDS: Record<DateKind, string> = texts({
  recital: 'Recital',
  show: 'Show',
  audition: 'Audition',
  exam: 'Exam',
  tour: 'Tour',
  holiday: 'Holiday',
  rehearsals: 'Rehearsals',
});

/** What a date is called: its own name, else what it is. */
export const dateName = ({ name, kind }: Pick<RoadDate, 'name' | 'kind'>): SaidValue => (name ? { own: name } : KIND_WORDS[kind]);
