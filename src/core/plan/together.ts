// Several voices at once: a section, a choir, a class.
import { inVoice, keysFor } from '../exercise/keys';
import { patternSpan } from '../exercise/pattern';
import type { Exercise } from '../exercise/types';
import type { Planning } from './check';
import { anchorsIn, type OccasionSet, setsFor } from './occasions';
import { itemFor } from './plan';
import type { PlanItem } from './types';
import { familyOf, VoiceTypeId } from './voice-types';

/** More don't fit a room, and their plans a moment. */
export const MOST_TOGETHER = 60;
const OCTAVE = 12;

/** Of voices that sing together, so many semitones each sings under what is written: low ones an octave, where there are high ones too. */
export function octavesUnder(voices: readonly VoiceTypeId[]): number[] {
  const mixed = voices.some((v) => familyOf(v) === 'low') && voices.some((v) => familyOf(v) === 'high');
  return voices.map((v) => (mixed && familyOf(v) === 'low' ? OCTAVE : 0));
}

/** A voice among others. */
interface Voice {
  p: Planning;
  /** Semitones it sings under what is written. */
  under: number;
}

const among = (voices: readonly Planning[]): Voice[] => {
  const under = octavesUnder(voices.map((p) => p.voiceType));
  return voices.map((p, i) => ({ p, under: under[i] }));
};

/** The notes that all of them may sing, as written, MIDI; null where there are none, or nobody sings. */
export function sharedRange(voices: readonly Planning[]): { low: number; high: number } | null {
  const all = among(voices);
  const low = Math.max(...all.map(({ p, under }) => p.anchors.low + under));
  const high = Math.min(...all.map(({ p, under }) => p.anchors.high + under));
  return all.length > 0 && low < high ? { low, high } : null;
}

/**
 * The sets that all of these voices may sing at once, as written: of the keys each would take those that are in everybody's voice, and
 * nothing that a rule keeps from one of them; as slow as the slowest, and no longer than the shortest day among them. Empty where nothing
 * is left.
 */
export function togetherSets(plannings: readonly Planning[]): OccasionSet[] {
  if (plannings.length === 0) return [];
  const voices = among(plannings);
  return setsFor({
    find: plannings[0].find,
    minutesADay: Math.min(...plannings.map((p) => p.minutesADay)),
    keysIn: (e, low) => keysTogether(e, voices, low),
    itemFor: (e, part) => {
      const items = plannings.map((p) => itemFor(e, part, p, ['occasion']));
      return { ...items[0], tempo: Math.min(...items.map((it) => it.tempo)) };
    },
  });
}

/** A set for all, as one of them is given it to practise: in the octave that voice sings in, with what is said to that voice alone. */
export const setInVoice = ({ items }: OccasionSet, p: Planning, under: number): PlanItem[] =>
  items.map((it) => {
    const { reason, caution, rules, advance } = itemFor(p.find(it.exerciseId)!, it.part, p, ['occasion']);
    return { ...it, keys: it.keys.map((key) => key - under), reason, caution, rules, advance };
  });

function keysTogether(e: Exercise, voices: readonly Voice[], low: boolean): number[] {
  const span = patternSpan(e);
  const sung = voices.map(({ p, under }) => ({ under, anchors: anchorsIn(e, p, low) }));
  const walks = sung.map(({ under, anchors }) => (anchors ? keysFor(e, anchors).map((key) => key + under) : []));
  const shared = [...new Set(walks.flat())].filter((key) =>
    sung.every(({ under, anchors }) => anchors !== null && inVoice(span, key - under, anchors)),
  );
  const down = walks.some((walk) => walk.length > 1 && walk[0] > walk[walk.length - 1]);
  const most = Math.max(...walks.map((walk) => walk.length));
  return shared.sort((a, b) => (down ? b - a : a - b)).slice(0, most);
}
