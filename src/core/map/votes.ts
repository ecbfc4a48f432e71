import { Change, changesOf } from '../take/changes';
import { CoachMark, TakeEvidence, Vote } from './types';

const KIND_WEIGHT: Record<Change['kind'], number> = { flip: 1, timbre: 1, blend: 1, crack: 0.5, dip: 1 };
/** The coach's ear weighs this much against the machine's at most 1. */
export const COACH_WEIGHT = 3;
/** The singer's own feeling for a note. */
const SINGER_WEIGHT = 1.5;
/** A mark speaks of whatever the machine found within this time. */
const MARK_REACH_S = 0.35;

/** The coach's word on a change, if any. */
export const markOn = (change: Change, marks: CoachMark[]): CoachMark | undefined =>
  marks.find((m) => m.verdict !== 'add' && Math.abs(m.timeS - change.timeS) < MARK_REACH_S);

/** Every leg's word on where the voice changes, with the coach's marks taken in: where the coach spoke, the machine is silent. */
export function votesOf({ findings, marks, takeId }: TakeEvidence, recency = 1): Vote[] {
  const changes = changesOf(findings);
  const votes = changes
    .filter((c) => !markOn(c, marks))
    .map(({ confidence, ...c }): Vote => ({
      ...c,
      takeId,
      source: 'machine',
      weight: recency * confidence * KIND_WEIGHT[c.kind] * (c.kind === 'blend' && c.widthSt > 5 ? 0.75 : 1),
    }));
  for (const { verdict, timeS, midi, direction, by } of marks) {
    if (verdict === 'reject') continue;
    const near = changes.find((c) => Math.abs(c.timeS - timeS) < MARK_REACH_S);
    const leg = near?.leg ?? findings.legs.findIndex((l) => timeS >= l.startS - 0.1 && timeS <= l.endS + 0.1);
    votes.push({
      takeId,
      leg,
      timeS,
      midi,
      direction,
      kind: near?.kind ?? 'blend',
      widthSt: near?.widthSt ?? 2,
      weight: recency * (by === 'coach' ? COACH_WEIGHT : SINGER_WEIGHT),
      source: by,
    });
  }
  return votes;
}
