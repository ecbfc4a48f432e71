import { tonicName } from '../music/scale';
import { HOP_S } from '../voice/types';
import { Contour, framesIn } from './contour';
import { Asked, Leg, PatternSung, SungNote, Task } from './types';

/** Share of singing spent on notes that stand still, over which it is no siren, and under which it is no scale. */
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
): string[] {
  const held = heldShare(contour);
  const slides = legs.some((l) => l.highestMidi - l.lowestMidi > LONG_SLIDE_ST);
  if (task === 'siren' && (held > MOSTLY_HELD || !slides))
    return [
      held > MOSTLY_HELD
        ? 'This sounds like separate notes, not one slide: sing a siren, or change the task.'
        : 'No slide of a fifth or more was heard: go further up and down.',
    ];
  if (task === 'scale' && held < HARDLY_HELD) return ['This sounds like a slide, not a scale: sing separate notes, or change the task.'];
  if (task === 'sustain' && notes.length > 1) {
    const pitches = notes.map((n) => n.midi + n.cents / 100);
    if (Math.max(...pitches) - Math.min(...pitches) > ONE_NOTE_ST && held < MOSTLY_HELD)
      return ['This moves about: hold one note, or change the task.'];
  }
  if (task !== 'scale' || !asked) return [];
  if (asked.degrees && !pattern) return ['The notes don’t follow the pattern asked for: sing it again, or change the pattern.'];
  const first = pattern?.keys[0];
  if (first && asked.tonicMidi !== undefined && first.tonicMidi !== asked.tonicMidi) {
    const octaves = Math.abs(first.tonicMidi - asked.tonicMidi) % 12 === 0;
    return [
      octaves
        ? `Sung an octave ${first.tonicMidi < asked.tonicMidi ? 'lower' : 'higher'} than asked: that is fine for another voice type.`
        : `Sung in ${tonicName(first.tonicMidi)}, asked for in ${tonicName(asked.tonicMidi)}: give the key again, or take this one.`,
    ];
  }
  return [];
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
