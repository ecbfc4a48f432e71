import { MOST_EFFORT, troubling } from '../plan/safety';
import type { Gate, Phase } from '../plan/types';
import { Done, Entry, isDone, wentWell } from './types';

type Sung = Entry & { what: Done };

/** Where a condition of a phase's end stands. */
export interface GateState extends Gate {
  /** Days in a row, up to the last on which it was sung, that went as meant. */
  done: number;
  open: boolean;
}

/** A take that counts against a day: it told of something, or cost too much. */
const troubled = ({ signs, effort }: Done): boolean => signs.some(troubling) || (effort !== null && effort > MOST_EFFORT);

/** Of the takes of a day that were judged more than half went as meant, and none told of trouble; null where none was judged. */
function asMeant(takes: readonly Sung[]): boolean | null {
  const judged = takes.filter((t) => wentWell(t) !== null);
  if (judged.length === 0) return null;
  return judged.filter(wentWell).length > judged.length / 2 && !takes.some((t) => troubled(t.what));
}

/** Where each condition of a phase's end stands, from what was practised since a day (the first of the phase; absent: since ever). */
export function gatesOf({ ends }: Pick<Phase, 'ends'>, log: readonly Entry[], since = ''): GateState[] {
  return ends.map((gate): GateState => {
    const byDay = new Map<string, Sung[]>();
    for (const e of log)
      if (isDone(e) && e.day >= since && gate.sings.includes(e.what.exerciseId)) byDay.set(e.day, [...(byDay.get(e.day) ?? []), e]);
    let done = 0;
    for (const [, takes] of [...byDay.entries()].sort(([a], [b]) => b.localeCompare(a))) {
      const meant = asMeant(takes);
      if (meant === false) break;
      if (meant) done++;
    }
    return { ...gate, done: Math.min(done, gate.days), open: done < gate.days };
  });
}

/** Whether all that can be reckoned of a phase's end is there; the coach has the last word. False where nothing can be. */
export const phaseDone = (gates: readonly GateState[]): boolean => gates.length > 0 && gates.every((g) => !g.open);
