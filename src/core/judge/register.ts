import type { TakeEvent } from '../take/types';
import { Check, eventIn, Hearing, SURE, whereIn } from './hearing';
import type { KeyHeard } from './types';

export const changedAtOnce: Check = {
  fault: 'changed-at-once',
  verdict: 'not yet',
  applies: ({ asked, audible }) => asked.exercise.measure === 'blends' && audible.colour,
  look(key, hearing) {
    const found = eventIn(key, hearing, COLOUR_EVENTS);
    // What every voice may do once by the way is a change when it comes again at its place.
    const again = hearing.events.filter(
      (e) => COLOUR_EVENTS.includes(e.kind) && e.confidence >= SURE && found && Math.abs(e.midi - found.midi) <= SAME_PLACE_ST,
    );
    return found && again.length >= LEAST_TIMES ? whereIn(key, found) : null;
  },
};

const COLOUR_EVENTS: readonly TakeEvent['kind'][] = ['timbre', 'dip'];
/** Ways up and down differ by hysteresis. */
const SAME_PLACE_ST = 2.5;
const LEAST_TIMES = 2;

/** A key crosses the change when it reaches so far to both sides of it. */
export const CROSSES_ST = 1.5;
const crosses = (key: KeyHeard, { crossing }: Hearing) =>
  crossing !== null &&
  key.notes.some((n) => n.midi <= crossing.changeMidi - CROSSES_ST) &&
  key.notes.some((n) => n.midi >= crossing.changeMidi + CROSSES_ST);

export const chestCarried: Check = {
  fault: 'chest-carried',
  verdict: 'not yet',
  look: (key, hearing) =>
    crosses(key, hearing) && hearing.crossing!.handOver === 'carried' ? { midi: Math.round(hearing.crossing!.changeMidi) } : null,
};

export const notHeard: Check = {
  fault: 'hand-over-not-heard',
  verdict: 'not told',
  look: (key, hearing) =>
    crosses(key, hearing) && hearing.crossing!.handOver === 'not told' ? { midi: Math.round(hearing.crossing!.changeMidi) } : null,
};
