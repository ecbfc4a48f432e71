import { anchorsFor, Planning } from './check';
import { keysFor } from '../exercise/keys';
import { Exercise, Role } from '../exercise/types';
import { itemFor } from './plan';
import { Part, partRank, PlanItem } from './types';

const PART_OF: Record<Role, Part> = {
  'warm-up': 'warm-up',
  straw: 'straw-before',
  work: 'work',
  carry: 'carry',
  test: 'test',
  'cool-down': 'straw-after',
};

/** An exercise the coach puts in, as an item in this voice; null when no key of it stays inside the voice. */
export function itemByHand(e: Exercise, items: readonly PlanItem[], p: Planning): PlanItem | null {
  if (keysFor(e, anchorsFor(e, p)).length === 0) return null;
  const part = PART_OF[e.role];
  const before = part === 'straw-before' && items.some((it) => it.part === 'straw-before');
  return itemFor(e, before ? 'straw-after' : part, p, ['coach']);
}

/**
 * The items with an exercise put in by hand where it belongs, on a sound; null when no key of it stays inside the voice.
 *
 * @param instead an exercise whose place, minutes and days it takes where that is among the items (the line of a song a plan leaves open)
 */
export function putIn(
  e: Exercise,
  items: readonly PlanItem[],
  p: Planning,
  { sound = e.sounds[0], instead }: { sound?: string; instead?: string } = {},
): PlanItem[] | null {
  const item = itemByHand(e, items, { ...p, find: (id) => (id === e.id ? e : p.find(id)) });
  if (!item) return null;
  const named = { ...item, sound };
  const open = items.findIndex((it) => it.exerciseId === instead);
  if (open < 0) return items.toSpliced(placeFor(named, items), 0, named);
  const { minutes, timesADay, days } = items[open];
  return items.with(open, { ...named, minutes, timesADay, days });
}

/** Where an item belongs among others by its part: after the last that is sung no later. */
export function placeFor(item: PlanItem, items: readonly PlanItem[]): number {
  const later = items.findIndex((it) => partRank(it) > partRank(item));
  return later < 0 ? items.length : later;
}

/** A set made elsewhere (a template, another singer's week) in this voice: its own keys, the rest as it was. */
export function fitted(items: readonly PlanItem[], p: Planning): { items: PlanItem[]; without: string[] } {
  const out: PlanItem[] = [];
  const without: string[] = [];
  for (const it of items) {
    const e = p.find(it.exerciseId);
    const here = e && keysFor(e, anchorsFor(e, p)).length > 0 ? itemFor(e, it.part, p, ['coach']) : null;
    if (!here) without.push(it.exerciseId);
    else out.push({ ...here, sound: it.sound, tempo: it.tempo, minutes: it.minutes, timesADay: it.timesADay, days: it.days });
  }
  return { items: out, without };
}
