import { fitWeightedLine } from '../signal/stats';
import { NoteProfile } from '../take/types';
import { Audible } from './sounds';

/**
 * What speaks for a hand-over, in nats: each sign times its weight, the slope and what grows above the change squared as well, and what is
 * left when all are 0.
 */
type Weighing = Record<Sign | 'slopePerStSquared' | 'growingSquared' | 'constant', number>;

/**
 * By logistic regression on takes of three unrelated makers in rooms (two of them the project's; 450 to 680 takes on each kind of sound)
 * that hand over, and that carry chest through, the change known exactly and about a semitone off. A voice that hands over has more first
 * harmonic above, falls off more steeply, and stops growing louder; one that carries chest grows louder with every semitone, and rougher.
 * It falls off far more steeply, too, where the tract is tuned to its second harmonic: so neither is far from the usual good.
 */
const WEIGHINGS: Record<'open' | 'closed' | 'colourless', Weighing> = {
  open: {
    first: 0.218,
    slopePerSt: 5.83,
    slopePerStSquared: -2.66,
    levelPerSt: -2.13,
    levelAbovePerSt: -0.42,
    growingSquared: -0.01,
    unrest: 2.56,
    noiseDb: -0.37,
    constant: 0.34,
  },
  closed: {
    first: 0.049,
    slopePerSt: 5.97,
    slopePerStSquared: -3.68,
    levelPerSt: -0.38,
    levelAbovePerSt: -0.5,
    growingSquared: -0.6,
    unrest: 1.86,
    noiseDb: -0.28,
    constant: 0.96,
  },
  colourless: {
    first: 0.091,
    slopePerSt: 3.97,
    slopePerStSquared: -1.23,
    levelPerSt: 0,
    levelAbovePerSt: 0,
    growingSquared: -0.49,
    unrest: 2.66,
    noiseDb: -0.17,
    constant: 0.03,
  },
};
/** What a sign tells no more of beyond: it holds some 98 in 100 of those takes. */
const BOUNDS: Record<Sign, [least: number, most: number]> = {
  first: [-30, 30],
  slopePerSt: [-0.6, 1.3],
  levelPerSt: [-2.5, 3.5],
  levelAbovePerSt: [-2.5, 3.5],
  unrest: [-1.5, 1.5],
  noiseDb: [-12, 12],
};
const SIGNS = Object.keys(BOUNDS) as Sign[];
/** What a voice is known to do counts before it is heard doing it again, nats. */
const KNOWN_NATS = 1.5;
/** A place of a change is known to two semitones at best, and a day differs from another by as much: so far beside it is looked as well. */
const PLACES_ST = [-2, -1, 0, 1, 2];
/**
 * So much must speak for a hand-over that it is heard, and so much against it that chest was carried; between the two it can't be told. Of
 * those takes 92 to 95 in 100 that hand over are heard to, of those that carry chest 1 in 12 on open vowels, 1 in 9 on closed ones, 1 in 3
 * where colour is hidden (a straw, lips, the nose).
 */
const NEEDED_NATS = { open: -0.3, closed: 0, colourless: -0.6 };
const CARRIED_NATS = { open: 1.2, closed: 0.8, colourless: 1.3 };

/**
 * Whether chest handed over across the change in a take: heard, carried through instead, or not told. Where a sound hides the colour
 * (a straw, lips, the nose) a take that hardly reaches over the change passes.
 */
export function handOver(
  profile: readonly NoteProfile[],
  { colour, closed }: Audible,
  changeMidi: number,
  handsOver: boolean | null,
): 'heard' | 'carried' | 'not told' {
  if (!colourSigns(profile, changeMidi)) return colour ? 'not told' : 'heard';
  const kind = colour ? (closed ? 'closed' : 'open') : 'colourless';
  const byPlace = PLACES_ST.flatMap((off) => {
    const signs = colourSigns(profile, changeMidi + off);
    return signs ? [natsFor(WEIGHINGS[kind], signs)] : [];
  });
  const known = handsOver === null ? 0 : handsOver ? KNOWN_NATS : -KNOWN_NATS;
  // Each place is as likely: their evidence is a mean of odds.
  const nats = known + Math.log(byPlace.reduce((sum, n) => sum + Math.exp(n), 0) / byPlace.length);
  if (nats <= -CARRIED_NATS[kind]) return 'carried';
  return nats >= NEEDED_NATS[kind] ? 'heard' : 'not told';
}

function natsFor(w: Weighing, signs: ColourSigns): number {
  const within = (sign: Sign) => Math.max(BOUNDS[sign][0], Math.min(BOUNDS[sign][1], signs[sign]));
  const squared = w.slopePerStSquared * within('slopePerSt') ** 2 + w.growingSquared * Math.max(0, within('levelAbovePerSt')) ** 2;
  return SIGNS.reduce((sum, sign) => sum + w[sign] * within(sign), w.constant + squared);
}

/** What the notes above a change have over those below it, in the units of the profile. */
export interface ColourSigns {
  /** More first harmonic above than below, dB. */
  first: number;
  /** Steeper fall of the harmonics, dB an octave, and more level, dB, with each semitone up over all notes. */
  slopePerSt: number;
  levelPerSt: number;
  /** More level with each semitone from the change up, dB. */
  levelAbovePerSt: number;
  /** More unrest of pitch above than below, as a natural logarithm. */
  unrest: number;
  /** More noise beside the harmonics above than below, dB. */
  noiseDb: number;
}
type Sign = keyof ColourSigns;

/** Notes this near to the change are on neither side of it. */
const AT_CHANGE_ST = 1;
/** A note counts up to so many seconds, and a side needs as many. */
const MOST_S = 1;
const LEAST_SIDE_S = 0.2;
/** Less of a note than this is never taken for noise, as a share. */
const LEAST_NOISE = 1e-4;

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
  const more = (of: Of) => {
    const mean = (some: typeof notes) => some.reduce((s, n) => s + n.weight * of(n), 0) / seconds(some);
    return mean(above) - mean(below);
  };
  const perSt = (some: typeof notes, of: Of) => {
    if (some.length < 2) return 0;
    const { slope } = fitWeightedLine(
      some.map((n) => n.midi),
      some.map(of),
      some.map((n) => n.weight),
    );
    return slope;
  };
  return {
    first: more((n) => n.firstDb),
    slopePerSt: perSt(notes, (n) => n.slopeDb),
    levelPerSt: perSt(notes, (n) => n.levelDb),
    levelAbovePerSt: perSt(
      notes.filter((n) => n.midi >= changeMidi - AT_CHANGE_ST),
      (n) => n.levelDb,
    ),
    unrest: more((n) => Math.log(1 + n.jitterCents)),
    noiseDb: more((n) => 10 * Math.log10(Math.max(LEAST_NOISE, 1 - n.clarity))),
  };
}
