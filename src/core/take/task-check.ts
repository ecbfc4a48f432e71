import { said, Said } from '../words/said';
import { median } from '../signal/stats';
import { HOP_S } from '../voice/types';
import { Contour, framesIn } from './contour';
import { Asked, Leg, PatternSung, SungNote, Task } from './types';

/** Share of singing spent on notes that stand still, over which a way from low to high is no slide, a take no siren, and under which it is no scale. */
const HELD_ON_THE_WAY = 0.33;
const MOSTLY_HELD = 0.4;
const HARDLY_HELD = 0.1;
/** A pitch stands still when it moves less than this in 120 ms: a slow siren goes twice as fast. */
const STILL_ST = 0.25;
const STILL_S = 0.12;
const LONG_SLIDE_ST = 7;
/** A held note may wander this far. */
const ONE_NOTE_ST = 3;

/** What was sung instead of what was asked, in words for the coach; empty when it fits. */
export function taskMisfit(
  task: Task,
  contour: Contour,
  legs: Leg[],
  notes: SungNote[],
  pattern: PatternSung | null,
  asked: Asked | null,
): Said[] {
  const held = heldShare(contour);
  if (task === 'siren' && !isSlid(contour, legs))
    return [
      held > MOSTLY_HELD
        ? said('This sounds like separate notes, not one slide: sing a siren, or change the task.')
        : said('No slide of a fifth or more was heard: go further up and down.'),
    ];
  if (task === 'scale' && held < HARDLY_HELD)
    return [said('This sounds like a slide, not a scale: sing separate notes, or change the task.')];
  if (task === 'sustain' && notes.length > 1) {
    const pitches = notes.map((n) => n.midi + n.cents / 100);
    if (Math.max(...pitches) - Math.min(...pitches) > ONE_NOTE_ST && held < MOSTLY_HELD)
      return [said('This moves about: hold one note, or change the task.')];
  }
  if (task !== 'scale' || !asked) return [];
  if (asked.degrees && !pattern) return [said('The notes don’t follow the pattern asked for: sing it again, or change the pattern.')];
  const first = pattern?.keys[0];
  if (first && asked.tonicMidi !== undefined && first.tonicMidi !== asked.tonicMidi) {
    const octaves = Math.abs(first.tonicMidi - asked.tonicMidi) % 12 === 0;
    return [
      octaves
        ? first.tonicMidi < asked.tonicMidi
          ? said('Sung an octave lower than asked: that is fine for another voice type.')
          : said('Sung an octave higher than asked: that is fine for another voice type.')
        : said('Sung in {sung}, asked for in {asked}: give the key again, or take this one.', {
            sung: { key: first.tonicMidi },
            asked: { key: asked.tonicMidi },
          }),
    ];
  }
  return [];
}

/** Whether what goes up and down by more than a fifth is slid, not stepped. A slide may begin on a held note, or after a leap. */
export function isSlid(contour: Contour, legs: Leg[]): boolean {
  const long = legs.filter((l) => l.highestMidi - l.lowestMidi > LONG_SLIDE_ST);
  // Too short a way tells nothing.
  const held = long.map((leg) => heldShare(onTheWay(contour, leg))).map((share) => (Number.isNaN(share) ? 1 : share));
  return long.length > 0 && median(held) < HELD_ON_THE_WAY;
}

/** What lies this near the ends of a leg may be held before and after. */
const AT_THE_ENDS_ST = 1;

function onTheWay(contour: Contour, { startS, endS, lowestMidi, highestMidi }: Leg): Contour {
  const leg = contour.subarray(Math.round(startS / HOP_S), Math.round(endS / HOP_S));
  const inside = (midi: number) => midi > lowestMidi + AT_THE_ENDS_ST && midi < highestMidi - AT_THE_ENDS_ST;
  return leg.subarray(Math.max(0, leg.findIndex(inside)), leg.findLastIndex(inside) + 1);
}

/** Share of sung time in which the pitch stands still. */
function heldShare(contour: Contour): number {
  const back = framesIn(STILL_S);
  let sung = 0;
  let still = 0;
  for (let i = back; i < contour.length; i++) {
    const moved = Math.abs(contour[i] - contour[i - back]);
    if (Number.isNaN(moved)) continue;
    sung++;
    if (moved < STILL_ST) still++;
  }
  return sung * HOP_S > 0.3 ? still / sung : NaN;
}
