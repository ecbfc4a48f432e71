import { said, Said } from '../words/said';
import type { Exercise } from '../exercise/types';

export const ANSWERS = ['yes', 'no', 'rather-not'] as const;
export type Answer = (typeof ANSWERS)[number];

/** What an answer may hold back: exercises it keeps out, or everything until somebody else has spoken. */
export type Limit = 'nothing-yet' | 'no-range' | 'no-weight' | 'no-long-breath';

/** A question of the intake: what is asked, what a yes means for the work in one sentence, and at most one limit. */
export interface IntakeQuestion {
  id: string;
  asks: string;
  says: string;
  limit?: Limit;
}

/** Asked once, seen by coaches only (common practice, no source). Wendel advises; doctors, therapists and local rules decide. */
export const INTAKE_QUESTIONS: readonly IntakeQuestion[] = [
  {
    id: 'voice-operation',
    asks: 'An operation on the larynx or the neck, without word from the surgeon or therapist that singing is fine?',
    says: 'Nothing is sung until the surgeon or the voice therapist says so.',
    limit: 'nothing-yet',
  },
  {
    id: 'intubated',
    asks: 'A tube in the throat within the last three months?',
    says: 'A voice that changed after a tube in the throat should be looked at before it is trained.',
    limit: 'no-range',
  },
  {
    id: 'nodules',
    asks: 'Nodules, a bleeding or voice therapy before?',
    says: 'Keep the therapist’s advice at hand; add weight late, and stop early.',
    limit: 'no-weight',
  },
  {
    id: 'blood-thinners',
    asks: 'Medicine that thins the blood, or aspirin often?',
    says: 'Folds may bleed more easily: ask the doctor before heavy singing, and leave weight out until then.',
    limit: 'no-weight',
  },
  {
    id: 'testosterone',
    asks: 'Testosterone begun within the last year?',
    says: 'The voice is changing: comfortable notes only, and a listening each month.',
    limit: 'no-range',
  },
  {
    id: 'pregnant-late',
    asks: 'In the last months of a pregnancy?',
    says: 'No long breaths held, no lying down, shorter sets, a well-aired room.',
    limit: 'no-long-breath',
  },
  { id: 'reflux', asks: 'Reflux or heartburn?', says: 'Not within two hours after a meal, and a longer warm-up in the morning.' },
  {
    id: 'asthma',
    asks: 'Asthma, allergies, or an inhaler with a steroid?',
    says: 'A tickle is no reason to stop by itself; rinse after the inhaler, and drink.',
  },
  {
    id: 'thyroid',
    asks: 'Trouble with the thyroid?',
    says: 'A voice that tires or deepens without a reason belongs to the doctor who looks after it.',
  },
  {
    id: 'drying',
    asks: 'Medicine that dries the mouth, or hormones?',
    says: 'Water nearby, and more rests; a change of medicine may change the voice.',
  },
  {
    id: 'menopause',
    asks: 'Menopause?',
    says: 'The top may tire sooner and the low notes grow: a longer warm-up, and patience with days.',
  },
  { id: 'hearing', asks: 'Trouble hearing?', says: 'Give the key on the side that hears better, louder and longer.' },
  { id: 'smokes', asks: 'Smoking or vaping?', says: 'Hoarseness in a smoker is a doctor’s at once, not in four weeks.' },
  {
    id: 'voice-job',
    asks: 'Speaking all day at work (teaching, a call centre)?',
    says: 'The day’s speaking is load as well: short sets, and none after a long day.',
  },
];

export type IntakeAnswers = Partial<Record<string, Answer>>;

/** The questions that were answered with yes. */
export const saidYes = (answers: IntakeAnswers | undefined): readonly IntakeQuestion[] =>
  INTAKE_QUESTIONS.filter((q) => answers?.[q.id] === 'yes');

/** A note held longer than this holds the breath. */
const LONG_BREATH_BEATS = 6;

/** Why an exercise waits for an answer of the intake, in a sentence; null where none holds it back. */
export function heldByIntake(e: Pick<Exercise, 'strand' | 'weight' | 'steps'>, limits: readonly Limit[]): Said | null {
  const held =
    limits.includes('nothing-yet') ||
    (limits.includes('no-range') && e.strand === 'range' && e.weight >= 0) ||
    (limits.includes('no-weight') && e.weight > 0) ||
    (limits.includes('no-long-breath') && e.steps.some((s) => s.beats > LONG_BREATH_BEATS));
  return held ? said('What was told at intake holds it back: see the notes.') : null;
}
