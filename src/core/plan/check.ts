import { Anchors, inVoice, keysFor, TOP_RESERVE_ST } from '../exercise/keys';
import { directionOf, patternSpan } from '../exercise/pattern';
import { Exercise } from '../exercise/types';
import { schoolById } from '../map/schools';
import { Finding } from '../map/types';
import { noteName } from '../music/pitch';
import { fullest, SET_MINUTES, weekMinutes } from './dose';
import type { RuleId } from './rules';
import { ruleForToday } from './safety';
import { Grades, isWork, Phase, PlanItem, PlanRequest } from './types';
import type { Lean } from './voice';
import type { Way } from './ways';

/** A plan's request, worked out: what every rule looks at. */
export interface Planning extends PlanRequest {
  anchors: Anchors;
  changeMeasured: boolean;
  working: Finding[];
  lean: Lean;
  /** Grades the coach confirmed. */
  confirmed: Partial<Grades>;
  /** Those, and for the rest what the findings let expect. */
  grades: Grades;
  phases: readonly Phase[];
  way: Way;
  find: (id: string) => Exercise | undefined;
}

export interface Conflict {
  rule: RuleId;
  /** The item it is about; null: the whole plan. */
  exerciseId: string | null;
  says: string;
}

const SCRATCHY_STRANDS = ['crossing', 'evenness'];

/** Why an exercise isn't for this voice now, whatever else is in the plan, the weightiest reason first; null when it is. */
export function blocked(e: Exercise, p: Planning): { rule: RuleId; says: string } | null {
  const suffers = p.map.findings.find((f) => e.avoid.includes(f.name));
  if (suffers) return { rule: 'avoid', says: AVOID_WORDS[suffers.name] };
  const unwell = ruleForToday(p.today);
  if (unwell && (e.strand === 'range' || e.role === 'test' || e.weight > 0 || (unwell.does === 'rest-today' && e.role !== 'straw')))
    return { rule: 'unwell', says: unwell.says };
  if (p.minor && (e.strand === 'range' || e.loudness === 'swell' || (e.weight > 0 && e.grade >= 4)))
    return { rule: 'minor', says: 'Not for a young voice.' };
  if (keysFor(e, anchorsFor(e, p)).length === 0) return { rule: 'voice', says: 'No key of it stays inside this voice.' };
  if (p.lean === 'pushes' && e.weight > 0 && p.phase === 0)
    return { rule: 'pushing-voice', says: 'Adds weight, and this voice has to let go of some first.' };
  if (e.place === 'at' && SCRATCHY_STRANDS.includes(e.strand) && p.grades.crossing < 3)
    return { rule: 'through-the-change', says: 'It stays at the change; pass through it first.' };
  const missing = e.needs.filter((m) => !p.materials.includes(m));
  if (missing.length) return { rule: 'materials', says: `Needs ${missing.join(' and ')}.` };
  if (e.schools.length && !e.schools.includes(p.school)) return { rule: 'school', says: `Not taught by “${schoolById(p.school).name}”.` };
  if (e.grade > p.grades[e.strand] + 1 && e.role !== 'test')
    return { rule: 'grade', says: `Grade ${e.grade}; this voice is at ${p.grades[e.strand]} there.` };
  return null;
}

const AVOID_WORDS = {
  'pulled-chest': 'It would load a voice that carries chest too high.',
  'no-chest': 'It would take more weight off a voice that lacks it.',
  flip: 'Too much at once for a voice that flips.',
  toggle: 'Too much at once while the seam shows.',
  'weak-first-head': 'It would make thin head notes thinner.',
  'uneven-loudness': 'It would make what jumps out louder.',
  blended: 'The voice is past it.',
} as const;

/** Kinds of stepwise work whose keys a school moves up or down; slides and straws pass through everything anyway. */
const MOVED = new Set<Exercise['family']>(['scale', 'connector', 'toggle', 'riff', 'phrase']);

/** Where keys are counted from for an exercise, as the school sees the change. */
export function anchorsFor(e: Exercise, p: Pick<Planning, 'anchors' | 'way'>): Anchors {
  if (e.place !== 'across' || !MOVED.has(e.family)) return p.anchors;
  return { ...p.anchors, change: p.anchors.change + p.way.shiftSt };
}

/** Whether an exercise is behind the singer: by the grade the coach confirmed, or by one expected well above it. */
const mastered = (e: Exercise, p: Planning) => (p.confirmed[e.strand] ?? p.grades[e.strand] - 1) > e.grade;

/** What must come before an exercise and can be sung in this voice but isn't behind the singer. */
export const unmet = (e: Exercise, p: Planning): Exercise[] =>
  e.after.flatMap((id) => {
    const before = p.find(id);
    return before && !mastered(before, p) && !blocked(before, p) ? [before] : [];
  });

/** Everything in a plan that goes against a rule, in words for the coach. */
export function conflicts(items: readonly PlanItem[], p: Planning): Conflict[] {
  const out: Conflict[] = [];
  const say = (rule: RuleId, exerciseId: string | null, says: string) => out.push({ rule, exerciseId, says });
  const at = new Map(items.map((it, i) => [it.exerciseId, i]));
  items.forEach((it, i) => {
    const e = p.find(it.exerciseId);
    if (!e) return;
    const block = blocked(e, p);
    if (block) say(block.rule, e.id, block.says);
    const span = patternSpan(e);
    const outside = it.keys.filter((key) => !inVoice(span, key, p.anchors));
    if (outside.length > 0)
      say(
        'voice',
        e.id,
        `Crosses the usable range (${noteName(p.anchors.low)} to ${noteName(p.anchors.high - TOP_RESERVE_ST)}) in ${outside.map((k) => noteName(k)).join(', ')}.`,
      );
    for (const before of unmet(e, p)) {
      const place = at.get(before.id);
      if (place === undefined) say('needs-first', e.id, `“${before.name}” should be easy first.`);
      else if (place > i) say('needs-first', e.id, `Put “${before.name}” before it.`);
    }
    const rung = e.sounds.indexOf(it.sound);
    if (rung > 1 && p.grades[e.strand] < e.grade)
      say('easy-sounds', e.id, `“${it.sound}” is a hard sound here; begin on “${e.sounds[0]}”.`);
  });

  const work = items
    .filter(isWork)
    .map((it) => ({ it, e: p.find(it.exerciseId) }))
    .filter((w): w is { it: PlanItem; e: Exercise } => Boolean(w.e));
  work.forEach(({ e }, i) => {
    const later = work.slice(i + 1).find((w) => w.e.weight < e.weight && !w.e.after.includes(e.id));
    if (later) say('light-first', e.id, `“${later.e.name}” is lighter: sing it first.`);
    const falls = work
      .slice(i + 1)
      .find(
        (w) =>
          w.e.weight === e.weight &&
          e.family === 'siren' &&
          w.e.family === 'siren' &&
          directionOf(e) === 'up' &&
          directionOf(w.e) === 'down' &&
          !w.e.after.includes(e.id),
      );
    if (falls) say('falling-first', e.id, `“${falls.e.name}” falls: sing it first.`);
  });
  const minutes = (weight: number) => work.filter((w) => w.e.weight === weight).reduce((sum, w) => sum + weekMinutes(w.it), 0);
  if (p.lean === 'light' && minutes(-1) > (minutes(-1) + minutes(0) + minutes(1)) / 2)
    say('light-voice', null, 'More than half of the work takes weight off a voice that is light already.');
  const adds = work.findIndex((w) => w.e.weight > 0);
  if (p.lean === 'pushes' && adds >= 0 && !work.slice(0, adds).some((w) => w.e.weight < 0))
    say('pushing-voice', work[adds].e.id, 'Adds weight before anything has taken some off.');

  const warm = items.findIndex((it) => it.part === 'warm-up');
  if (items.length > 0 && warm !== 0) say('warm-first', null, warm < 0 ? 'There is no warm-up.' : 'The warm-up comes first.');
  const dose = fullest(items);
  if (items.length > 0 && dose.set > SET_MINUTES)
    say('dose', null, `A set of ${dose.set} minutes is long: about ${SET_MINUTES} are enough.`);
  if (items.length > 0 && dose.day > p.minutesADay)
    say('dose', null, `${dose.day} minutes on the fullest day; ${p.minutesADay} are agreed.`);
  return out;
}
