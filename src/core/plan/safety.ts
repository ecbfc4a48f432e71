/** What was said about health before singing. */
export interface Today {
  hoarse: boolean;
  ill: boolean;
  pain: boolean;
}

/** What may be told after an item. */
export const SIGNS = ['scratch', 'tickle', 'tight', 'rasp', 'hoarse', 'soft-gone', 'pain', 'dizzy', 'effort'] as const;
export type Sign = (typeof SIGNS)[number];

export const MOST_EFFORT = 4;

export type SafetyAction = 'leave-range' | 'rest-today' | 'stop-item' | 'see-doctor' | 'gentler';

/** One rule of safety: what brings it on, what it does, and its words. Wendel advises; doctors and local rules decide. */
export interface SafetyRule {
  id: string;
  when: { today?: keyof Today; sign?: Sign; minor?: true; hoarseWeeks?: number; alarm?: true };
  does: SafetyAction;
  says: string;
  source: string;
}

const CP = 'common practice, no source';
const HOARSENESS = 'AAO-HNSF Clinical Practice Guideline: Hoarseness (Dysphonia), update 2018, from memory';

export const SAFETY: readonly SafetyRule[] = [
  {
    id: 'pain-today',
    when: { today: 'pain' },
    does: 'rest-today',
    says: 'It hurts: nothing is sung today. Rest the voice, and speak little. If it hurts again, or to speak or swallow, a doctor should look at it.',
    source: CP,
  },
  {
    id: 'hoarse-today',
    when: { today: 'hoarse' },
    does: 'leave-range',
    says: 'Hoarse: today only what is easy and low, nothing above the change, nothing that tests or adds weight; or rest. See a doctor if it doesn’t clear.',
    source: CP,
  },
  {
    id: 'ill-today',
    when: { today: 'ill' },
    does: 'leave-range',
    says: 'Ill: today only what is easy and low, nothing above the change, nothing that tests or adds weight; or rest. See a doctor if the voice doesn’t clear.',
    source: CP,
  },
  {
    id: 'scratch',
    when: { sign: 'scratch' },
    does: 'stop-item',
    says: 'A scratch going up means chest is being pulled: stop this exercise, lighten the next, or leave it for today.',
    source: CP,
  },
  {
    id: 'tickle',
    when: { sign: 'tickle' },
    does: 'gentler',
    says: 'A tickle is the voice asking for a rest: pause five minutes, drink some water, and go on lighter, or tomorrow.',
    source: CP,
  },
  {
    id: 'tight',
    when: { sign: 'tight' },
    does: 'stop-item',
    says: 'Tight: stop this exercise. Loosen jaw and neck before the next.',
    source: CP,
  },
  {
    id: 'rasp',
    when: { sign: 'rasp' },
    does: 'stop-item',
    says: 'A rasp you didn’t mean: stop this exercise and rest as long as you sang.',
    source: CP,
  },
  {
    id: 'hoarse-after',
    when: { sign: 'hoarse' },
    does: 'rest-today',
    says: 'Hoarse after singing: that is enough for today. Rest the voice and tell your coach.',
    source: CP,
  },
  {
    id: 'soft-gone',
    when: { sign: 'soft-gone' },
    does: 'rest-today',
    says: 'High soft notes that are there on other days and not today mean tired folds: rest until tomorrow.',
    source: CP,
  },
  {
    id: 'pain',
    when: { sign: 'pain' },
    does: 'rest-today',
    says: 'It hurts: stop singing for today and tell your coach. See a doctor if it comes back or stays.',
    source: CP,
  },
  {
    id: 'dizzy',
    when: { sign: 'dizzy' },
    does: 'stop-item',
    says: 'Dizzy: put the straw away, sit down and breathe as usual.',
    source: CP,
  },
  {
    id: 'effort',
    when: { sign: 'effort' },
    does: 'stop-item',
    says: `An effort above ${MOST_EFFORT} of 10 is too much: stop this exercise, and begin softer and lower next time.`,
    source: CP,
  },
  {
    id: 'hoarse-four-weeks',
    when: { hoarseWeeks: 4 },
    does: 'see-doctor',
    says: 'Hoarse for four weeks: a doctor should look at the larynx. Those who live by their voice go earlier.',
    source: HOARSENESS,
  },
  {
    id: 'alarm',
    when: { alarm: true },
    does: 'see-doctor',
    says: 'A lump in the neck, blood, pain in one ear, trouble swallowing, weight lost without a reason, or hoarseness after an operation or a tube in the throat, or in a smoker: see a doctor now, not in four weeks.',
    source: HOARSENESS,
  },
  {
    id: 'sudden-loss',
    when: { alarm: true },
    does: 'see-doctor',
    says: 'A voice that is suddenly gone, or a pop while singing or shouting: be silent, and have the larynx looked at within a day or two.',
    source: CP,
  },
  {
    id: 'breathing',
    when: { alarm: true },
    does: 'see-doctor',
    says: 'Trouble breathing, or a noise on breathing in: call the emergency number.',
    source: HOARSENESS,
  },
  {
    id: 'minor',
    when: { minor: true },
    does: 'gentler',
    says: 'A young voice: no range pushing, gentler limits, listened to often while it changes; a guardian agrees to recording.',
    source: CP,
  },
];

/** Practice a day for a minor at most, minutes (common practice, no source). */
export const MINOR_DAY_MINUTES = 15;

/** The first rule (they stand in order of weight) that today's answers bring on; null when all is well. */
export const ruleForToday = (today: Today | null): SafetyRule | null =>
  SAFETY.find((r) => today && r.when.today && today[r.when.today]) ?? null;

/** Of several answers of one day, from the phone and the lesson, whatever was said once holds; null when nobody was asked. */
export function worst(answers: readonly (Today | null)[]): Today | null {
  const said = answers.filter((a) => a !== null);
  if (said.length === 0) return null;
  return { hoarse: said.some((a) => a.hoarse), ill: said.some((a) => a.ill), pain: said.some((a) => a.pain) };
}

/** Signs and answers that the list of reasons to see a doctor belongs to: after an effort or a tickle it only frightens. */
const MAY_BE_SERIOUS = ['pain-today', 'hoarse-today', 'hoarse-after', 'pain', 'soft-gone'];
export const mayBeSerious = ({ id }: Pick<SafetyRule, 'id'>): boolean => MAY_BE_SERIOUS.includes(id);

/** When to see a doctor, whatever was told today. */
export const SEE_DOCTOR: readonly SafetyRule[] = SAFETY.filter((r) => r.does === 'see-doctor');

/** What a sign told after an item brings on. */
export const ruleForSign = (sign: Sign): SafetyRule => SAFETY.find((r) => r.when.sign === sign)!;

/** A sign that does more than ask for care. */
export const troubling = (sign: Sign): boolean => ruleForSign(sign).does !== 'gentler';
