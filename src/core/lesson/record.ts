import type { Verdict } from '../judge/types';
import type { Course, JudgedKey } from './types';

/** One exercise on one sound, key by key. */
export interface SungOn {
  sound: string;
  /** By tonic, MIDI: how it went the last time it was sung in this lesson. */
  keys: ReadonlyMap<number, JudgedKey>;
}

/** One exercise as it was sung in a lesson. */
export interface Sung {
  exerciseId: string;
  name: string;
  /** Tonics that were sung on any sound, lowest first. */
  tonics: number[];
  /** In the order the sounds came. */
  sounds: SungOn[];
}

/** The lesson with what became of a key; of a take that was heard before, what is heard now. */
export const withJudged = (course: Course, judged: JudgedKey): Course => ({
  ...course,
  judged: [...(course.judged ?? []).filter((j) => j.takeId !== judged.takeId), judged],
  revision: course.revision + 1,
});

/** The lesson without what became of a take that was thrown away. */
export const withoutTake = (course: Course, takeId: string): Course =>
  course.judged?.some((j) => j.takeId === takeId)
    ? { ...course, judged: course.judged.filter((j) => j.takeId !== takeId), revision: course.revision + 1 }
    : course;

/** What was sung, exercise by exercise in the order they were begun, each sound beside the others on the same keys. */
export function sungIn(judged: readonly JudgedKey[]): Sung[] {
  const all = new Map<string, { name: string; sounds: Map<string, Map<number, JudgedKey>> }>();
  for (const j of judged) {
    const exercise = all.get(j.exerciseId) ?? { name: j.name, sounds: new Map() };
    all.set(j.exerciseId, exercise);
    const keys = exercise.sounds.get(j.sound) ?? new Map<number, JudgedKey>();
    exercise.sounds.set(j.sound, keys.set(j.tonicMidi, j));
  }
  return [...all].map(([exerciseId, { name, sounds }]) => ({
    exerciseId,
    name,
    tonics: [...new Set([...sounds.values()].flatMap((keys) => [...keys.keys()]))].sort((a, b) => a - b),
    sounds: [...sounds].map(([sound, keys]) => ({ sound, keys })),
  }));
}

/** How many keys of each verdict. */
export function tally(keys: Iterable<JudgedKey>): Record<Verdict, number> {
  const counts: Record<Verdict, number> = { yes: 0, 'not yet': 0, 'not told': 0 };
  for (const { verdict } of keys) counts[verdict]++;
  return counts;
}
