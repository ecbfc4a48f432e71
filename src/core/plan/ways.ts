import { Strand } from '../exercise/types';
import { SchoolId } from '../map/schools';
import { FindingName } from '../map/types';
import { Phase } from './types';

/** How a school goes about it (common practice, no source): it moves the keys, the vowels, the order and the phases. */
export interface Way {
  /** Semitones the stepwise crossing work lies above the change. */
  shiftSt: number;
  /** Sounds taken first where an exercise offers them among its easy ones. */
  sounds: readonly string[];
  likes: readonly string[];
  strands: readonly Strand[];
  /** What counts as success there. */
  success: string;
  /** What the work on the change leads to there, in the place of `JOIN`. */
  join?: Partial<Pick<Phase, 'name' | 'aim' | 'until' | 'likes' | 'strands' | 'weight'>>;
  /** What it begins with, where the voice bears it. */
  begins?: Phase;
}

/** Shares of a week that go into songs, from the first phases to the last (common practice, no source). */
const EARLY_CARRY = 0.1;
const CORE_CARRY = 0.2;
const JOIN_CARRY = 0.35;
const SONG_CARRY = 0.5;

const phase = (
  id: string,
  name: string,
  weeks: [number, number],
  weight: Phase['weight'],
  strands: Strand[],
  aim: string,
  until: string,
  likes: string[] = [],
  carryShare = EARLY_CARRY,
): Phase => ({ id, name, weeks, weight, strands, aim, until, likes, carryShare });

const RELEASE = phase(
  'release',
  'Release',
  [4, 6],
  -1,
  ['crossing', 'straw'],
  'Let go of the squeeze on the way through, a little breathy if need be; nothing that adds weight.',
  'the siren goes through both ways without a scratch on three days running',
  ['release-siren', 'falling-siren', 'straw-and-hoo'],
);
const CORE = phase(
  'core',
  'Rebuild core',
  [4, 6],
  1,
  ['head', 'crossing'],
  'Give the released sound its core back, from above downward.',
  'the first head notes hold clear for four beats, and the siren still goes through',
  ['first-head-hold', 'cry-fifth', 'twang-fifth'],
  CORE_CARRY,
);
const JOIN = phase(
  'join',
  'Join',
  [4, 8],
  0,
  ['crossing', 'evenness'],
  'Steps, arpeggios and open vowels across the change.',
  'the seamless siren on “ah” is hard to place by ear',
  ['five-note-ah', 'octave-arpeggio', 'narrow-slide'],
  JOIN_CARRY,
);
const CARRY = phase(
  'carry',
  'Into songs',
  [4, 12],
  0,
  ['evenness', 'range'],
  'Longer, faster, opener; and all of it into songs.',
  'the coach hears it in a whole song',
  ['nine-note', 'octave-and-a-fifth', 'triplet-run'],
  SONG_CARRY,
);

/** Chest is carried up as far as is safe before it hands over: for those who don't carry it too high already. */
const STRETCH = phase(
  'stretch',
  'Stretch chest',
  [3, 5],
  1,
  ['chest', 'crossing'],
  'Carry chest and the called middle up a little at a time, each belted note followed by a light one.',
  'the call reaches two notes higher than it did, without a scratch, on three days',
  ['call-out', 'say-then-sustain', 'toggle-flip'],
);
/** Head leads from above: for those whose chest isn't to be built first. */
const FROM_ABOVE = phase(
  'from-above',
  'Head from above',
  [3, 5],
  -1,
  ['head', 'crossing'],
  'Begin every line in head and bring it down, thin, as low as it will go.',
  'a falling scale stays in head to three notes under the change, four times of five',
  ['five-from-top', 'top-down-arpeggio', 'one-way-slide'],
);

export const WAYS: Record<SchoolId, Way> = {
  classical: {
    shiftSt: 0,
    sounds: ['oo', 'oh', 'oh to oo'],
    likes: ['rounding-scale', 'hoot-octave', 'octave-scale'],
    strands: ['evenness', 'head'],
    success: 'the vowel rounds in time and the loudness stays even across both passaggi',
    join: {
      name: 'Round in time',
      aim: 'Round the vowel before the first passaggio and shade it at the second; scales and arpeggios, all of one loudness.',
      until: 'the rounding scale is even, and nobody hears where the vowel turned',
      likes: ['rounding-scale', 'octave-scale', 'even-fifths'],
      strands: ['evenness', 'crossing'],
    },
  },
  bridges: {
    shiftSt: 1,
    sounds: ['wee', 'nay', 'ng-ee', 'nyeh', 'twangy ah'],
    likes: ['forward-mix', 'twang-fifth', 'cry-siren'],
    strands: ['crossing'],
    success: 'each bridge is passed with a narrow, bright sound and no spread',
    join: {
      name: 'Bridge by bridge',
      aim: 'Narrow, bright sounds over each bridge, then the same with open vowels.',
      until: 'five notes on “nay”, then on “ah”, cross each bridge without a spread',
      likes: ['forward-mix', 'twang-fifth', 'five-note-ah'],
    },
  },
  'chest-first': {
    shiftSt: 2,
    sounds: ['ya', 'hey', 'nay', 'yeh'],
    likes: ['call-out', 'cry-siren', 'toggle-flip', 'say-then-sustain'],
    strands: ['chest', 'crossing'],
    success: 'chest reaches a little higher without a scratch, and can be let go of on purpose',
    begins: STRETCH,
    join: {
      name: 'Let go on purpose',
      aim: 'From the stretched middle over into head where you choose, a note earlier each week.',
      until: 'the same line goes over early, late or not at all, as you wish',
      likes: ['toggle-slide', 'octave-arpeggio', 'five-note-ah'],
    },
  },
  'early-connect': {
    shiftSt: -2,
    sounds: ['hoo', 'oo', 'ng'],
    likes: ['one-way-slide', 'five-from-top', 'top-down-arpeggio', 'toggle-scale-down'],
    strands: ['head', 'crossing'],
    success: 'head leads from low down and nothing thickens on the way',
    begins: FROM_ABOVE,
    join: {
      name: 'Connect low',
      aim: 'Hand over as low as it goes, lightly; lines and runs that never thicken.',
      until: 'five notes and their runs stay as light below the change as above it',
      likes: ['toggle-scale-down', 'riff-hoo', 'five-note-ah'],
      weight: -1,
    },
  },
  'release-first': {
    shiftSt: 0,
    sounds: ['breathy oo', 'hoo', 'hoo-hey'],
    likes: ['release-siren', 'h-crossing', 'straw-and-hoo'],
    strands: ['straw', 'crossing'],
    success: 'the voice goes through without squeezing, breathy or not',
    join: {
      name: 'Join without squeezing',
      aim: 'Steps and open vowels with the released sound, core added a little at a time.',
      until: 'the seamless siren on “ah” keeps its ease, and is hard to place by ear',
      likes: ['h-crossing', 'narrow-slide', 'five-note-ah'],
    },
  },
  covered: {
    shiftSt: -1,
    sounds: ['oh', 'oo', 'yawned oh', 'oh to oo'],
    likes: ['rounding-scale', 'hoot-octave', 'loud-soft-triad'],
    strands: ['evenness', 'crossing'],
    success: 'the upper notes are solid and dark, and not shouted',
    join: {
      name: 'Cover the turn',
      aim: 'Darker and rounder from the first passaggio on, solid and never shouted.',
      until: 'the covered notes are as loud as those below, and no louder',
      likes: ['rounding-scale', 'loud-soft-triad', 'hoot-octave'],
      strands: ['evenness', 'crossing'],
    },
  },
};

/** For voices that are small, young or changing. */
export const COMFORT = phase(
  'comfort',
  'Comfortable band',
  [3, 4],
  0,
  ['evenness'],
  'Sing where it is easy, falling more than rising, and nothing at the ends.',
  'the next listening shows a wider voice',
  ['three-note-fall', 'gentle-fifth-glide', 'five-four-three'],
);

/** The way from a finding to a voice at ease, in phases (common practice, no source). */
const BY_FINDING: Record<FindingName, readonly Phase[]> = {
  'pulled-chest': [RELEASE, CORE, JOIN, CARRY],
  'no-chest': [
    phase(
      'find-chest',
      'Find chest',
      [4, 6],
      1,
      ['chest'],
      'Build chest low down, from speech, where it is safe.',
      'the low phrase sounds like speech in every key',
      ['low-chest-phrase', 'say-then-sustain', 'toggle-down'],
    ),
    JOIN,
    CARRY,
  ],
  flip: [
    phase(
      'lighten',
      'Lighten both sides',
      [2, 4],
      -1,
      ['crossing', 'straw'],
      'Make the leap small by making both sides light.',
      'the falling siren comes down without a leap, four times of five',
      ['falling-siren', 'one-way-slide', 'ng-swoop'],
    ),
    phase(
      'cross',
      'Cross slowly',
      [3, 5],
      0,
      ['crossing', 'head'],
      'Slides both ways, and core for the first head notes.',
      'the long siren crosses both ways on three days running',
      ['long-siren', 'cry-siren', 'h-crossing'],
      CORE_CARRY,
    ),
    JOIN,
    CARRY,
  ],
  toggle: [
    phase(
      'smooth',
      'Smooth the seam',
      [3, 4],
      0,
      ['crossing'],
      'Slide through the seam, wide first, then narrow.',
      'the narrow slide shows no step on three days running',
      ['long-siren', 'narrow-slide'],
    ),
    JOIN,
    CARRY,
  ],
  'weak-first-head': [CORE, JOIN, CARRY],
  'uneven-loudness': [
    phase(
      'even',
      'Even the line',
      [3, 4],
      0,
      ['evenness'],
      'Match neighbours: nothing jumps out, higher is not louder by force.',
      'no note strays more than 3 dB from the line on three days',
      ['even-fifths', 'loud-soft-triad'],
    ),
    JOIN,
    CARRY,
  ],
  blended: [JOIN, CARRY],
};

/** What a voice bears of a school's own beginning. */
export interface Bears {
  /** Nothing may be taken off a light voice. */
  light: boolean;
  /** Nothing is stretched in a young one. */
  minor: boolean;
}

/** Findings that have to be worked on before a school's own beginning. */
const FIRST: readonly FindingName[] = ['pulled-chest', 'no-chest', 'weak-first-head'];

/** The phases of a plan: from what holds the voice back most, as its school goes about it. */
export function phasesFor(school: SchoolId, leading: FindingName | undefined, { light, minor }: Bears): readonly Phase[] {
  const { begins, join } = WAYS[school];
  const usual = (leading ? BY_FINDING[leading] : [JOIN, CARRY]).map((ph) => (ph === JOIN ? { ...JOIN, ...join } : ph));
  // Release-first teaches letting go to all who cross audibly; a light voice has nothing to let go of.
  if (school === 'release-first' && !light && (leading === 'flip' || leading === 'toggle')) return [RELEASE, ...usual];
  const bears = begins && !(begins.weight < 0 && light) && !(begins.weight > 0 && minor);
  return bears && leading && leading !== 'blended' && !FIRST.includes(leading) ? [begins, ...usual] : usual;
}
