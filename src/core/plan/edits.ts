import { PlanItem } from './types';

/** What a coach changed in a suggestion: taken out, put in, altered, and the order. */
export interface Edits {
  out: string[];
  added: PlanItem[];
  /** Only the fields that differ, by exercise. */
  changed: Record<string, Partial<PlanItem>>;
  /** Ids in the coach's order; null when it is the suggestion's. */
  order: string[] | null;
}

/** Fields a coach can set; the rest is told by the planner. */
const SET_BY_HAND = ['keys', 'sound', 'straws', 'tempo', 'minutes', 'timesADay', 'days', 'part', 'caution', 'cues'] as const;

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);
const ids = (items: readonly PlanItem[]) => items.map((it) => it.exerciseId);

/** What was done to a suggestion to get to these items. */
export function editsOf(suggested: readonly PlanItem[], items: readonly PlanItem[]): Edits {
  const was = new Map(suggested.map((it) => [it.exerciseId, it]));
  const now = new Set(ids(items));
  const changed: Edits['changed'] = {};
  for (const it of items) {
    const before = was.get(it.exerciseId);
    if (!before) continue;
    const fields = SET_BY_HAND.filter((f) => !same(before[f], it[f]));
    if (fields.length) changed[it.exerciseId] = Object.fromEntries(fields.map((f) => [f, it[f]]));
  }
  const stayed = ids(suggested).filter((id) => now.has(id));
  const order = ids(items);
  return {
    out: ids(suggested).filter((id) => !now.has(id)),
    added: items.filter((it) => !was.has(it.exerciseId)),
    changed,
    order: same(order, stayed) ? null : order,
  };
}

/** Put a coach's edits on a suggestion that was worked out anew: the coach's word stays, what wasn't touched is new. */
export function withEdits(suggested: readonly PlanItem[], edits: Edits): PlanItem[] {
  const kept = suggested.filter((it) => !edits.out.includes(it.exerciseId)).map((it) => ({ ...it, ...edits.changed[it.exerciseId] }));
  const there = new Set(ids(kept));
  const all = [...kept, ...edits.added.filter((it) => !there.has(it.exerciseId))];
  if (!edits.order) return all;
  // What the coach has seen stands as the coach put it; what is new comes in after its neighbour in the suggestion.
  const seen = edits.order.filter((id) => all.some((it) => it.exerciseId === id));
  const placed = [...seen];
  ids(all).forEach((id, i, order) => {
    if (placed.includes(id)) return;
    const after = order
      .slice(0, i)
      .reverse()
      .find((before) => placed.includes(before));
    placed.splice(after === undefined ? 0 : placed.indexOf(after) + 1, 0, id);
  });
  return placed.map((id) => all.find((it) => it.exerciseId === id)!);
}

export interface Difference {
  exerciseId: string;
  /** added: only in the second; out: only in the first. */
  kind: 'added' | 'out' | 'changed';
  /** Fields that differ, for `changed`. */
  fields: (keyof PlanItem)[];
}

/** What differs between two plans, in the order of the second, then what is gone. */
export function compare(before: readonly PlanItem[], after: readonly PlanItem[]): Difference[] {
  const edits = editsOf(before, after);
  return [
    ...after.flatMap((it): Difference[] => {
      if (edits.added.includes(it)) return [{ exerciseId: it.exerciseId, kind: 'added', fields: [] }];
      const fields = Object.keys(edits.changed[it.exerciseId] ?? {}) as (keyof PlanItem)[];
      return fields.length ? [{ exerciseId: it.exerciseId, kind: 'changed', fields }] : [];
    }),
    ...edits.out.map((exerciseId): Difference => ({ exerciseId, kind: 'out', fields: [] })),
  ];
}
