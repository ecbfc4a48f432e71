import { said, Said } from '../words/said';
import { median } from '../signal/stats';
import { VoiceTrack } from '../voice/types';
import { contourOf } from './contour';
import { TimbreAxis, timbreParts } from './timbre';
import { Colour, COLOUR_WORDS, COLOURS } from './types';

/** Frames a colour needs (0.5 s). */
const FEWEST_FRAMES = 100;
/** The four may lie this far apart and still be one note. */
const SAME_NOTE_ST = 1;
/** Chest and head must stand this many standard deviations apart. */
const LEAST_APART = 2;
/** Chest to head on the calibrated axis, in the units of the plain one: what it usually spans there. */
const SPAN = 2.5;
/** A little of the identity keeps a very steady singer's covariance from being singular, dB squared. */
const RIDGE = 0.25;

/** A singer's own timbre axis, or why there is none. */
export type Calibration = { axis: TimbreAxis } | { reason: Said };

/**
 * A singer's own axis from chest to head: the same note in four colours, each a track of one held vowel. Vowel, room and
 * microphone are the same in all four, so only the register differs; the direction that tells chest from head best is
 * Fisher's (1936): the difference of their means over the scatter within the four. The blends have to lie between, in order.
 */
export function calibrate(takes: Record<Colour, VoiceTrack>): Calibration {
  const colours = COLOURS.map((colour) => ({ colour, ...frames(takes[colour]) }));
  const short = colours.find((c) => c.parts.length < FEWEST_FRAMES);
  if (short)
    return { reason: said('The note in {colour} is too short: hold it for a second or more.', { colour: COLOUR_WORDS[short.colour] }) };
  const pitches = colours.map((c) => c.midi);
  if (Math.max(...pitches) - Math.min(...pitches) > SAME_NOTE_ST)
    return {
      reason: said('The four are not on one note ({sung}): sing all on the same.', {
        sung: {
          all: colours.map((c) => said('{colour} {note}', { colour: COLOUR_WORDS[c.colour], note: { note: c.midi } })),
          as: 'comma',
        },
      }),
    };
  const means = colours.map((c) => mean(c.parts));
  const [a, b, d] = within(
    colours.map((c) => c.parts),
    means,
  );
  const [ds, df] = [means[3][0] - means[0][0], means[3][1] - means[0][1]];
  const determinant = a * d - b * b;
  // Inverse of the scatter times the difference. Neither part may count against the register: over a whole range that would
  // trade one error for another.
  const axis = { slope: Math.max(0, (d * ds - b * df) / determinant), first: Math.max(0, (a * df - b * ds) / determinant) };
  const apart = axis.slope * ds + axis.first * df;
  const scatter = Math.sqrt(a * axis.slope ** 2 + 2 * b * axis.slope * axis.first + d * axis.first ** 2);
  if (!(apart / scatter > LEAST_APART)) return { reason: said('Chest and head sound too alike here: make both more extreme.') };
  const along = means.map(([s, f]) => (axis.slope * (s - means[0][0]) + axis.first * (f - means[0][1])) / apart);
  if (along[1] > along[2] + 0.1) return { reason: said('The chest blend came out headier than the head blend: sing the two again.') };
  return { axis: { slope: (axis.slope * SPAN) / apart, first: (axis.first * SPAN) / apart, apart: apart / scatter } };
}

type Pair = [slope: number, first: number];

/** Timbre of every frame in the steady middle of a held note. */
function frames(track: VoiceTrack): { midi: number; parts: Pair[] } {
  const contour = contourOf(track);
  const sung = [...contour.keys()].filter((i) => !Number.isNaN(contour[i]));
  const middle = sung.slice(Math.floor(sung.length * 0.15), Math.ceil(sung.length * 0.85));
  return {
    midi: middle.length ? median(middle.map((i) => contour[i])) : NaN,
    parts: middle.map((i) => timbreParts(track, i)).filter((p): p is Pair => p !== null),
  };
}

const mean = (pairs: Pair[]): Pair => [0, 1].map((k) => pairs.reduce((s, p) => s + p[k], 0) / pairs.length) as Pair;

/** Pooled covariance within the groups: slope with itself, slope with first, first with itself. */
function within(groups: Pair[][], means: Pair[]): [number, number, number] {
  let [a, b, d, n] = [0, 0, 0, 0];
  groups.forEach((group, g) => {
    for (const [s, f] of group) {
      a += (s - means[g][0]) ** 2;
      b += (s - means[g][0]) * (f - means[g][1]);
      d += (f - means[g][1]) ** 2;
      n++;
    }
  });
  return [a / n + RIDGE, b / n, d / n + RIDGE];
}
