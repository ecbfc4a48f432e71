import { EventKind, Leg, TakeEvent } from '../take/types';
import { CoachMark, TakeEvidence, Vote } from './types';

const KIND_WEIGHT: Record<EventKind, number> = { flip: 1, timbre: 1, crack: 0.5, dip: 0.35 };
/** The coach's ear weighs this much against the machine's at most 1. */
export const COACH_WEIGHT = 3;
/** A mark speaks of whatever the machine found within this time. */
export const MARK_REACH_S = 0.35;
/** An event this near a leg's cross-over is the same change. */
const SAME_CHANGE_ST = 3;

/** Every leg's word on where the voice changes, with the coach's marks taken in: rejected findings are left out. */
export function votesOf(take: TakeEvidence): Vote[] {
  const { findings, marks, takeId } = take;
  const overruled = (timeS: number) => marks.some((m) => (m.verdict === 'reject' || m.verdict === 'move' || m.verdict === 'accept') && Math.abs(m.timeS - timeS) < MARK_REACH_S);
  const votes: Vote[] = [];
  const base = { takeId, source: 'machine' as const };
  findings.events.forEach((event) => {
    if (overruled(event.timeS)) return;
    votes.push({ ...base, leg: legOf(findings.legs, event.timeS), timeS: event.timeS, midi: event.midi, direction: event.direction, kind: event.kind, widthSt: Math.max(1, Math.abs(event.toMidi - event.fromMidi)), weight: KIND_WEIGHT[event.kind] * event.confidence });
  });
  findings.legs.forEach((leg, index) => {
    const cross = leg.crossOver;
    if (!cross) return;
    const timeS = crossTime(leg);
    const known = (e: TakeEvent) => e.timeS >= leg.startS - 0.1 && e.timeS <= leg.endS + 0.1 && Math.abs(e.midi - cross.midi) < SAME_CHANGE_ST + cross.widthSt / 2;
    if (findings.events.some((e) => known(e)) || overruled(timeS)) return;
    const spread = cross.widthSt > 5 ? 0.75 : 1;
    votes.push({ ...base, leg: index, timeS, midi: cross.midi, direction: leg.direction, kind: 'blend', widthSt: cross.widthSt, weight: cross.confidence * spread });
  });
  for (const mark of marks) if (mark.verdict !== 'reject') votes.push(markVote(take, mark));
  return votes;
}

/** About when a leg passes its cross-over (sirens move evenly in pitch). */
export function crossTime(leg: Leg): number {
  const span = leg.highestMidi - leg.lowestMidi;
  const part = leg.crossOver && span > 0 ? (leg.crossOver.midi - leg.lowestMidi) / span : 0.5;
  return leg.startS + (leg.endS - leg.startS) * (leg.direction === 'up' ? part : 1 - part);
}

function legOf(legs: Leg[], timeS: number): number {
  return legs.findIndex((l) => timeS >= l.startS - 0.1 && timeS <= l.endS + 0.1);
}

function markVote(take: TakeEvidence, mark: CoachMark): Vote {
  const near = take.findings.events.find((e) => Math.abs(e.timeS - mark.timeS) < MARK_REACH_S);
  return {
    takeId: take.takeId,
    leg: legOf(take.findings.legs, mark.timeS),
    timeS: mark.timeS,
    midi: mark.midi,
    direction: mark.direction,
    kind: near?.kind ?? 'blend',
    widthSt: near ? Math.max(1, Math.abs(near.toMidi - near.fromMidi)) : 2,
    weight: COACH_WEIGHT,
    source: 'coach',
  };
}
