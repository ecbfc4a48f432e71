/** What a keyboard does. */
export type KeyboardMessage =
  { does: 'press'; midi: number; velocity: number } | { does: 'release'; midi: number } | { does: 'pedal'; down: boolean };

/** How hard a key is pressed that has no touch (the ladder's, a letter): as a hand plays that gives a note. */
export const NO_TOUCH = 0.7;

// Status bytes and controllers of the MIDI 1.0 detailed specification, tables I to III (from memory).
const NOTE_OFF = 0x80;
const NOTE_ON = 0x90;
const CONTROL_CHANGE = 0xb0;
const DAMPER_PEDAL = 64;
/** A switch is on from here. */
const ON_FROM = 64;
const MOST = 127;

/**
 * A message of a keyboard: a key pressed (velocity 0 to 1), let go of, or the damper pedal; null for all else. On every channel alike.
 *
 * @example keyboardMessage([0x90, 60, 127]) // { does: 'press', midi: 60, velocity: 1 }
 */
export function keyboardMessage([status, first, second]: ArrayLike<number> & Iterable<number>): KeyboardMessage | null {
  // What runs on without a status, or is cut short, says nothing.
  if (!(status >= NOTE_OFF) || !(first <= MOST) || !(second <= MOST)) return null;
  switch (status & 0xf0) {
    case NOTE_ON:
      // Pressed with no velocity is let go of.
      return second > 0 ? { does: 'press', midi: first, velocity: second / MOST } : { does: 'release', midi: first };
    case NOTE_OFF:
      return { does: 'release', midi: first };
    case CONTROL_CHANGE:
      return first === DAMPER_PEDAL ? { does: 'pedal', down: second >= ON_FROM } : null;
    default:
      return null;
  }
}

/** What sounds at a keyboard: keys held by a hand, and those let go of while the pedal holds them. */
export interface Played {
  held: readonly number[];
  pedalled: readonly number[];
  pedal: boolean;
}
export const NOTHING_PLAYED: Played = { held: [], pedalled: [], pedal: false };

/** What sounds after a message. */
export function played(now: Played, message: KeyboardMessage): Played {
  const without = (notes: readonly number[], midi: number) => notes.filter((m) => m !== midi);
  switch (message.does) {
    case 'press':
      return { ...now, held: [...without(now.held, message.midi), message.midi], pedalled: without(now.pedalled, message.midi) };
    case 'release': {
      if (!now.held.includes(message.midi)) return now;
      const held = without(now.held, message.midi);
      return now.pedal ? { ...now, held, pedalled: [...now.pedalled, message.midi] } : { ...now, held };
    }
    case 'pedal':
      return message.down ? { ...now, pedal: true } : { ...now, pedal: false, pedalled: [] };
  }
}

/** The notes that sound, lowest first. */
export const soundingNotes = ({ held, pedalled }: Played): number[] => [...held, ...pedalled].sort((a, b) => a - b);
