import { said, Said, SaidValue, texts } from '../words/said';
import { Anchors, inVoice, keysFor } from '../exercise/keys';
import { directionOf, patternSpan } from '../exercise/pattern';
import { Exercise, MATERIAL_WORDS } from '../exercise/types';
import { schoolById } from '../map/schools';
import { Finding } from '../map/types';
import { fullest, SET_MINUTES, weekMinutes } from './dose';
import { setsOf } from './sessions';
import { BY_AGE } from './ages';
import { heldByIntake, Limit } from './intake';
import type { RuleId } from './rules';
import { Grades, isWork, Phase, PlanItem, PlanRequest } from './types';
import { changeOf, chestCeiling, Lean } from './voice';
import type { Way } from './ways';

/** A plan's request, worked out: what every rule looks at. */
export interface Planning extends PlanRequest {
  anchors: Anchors;
  changeMeasured: boolean;
  working: Finding[];
  lean: Lean;
  /** Only the comfortable band is sung: the voice is small, young or changing. */
  narrow: boolean;
  leftItsWay: boolean;
  /** What the answers of the intake hold back. */
  limits: readonly Limit[];
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
  says: Said;
}

const SCRATCHY_STRANDS = ['crossing', 'evenness'];

/** Why an exercise isn't for this voice now, whatever else is in the plan, the weightiest reason first; null when it is. */
export function blocked(e: Exercise, p: Planning): { rule: RuleId; says: Said } | null {
  const suffers = p.map.findings.find((f) => e.avoid.includes(f.name));
  if (suffers) return { rule: 'avoid', says: AVOID_WORDS[suffers.name] };
  const held = heldByIntake(e, p.limits);
  if (held) return { rule: 'intake', says: held };
  if (p.narrow && !inBand(e)) return { rule: 'narrow', says: said('Only the comfortable band in this voice now.') };
  if (p.age && BY_AGE[p.age].noStraw && e.needs.includes('straw')) return { rule: 'minor', says: said('No straw for so small a child.') };
  if (p.minor && !forMinors(e)) return { rule: 'minor', says: said('Not for a young voice.') };
  if (keysFor(e, anchorsFor(e, p)).length === 0) return { rule: 'voice', says: said('No key of it stays inside this voice.') };
  if (p.lean === 'pushes' && e.weight > 0 && p.phase === 0)
    return { rule: 'pushing-voice', says: said('Adds weight, and this voice has to let go of some first.') };
  const phase = p.phases[p.phase];
  if (phase.weight < 0 && e.weight > 0 && e.role === 'work' && p.lean !== 'light')
    return { rule: 'phase', says: said('Adds weight, and “{phase}” lets go of it first.', { phase: phase.name }) };
  if (e.place === 'at' && SCRATCHY_STRANDS.includes(e.strand) && p.grades.crossing < 3)
    return { rule: 'through-the-change', says: said('It stays at the change; pass through it first.') };
  const missing = e.needs.filter((m) => !p.materials.includes(m));
  if (missing.length)
    return {
      rule: 'materials',
      says: said('Needs {materials}.', { materials: { all: missing.map((m) => MATERIAL_WORDS[m]), as: 'and' } }),
    };
  if (e.schools.length && !e.schools.includes(p.school))
    return { rule: 'school', says: said('Not taught by “{school}”.', { school: schoolById(p.school).name }) };
  if (e.grade > p.grades[e.strand] + 1 && e.role !== 'test')
    return { rule: 'grade', says: said('Grade {grade}; this voice is at {at} there.', { grade: e.grade, at: p.grades[e.strand] }) };
  return null;
}

/** What is sung away from the change over a fifth at most, without weight and without a test. */
const inBand = (e: Exercise): boolean => {
  const { top, bottom } = patternSpan(e);
  return e.place === 'away' && e.aim !== 'head' && top - bottom <= BAND_ST && e.weight <= 0 && e.role !== 'test' && anchored(e);
};
/** A fifth. */
const BAND_ST = 7;
/** Counted from where somebody speaks, not from an end or a change. */
const anchored = (e: Exercise): boolean => e.keys.from.anchor === 'speaking' && e.keys.to.anchor === 'speaking';

/** No range pushing, nothing that adds weight or is loud, no “ah” to be tested on (common practice, no source). */
const forMinors = (e: Exercise): boolean =>
  (e.strand !== 'range' || e.weight < 0) &&
  e.loudness !== 'swell' &&
  e.loudness !== 'softer-up' &&
  e.loudness !== 'fuller-up' &&
  e.weight <= 0 &&
  !(e.role === 'test' && e.sounds[0] === 'ah');

const AVOID_WORDS = texts({
  'pulled-chest': 'It would load a voice that carries chest too high.',
  'no-chest': 'It would take more weight off a voice that lacks it.',
  flip: 'Too much at once for a voice that flips.',
  toggle: 'Too much at once while the seam shows.',
  'weak-first-head': 'It would make thin head notes thinner.',
  'uneven-loudness': 'It would make what jumps out louder.',
  blended: 'The voice is past it.',
});

/** Kinds of stepwise work whose keys a school moves up or down; slides and straws pass through everything anyway. */
const MOVED = new Set<Exercise['family']>(['scale', 'connector', 'toggle', 'riff', 'phrase']);

/** Chest is asked for on purpose. */
const isChestWork = (e: Exercise): boolean => e.strand === 'chest' && e.aim === 'chest';

/**
 * Where keys are counted from for an exercise: the change of the finding it serves, as the school sees it; chest work stays near the
 * speaking pitch.
 *
 * @param serves the finding it is sung for; of several it suits, the weightiest where none is said
 */
export function anchorsFor(
  e: Exercise,
  p: Pick<Planning, 'anchors' | 'way' | 'working' | 'map' | 'voiceType'>,
  serves = p.working.find((f) => e.suits.includes(f.name)),
): Anchors {
  const change = serves && e.role === 'work' ? changeOf(serves, p.map, p.voiceType) : p.anchors.change;
  const moved = e.place === 'across' && MOVED.has(e.family) ? p.way.shiftSt : 0;
  const ceiling = isChestWork(e) ? chestCeiling(p.anchors.speaking, p.voiceType) : Infinity;
  return { ...p.anchors, change: change + moved, high: Math.min(p.anchors.high, ceiling) };
}

/** Whether an exercise is behind the singer: by the grade the coach confirmed, or by one expected well above it. */
const mastered = (e: Exercise, p: Planning) => (p.confirmed[e.strand] ?? p.grades[e.strand] - 1) > e.grade;

/** What must come before an exercise and can be sung in this voice but isn't behind the singer. */
export const unmet = (e: Exercise, p: Planning): Exercise[] =>
  e.after.flatMap((id) => {
    const before = p.find(id);
    return before && !mastered(before, p) && !blocked(before, p) ? [before] : [];
  });

/** What a set may begin with. */
export const warms = ({ part }: Pick<PlanItem, 'part'>): boolean => part === 'warm-up' || part === 'straw-before';

/** Some keys, one after another. */
const notesList = (keys: readonly number[]): SaidValue => ({
  all: keys.map((key) => said('{note}', { note: { note: key } })),
  as: 'comma',
});

/** Everything in a plan that goes against a rule, in words for the coach. */
export function conflicts(items: readonly PlanItem[], p: Planning): Conflict[] {
  const out: Conflict[] = [];
  const say = (rule: RuleId, exerciseId: string | null, says: Said) => out.push({ rule, exerciseId, says });
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
        said('Leaves what this voice may sing ({low} to {high}) in {keys}.', {
          low: { note: p.anchors.low },
          high: { note: p.anchors.high },
          keys: notesList(outside),
        }),
      );
    const ceiling = chestCeiling(p.anchors.speaking, p.voiceType);
    const shouted = isChestWork(e) ? it.keys.filter((key) => key + span.top > ceiling && inVoice(span, key, p.anchors)) : [];
    if (shouted.length > 0)
      say(
        'chest-ceiling',
        e.id,
        said('Chest is asked for above {ceiling} in {keys}.', { ceiling: { note: ceiling }, keys: notesList(shouted) }),
      );
    for (const before of unmet(e, p)) {
      const place = at.get(before.id);
      if (place === undefined) say('needs-first', e.id, said('“{name}” should be easy first.', { name: before.name }));
      else if (place > i) say('needs-first', e.id, said('Put “{name}” before it.', { name: before.name }));
    }
    const rung = e.sounds.indexOf(it.sound);
    if (rung > 1 && p.grades[e.strand] < e.grade)
      say('easy-sounds', e.id, said('“{sound}” is a hard sound here; begin on “{easy}”.', { sound: it.sound, easy: e.sounds[0] }));
  });

  const work = items
    .filter(isWork)
    .map((it) => ({ it, e: p.find(it.exerciseId) }))
    .filter((w): w is { it: PlanItem; e: Exercise } => Boolean(w.e));
  work.forEach(({ e }, i) => {
    const later = work.slice(i + 1).find((w) => w.e.weight < e.weight && !w.e.after.includes(e.id));
    if (later) say('light-first', e.id, said('“{name}” is lighter: sing it first.', { name: later.e.name }));
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
    if (falls) say('falling-first', e.id, said('“{name}” falls: sing it first.', { name: falls.e.name }));
  });
  const minutes = (weight: number) => work.filter((w) => w.e.weight === weight).reduce((sum, w) => sum + weekMinutes(w.it), 0);
  if (p.lean === 'light' && minutes(-1) > (minutes(-1) + minutes(0) + minutes(1)) / 2)
    say('light-voice', null, said('More than half of the work takes weight off a voice that is light already.'));
  const adds = work.findIndex((w) => w.e.weight > 0);
  if (p.lean === 'pushes' && adds >= 0 && !work.slice(0, adds).some((w) => w.e.weight < 0))
    say('pushing-voice', work[adds].e.id, said('Adds weight before anything has taken some off.'));

  const warm = items.findIndex((it) => it.part === 'warm-up');
  if (items.length > 0 && warm !== 0) say('warm-first', null, warm < 0 ? said('There is no warm-up.') : said('The warm-up comes first.'));
  else if (setsOf(items).some(({ items: [first] }) => first && !warms(first)))
    say('warm-first', null, said('Some sets begin cold: sing the warm-up as often as the work.'));
  const dose = fullest(items);
  if (items.length > 0 && dose.set > SET_MINUTES)
    say('dose', null, said('A set of {minutes} minutes is long: about {enough} are enough.', { minutes: dose.set, enough: SET_MINUTES }));
  if (items.length > 0 && dose.day > p.minutesADay)
    say('dose', null, said('{minutes} minutes on the fullest day; {agreed} are agreed.', { minutes: dose.day, agreed: p.minutesADay }));
  return out;
}
