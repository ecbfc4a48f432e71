import { HOP_S } from '../voice/types';
import { Contour, framesIn } from './contour';
import { HEARD_DIP_DB } from './events';
import { confidenceOf, evidenceOf, Signs, Weighing } from './signs';
import { Source } from './source';
import { Direction, SungNote, TakeEvent } from './types';

/** Notes nearer than this are sung in one breath. */
export const JOINED_S = 0.15;
/** The hole of a change lies between so long before and so long after the middle of the step. */
const HOLE_FROM_S = -0.03;
const HOLE_TO_S = 0.07;
/** A flip overshoots its note at once; it is back within this. */
const OVERSHOOT_S = 0.2;
/** From here an overshoot is heard as a flip, semitones. */
const HEARD_OVERSHOOT_ST = 0.6;
/** A wider step was leapt: whatever happens inside it is hidden (an arpeggio's step of a fourth is still heard). */
export const WIDEST_STEP_ST = 5.5;
const FEWEST_STEPS = 6;

/** As for slides (events.ts), by logistic regression on scales of voices and rooms that are not this project's. */
const WEIGHING: Weighing<'slope' | 'dip' | 'level' | 'overshoot'> = {
  slope: { nats: 0.47, least: 0.25 },
  dip: { nats: 0.35, least: 0.15 },
  level: { nats: -0.95, least: 0.5 },
  overshoot: { nats: 0.42, least: 0.05 },
};
const NEEDED = 3.8;

interface Step {
  /** Index of the note stepped to. */
  to: number;
  direction: Direction;
  frame: number;
  dipDb: number;
  signs: Signs<keyof typeof WEIGHING>;
}

/**
 * Changes between neighbouring notes of one breath: what the step does to all harmonics together (colour, level, a hole) and an
 * overshoot of the pitch, against what the other steps of the take do going the same way. In time order.
 */
export function noteEvents(contour: Contour, source: Source, notes: SungNote[]): TakeEvent[] {
  const steps = notes.flatMap((_, to) => stepTo(contour, source, notes, to) ?? []);
  if (steps.length < FEWEST_STEPS) return [];
  const groups = (['up', 'down'] as const).map((d) => steps.filter((s) => s.direction === d));
  const evidence = evidenceOf(
    groups.map((g) => g.map((s) => s.signs)),
    WEIGHING,
    NEEDED,
  );
  return groups
    .flatMap((group, g) => group.flatMap((step, i) => (evidence[g][i] > 0 ? [eventOf(step, notes, evidence[g][i])] : [])))
    .sort((a, b) => a.timeS - b.timeS);
}

const pitchOf = ({ midi, cents }: SungNote) => midi + cents / 100;

function stepTo(contour: Contour, source: Source, notes: SungNote[], to: number): Step | null {
  const [a, b] = [notes[to - 1], notes[to]];
  if (!a || b.startS - a.endS > JOINED_S) return null;
  const move = pitchOf(b) - pitchOf(a);
  if (move === 0 || Math.abs(move) > WIDEST_STEP_ST) return null;
  const along = Math.sign(move);
  const middle = Math.round((a.endS + b.startS) / 2 / HOP_S);
  const step = source.stepAt(middle);
  if (!step) return null;
  let dipDb = -Infinity;
  let frame = middle;
  for (let i = middle + Math.round(HOLE_FROM_S / HOP_S); i <= middle + Math.round(HOLE_TO_S / HOP_S); i++) {
    const hole = source.stepAt(i)?.dipDb ?? -Infinity;
    if (hole > dipDb) {
      dipDb = hole;
      frame = i;
    }
  }
  let overshoot = NaN;
  const end = Math.min(contour.length, middle + framesIn(OVERSHOOT_S), Math.round(b.endS / HOP_S));
  for (let i = middle; i < end; i++) {
    const over = along * (contour[i] - pitchOf(b));
    if (!Number.isNaN(over) && !(over <= overshoot)) overshoot = over;
  }
  return {
    to,
    direction: along > 0 ? 'up' : 'down',
    frame,
    dipDb,
    signs: { slope: along * step.slope, dip: dipDb > -Infinity ? dipDb : NaN, level: along * step.levelDb, overshoot },
  };
}

function eventOf({ to, direction, frame, dipDb, signs }: Step, notes: SungNote[], evidence: number): TakeEvent {
  const before = pitchOf(notes[to - 1]);
  const leapt = signs.overshoot >= HEARD_OVERSHOOT_ST;
  return {
    timeS: frame * HOP_S,
    midi: before,
    fromMidi: before,
    toMidi: pitchOf(notes[to]) + (leapt ? (direction === 'up' ? 1 : -1) * signs.overshoot : 0),
    direction,
    kind: leapt ? 'flip' : dipDb >= HEARD_DIP_DB ? 'dip' : 'timbre',
    confidence: confidenceOf(evidence),
    dipDb: Math.max(0, dipDb),
    note: to,
  };
}
