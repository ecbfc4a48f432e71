import type { Exercise } from '../exercise/types';
import { type Anchors, keysFor } from '../exercise/keys';
import { anchorsFor, blocked, Planning } from './check';
import { STEP_MINUTES, WEEK } from './dose';
import { itemFor } from './plan';
import { Part, PlanItem } from './types';

/** What a stage of a set is for, with the exercises that serve it, those asked for first in front (common practice, no source). */
const STAGES = {
  drone: { part: 'warm-up', ids: ['hum-drone', 'falling-hum'] },
  'low-middle': { part: 'warm-up', ids: ['five-note-warm-up', 'five-note-la', 'three-note-warm-up'] },
  'small-steps': { part: 'warm-up', ids: ['three-note-warm-up', 'three-note-fall', 'five-four-three'] },
  straw: { part: 'straw-before', ids: ['straw-slide', 'trill-triad', 'straw-in-water', 'hum-drone'] },
  'chest-chord': { part: 'warm-up', ids: ['triad-warm-up', 'nay-thirds', 'five-note-la'] },
  'low-release': { part: 'work', ids: ['low-relaxing', 'falling-hum', 'five-four-three'] },
  'long-scale': { part: 'work', ids: ['nine-note', 'octave-scale', 'tongue-trill-five', 'five-note-la'] },
  change: { part: 'work', ids: ['long-siren', 'falling-siren', 'lip-trill-siren', 'ng-swoop', 'gentle-fifth-glide'] },
  head: { part: 'work', ids: ['five-from-top', 'sigh-from-above', 'owl-hoot', 'hoot-octave'] },
  both: { part: 'work', ids: ['octave-arpeggio', 'top-down-arpeggio', 'toggle-flip', 'toggle-up'] },
  onset: { part: 'work', ids: ['soft-onset'] },
  glide: { part: 'work', ids: ['gentle-fifth-glide', 'sighing-down'] },
  'song-line': { part: 'carry', ids: ['song-line'] },
  fall: { part: 'work', ids: ['three-note-fall', 'five-four-three', 'falling-hum'] },
  cool: { part: 'straw-after', ids: ['sighing-down', 'falling-hum'] },
} satisfies Record<string, { part: Part; ids: readonly string[] }>;
type Stage = keyof typeof STAGES;

interface OfOccasion {
  name: string;
  /** When it is sung, and how, in a sentence a singer can read. */
  says: string;
  /** Its stages in the order sung, with minutes. */
  stages: readonly (readonly [Stage, number])[];
  /** Nothing reaches above the change. */
  low?: boolean;
}

/** Sets for what a day brings, beside the week's work (common practice, no source). */
export const OCCASIONS = {
  'warm-up-3': {
    name: 'Warm up, 3 minutes',
    says: 'For a short day, or a voice that has been moving already.',
    stages: [
      ['low-middle', 1],
      ['straw', 1],
      ['change', 1],
    ],
  },
  'warm-up-8': {
    name: 'Warm up, 8 minutes',
    says: 'Low middle first, then through the change, then the top.',
    stages: [
      ['low-middle', 1.5],
      ['straw', 1],
      ['chest-chord', 1],
      ['low-release', 1],
      ['change', 2],
      ['head', 1.5],
    ],
  },
  'warm-up-15': {
    name: 'Warm up, 15 minutes',
    says: 'The whole voice, a stage at a time; with a rest whenever it wants one.',
    stages: [
      ['drone', 1],
      ['low-middle', 2.5],
      ['straw', 1.5],
      ['chest-chord', 1.5],
      ['low-release', 1.5],
      ['long-scale', 2],
      ['change', 2],
      ['head', 1.5],
      ['both', 1.5],
    ],
  },
  'early-morning': {
    name: 'Early in the morning',
    says: 'A voice that was asleep: small, low and slow, and nothing above the change.',
    low: true,
    stages: [
      ['drone', 1.5],
      ['small-steps', 1.5],
      ['straw', 1.5],
      ['onset', 0.5],
      ['glide', 1],
    ],
  },
  'before-singing': {
    name: 'Just before going on',
    says: 'Quiet enough for a corridor: humming, soft beginnings, and a line of the first song.',
    stages: [
      ['drone', 1],
      ['straw', 1],
      ['onset', 0.5],
      ['song-line', 1],
    ],
  },
  'between-acts': {
    name: 'Between the acts',
    says: 'Two minutes that loosen what the last act left, with water and silence around them.',
    stages: [
      ['drone', 1],
      ['straw', 1],
    ],
  },
  'show-day': {
    name: 'The day of a show',
    says: 'Enough to be ready, and no more: the voice is for tonight.',
    stages: [
      ['small-steps', 1.5],
      ['low-middle', 1.5],
      ['straw', 2],
      ['change', 1.5],
      ['song-line', 1.5],
      ['cool', 0.5],
    ],
  },
  recovery: {
    name: 'The day after',
    says: 'After a show, a flight or an illness: easy, falling, and silence as needed.',
    low: true,
    stages: [
      ['drone', 1],
      ['straw', 1.5],
      ['fall', 1.5],
      ['cool', 1],
    ],
  },
  holiday: {
    name: 'On holiday',
    says: 'A few minutes that keep the voice moving.',
    stages: [
      ['small-steps', 1.5],
      ['straw', 1.5],
      ['glide', 1],
      ['cool', 0.5],
    ],
  },
  'cool-down': {
    name: 'Cool down',
    says: 'After much singing: let the voice come down to where it speaks.',
    low: true,
    stages: [
      ['straw', 1],
      ['fall', 1],
      ['cool', 1],
    ],
  },
} satisfies Record<string, OfOccasion>;
export type OccasionId = keyof typeof OCCASIONS;
export const OCCASION_IDS = Object.keys(OCCASIONS) as OccasionId[];

/** A set for an occasion in one voice. */
export interface OccasionSet {
  id: OccasionId;
  name: string;
  says: string;
  minutes: number;
  items: PlanItem[];
}

/** Who sings a set: one voice, or several together. */
export interface Singing {
  find(id: string): Exercise | undefined;
  /** The keys in which an exercise may be sung, nothing reaching above the change where it has to stay `low`; none where a rule keeps it out. */
  keysIn(e: Exercise, low: boolean): number[];
  itemFor(e: Exercise, part: Part): PlanItem;
  minutesADay: number;
}

const alone = (p: Planning): Singing => ({
  find: p.find,
  keysIn: (e, low) => keysIn(e, p, low),
  itemFor: (e, part) => itemFor(e, part, p, ['occasion']),
  minutesADay: p.minutesADay,
});

/**
 * The set for an occasion in this voice: for each stage the first of its exercises that this voice may sing now, in its own keys.
 * The minutes of a stage that nothing serves go to the one before it; no set is longer than a day's practice. Empty where nothing
 * may be sung.
 */
export const occasionSet = (id: OccasionId, p: Planning): PlanItem[] => setFor(id, alone(p));

/** @see occasionSet, for whoever sings it. */
function setFor(id: OccasionId, { find, keysIn, itemFor, minutesADay }: Singing): PlanItem[] {
  const { stages, low = false }: OfOccasion = OCCASIONS[id];
  const out: PlanItem[] = [];
  let spare = 0;
  for (const [stage, minutes] of stages) {
    const { part, ids } = STAGES[stage];
    const e = ids.map(find).find((of): of is Exercise => !!of && !out.some((it) => it.exerciseId === of.id) && keysIn(of, low).length > 0);
    if (!e) {
      if (out.length > 0) out[out.length - 1].minutes += minutes;
      else spare += minutes;
      continue;
    }
    out.push({ ...itemFor(e, part), keys: keysIn(e, low), minutes: minutes + spare, timesADay: 1, days: [...WEEK] });
    spare = 0;
  }
  return within(out, minutesADay);
}

/** Where an exercise may be sung in a set; null where a rule keeps it out. */
export function anchorsIn(e: Exercise, p: Planning, low: boolean): Anchors | null {
  if (blocked(e, p)) return null;
  const anchors = anchorsFor(e, p);
  return low ? { ...anchors, high: Math.min(anchors.high, anchors.change) } : anchors;
}

function keysIn(e: Exercise, p: Planning, low: boolean): number[] {
  const anchors = anchorsIn(e, p, low);
  return anchors ? keysFor(e, anchors) : [];
}

/** Shorter, the longest first, until all fits the minutes of a day. */
function within(items: PlanItem[], minutesADay: number): PlanItem[] {
  const out = items.map((it) => ({ ...it }));
  while (out.reduce((sum, it) => sum + it.minutes, 0) > minutesADay) {
    const longest = out.reduce((a, b) => (b.minutes > a.minutes ? b : a));
    if (longest.minutes > STEP_MINUTES) longest.minutes -= STEP_MINUTES;
    else out.pop();
  }
  return out;
}

/** All sets of this voice that hold anything. */
export const occasionSets = (p: Planning): OccasionSet[] => setsFor(alone(p));

/** @see occasionSets, for whoever sings them. */
export const setsFor = (singing: Singing): OccasionSet[] =>
  OCCASION_IDS.flatMap((id) => {
    const items = setFor(id, singing);
    const { name, says }: OfOccasion = OCCASIONS[id];
    return items.length ? [{ id, name, says, minutes: items.reduce((sum, it) => sum + it.minutes, 0), items }] : [];
  });

/** Until this hour (of the day, the singer's own) a voice is hardly awake. */
const EARLY_HOUR = 9;

/**
 * The set to begin with: young voices, and those that sang today already, need little; older ones more; early in the morning small
 * and low (common practice, no source).
 */
export function warmUpFor({
  minor,
  older,
  hour,
  sungToday,
}: {
  minor: boolean;
  older: boolean;
  hour: number;
  sungToday: boolean;
}): OccasionId {
  if (sungToday) return 'warm-up-3';
  if (hour < EARLY_HOUR) return 'early-morning';
  return minor ? 'warm-up-3' : older ? 'warm-up-15' : 'warm-up-8';
}
