import { exerciseById, SHELF } from '../exercise/shelf';
import { Anchors, keysFor } from '../exercise/keys';
import { Exercise } from '../exercise/types';
import { Finding, FindingName, VoiceMap } from '../map/types';
import { noteName } from '../music/pitch';
import { withinDose } from './dose';
import { Plan, PlanItem } from './types';
import { expectedChange, VoiceTypeId } from './voice-types';

/** How much a finding holds the voice back: what is worked on first. */
const URGENCY: Record<FindingName, number> = {
  'pulled-chest': 7,
  'no-chest': 6,
  flip: 5,
  toggle: 4,
  'weak-first-head': 3.5,
  'uneven-loudness': 3,
  blended: 1,
};

const HELD_BACK_BY: Record<FindingName, string> = {
  flip: 'your voice leaps',
  toggle: 'the colour changes at once',
  blended: 'your voice blends already',
  'pulled-chest': 'chest is carried too high',
  'no-chest': 'the low notes have no chest yet',
  'weak-first-head': 'the first head notes are thin',
  'uneven-loudness': 'one part jumps out',
};

/** Places the keys are counted from. A siren's extremes stand in for a usable range, two semitones inside. */
export function anchorsOf(map: VoiceMap, type: VoiceTypeId): { anchors: Anchors; changeMeasured: boolean } | null {
  const inside = map.extreme ? { low: Math.ceil(map.extreme.low.midi) + 1, high: Math.floor(map.extreme.high.midi) } : null;
  if (!inside) return null;
  const main = [...map.passaggi].sort((a, b) => b.confidence - a.confidence)[0];
  const change = main ? Math.round(main.midi) : Math.min(expectedChange(type), inside.high - 4);
  return {
    anchors: {
      low: Math.min(map.usable?.low.midi ?? inside.low, inside.low),
      high: Math.max(map.usable?.high.midi ?? 0, inside.high),
      change,
    },
    changeMeasured: Boolean(main),
  };
}

/**
 * Choose exercises for a voice: warm-up, straw, work on what holds the voice back most (two findings at most), straw
 * again, and the test siren; keys from the map. Null when there is no usable take yet. Deterministic.
 */
export function planFor(map: VoiceMap, type: VoiceTypeId): Plan | null {
  const placed = anchorsOf(map, type);
  if (!placed) return null;
  const worksOn = strongest(map.findings);
  const names = worksOn.map((f) => f.name);
  const fits = (e: Exercise) => !e.avoid.some((a) => names.includes(a)) && keysFor(e, placed.anchors).length > 0;
  const score = (e: Exercise) =>
    worksOn.reduce((sum, f, i) => sum + (e.suits.includes(f.name) ? URGENCY[f.name] / (i + 1) : 0), 0) - 0.3 * e.grade;
  const best = (role: Exercise['role'], count: number) =>
    SHELF.filter((e) => e.role === role && fits(e))
      .sort((a, b) => score(b) - score(a) || a.grade - b.grade)
      .slice(0, count);

  const warm = best('warm-up', 1);
  const straws = best('straw', 2);
  const work = best('work', 3).filter((e) => score(e) > -0.9);
  const chosen = withWhatComesBefore([...warm, ...straws.slice(0, 1), ...inOrder(work), ...straws.slice(1), ...best('test', 1)], fits);
  return { ...placed, worksOn: names, items: withinDose(chosen.map((e) => itemFor(e, placed.anchors, worksOn, placed.changeMeasured))) };
}

function strongest(findings: Finding[]): Finding[] {
  const seen = new Set<FindingName>();
  return [...findings]
    .sort((a, b) => URGENCY[b.name] * b.confidence - URGENCY[a.name] * a.confidence)
    .filter((f) => !seen.has(f.name) && seen.add(f.name))
    .slice(0, 2);
}

/** Falling before rising, light before full, easy before hard (order rules, common practice). */
function inOrder(work: Exercise[]): Exercise[] {
  return [...work].sort((a, b) => a.grade - b.grade || a.weight - b.weight);
}

/** A prerequisite that was not chosen comes in just before what needs it. */
function withWhatComesBefore(chosen: Exercise[], fits: (e: Exercise) => boolean): Exercise[] {
  const out: Exercise[] = [];
  const add = (e: Exercise) => {
    if (out.includes(e)) return;
    for (const id of e.after) if (fits(exerciseById(id))) add(exerciseById(id));
    out.push(e);
  };
  chosen.forEach(add);
  return out;
}

/** An exercise as an assignment in this voice: the singer's keys, the easiest sound, the usual dose, and why. */
export function itemFor(exercise: Exercise, anchors: Anchors, worksOn: Finding[], changeMeasured: boolean): PlanItem {
  const suited = worksOn.find((f) => exercise.suits.includes(f.name));
  const at = noteName(anchors.change);
  const where =
    suited?.name === 'no-chest'
      ? `below ${noteName(suited.midi)}`
      : changeMeasured
        ? `around ${at}`
        : `around ${at}, where we expect the change`;
  const reason = suited ? `Because ${HELD_BACK_BY[suited.name]} ${where}: ${exercise.purpose}.` : `Because ${exercise.purpose}.`;
  return {
    exerciseId: exercise.id,
    keys: keysFor(exercise, anchors),
    sound: exercise.sounds[0],
    tempo: exercise.tempo[1],
    minutes: exercise.minutes,
    timesADay: exercise.timesADay,
    reason,
    caution: exercise.caution,
  };
}
