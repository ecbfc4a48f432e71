import { NoteProfile } from '../take/types';
import { Audible } from './sounds';

/** What speaks for a hand-over, in nats: each sign times its weight, and what is left when all are 0. */
interface Weighing {
  first: number;
  slopePerSt: number;
  levelPerSt: number;
  constant: number;
}

/**
 * By logistic regression on voices of two unrelated makers in rooms (150 to 230 takes on each kind of sound) that hand over, and that
 * carry chest through: a voice that hands over falls off more steeply and has more first harmonic above; one that carries chest grows
 * louder with every semitone.
 */
const WEIGHINGS: Record<'open' | 'closed' | 'colourless', Weighing> = {
  open: { first: 0.16, slopePerSt: 2.3, levelPerSt: -1.8, constant: 0.8 },
  closed: { first: 0.09, slopePerSt: 1, levelPerSt: -0.7, constant: 1.3 },
  colourless: { first: 0.12, slopePerSt: 1.1, levelPerSt: -0.66, constant: 1.3 },
};
/** What a voice is known to do counts before it is heard doing it again, nats. */
const KNOWN_NATS = 1.5;
/** So much must speak for it. */
const NEEDED_NATS = { open: 0, closed: 0.15 };
/** That chest was carried must be plainer the less a sound tells; where colour is hidden all else passes. */
const CARRIED_NATS = { open: 0.5, closed: 1.2, colourless: 1.6 };

/**
 * Whether chest handed over across the change in a take: heard, carried through instead, or not told. Where a sound hides the colour
 * (a straw, lips, the nose) only plain pushing can be heard, and what isn't pushed passes.
 */
export function handOver(
  profile: readonly NoteProfile[],
  { colour, closed }: Audible,
  changeMidi: number,
  handsOver: boolean | null,
): 'heard' | 'carried' | 'not told' {
  const signs = colourSigns(profile, changeMidi);
  if (!signs) return colour ? 'not told' : 'heard';
  const kind = colour ? (closed ? 'closed' : 'open') : 'colourless';
  const w = WEIGHINGS[kind];
  const known = handsOver === null ? 0 : handsOver ? KNOWN_NATS : -KNOWN_NATS;
  const nats = known + w.constant + w.first * signs.first + w.slopePerSt * signs.slopePerSt + w.levelPerSt * signs.levelPerSt;
  if (nats <= -CARRIED_NATS[kind]) return 'carried';
  return kind === 'colourless' || nats >= NEEDED_NATS[kind] ? 'heard' : 'not told';
}

/** What the notes above a change have over those below it, in the units of the profile. */
export interface ColourSigns {
  /** More first harmonic above than below, dB. */
  first: number;
  /** Steeper fall of the harmonics, dB an octave, and more level, dB, with each semitone up over all notes. */
  slopePerSt: number;
  levelPerSt: number;
}

/** Notes this near to the change are on neither side of it. */
const AT_CHANGE_ST = 1;
/** A note counts up to so many seconds, and a side needs as many. */
const MOST_S = 1;
const LEAST_SIDE_S = 0.2;

/** How the colour differs across a change; null where too little was sung on one side of it. */
export function colourSigns(profile: readonly NoteProfile[], changeMidi: number): ColourSigns | null {
  const notes = profile.flatMap((n) =>
    n.slopeDb == null || n.firstDb == null ? [] : [{ ...n, slopeDb: n.slopeDb, firstDb: n.firstDb, weight: Math.min(MOST_S, n.seconds) }],
  );
  const above = notes.filter((n) => n.midi > changeMidi + AT_CHANGE_ST);
  const below = notes.filter((n) => n.midi < changeMidi - AT_CHANGE_ST);
  const seconds = (some: typeof notes) => some.reduce((s, n) => s + n.weight, 0);
  if (seconds(above) < LEAST_SIDE_S || seconds(below) < LEAST_SIDE_S) return null;
  type Of = (n: (typeof notes)[number]) => number;
  const mean = (some: typeof notes, of: Of) => some.reduce((s, n) => s + n.weight * of(n), 0) / seconds(some);
  const perSt = (of: Of) => {
    const [x, y] = [mean(notes, (n) => n.midi), mean(notes, of)];
    return (
      notes.reduce((s, n) => s + n.weight * (n.midi - x) * (of(n) - y), 0) / notes.reduce((s, n) => s + n.weight * (n.midi - x) ** 2, 0)
    );
  };
  return {
    first: mean(above, (n) => n.firstDb) - mean(below, (n) => n.firstDb),
    slopePerSt: perSt((n) => n.slopeDb),
    levelPerSt: perSt((n) => n.levelDb),
  };
}
