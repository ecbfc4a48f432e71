import { Strand } from '../exercise/types';
import { SchoolId } from '../map/schools';
import { FindingName } from '../map/types';
import { Gate, Phase } from './types';

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
  join?: Partial<Pick<Phase, 'name' | 'aim' | 'until' | 'likes' | 'strands' | 'weight' | 'ends'>>;
  /** What it begins with, where the voice bears it. */
  begins?: Phase;
}

/** Shares of a week that go into songs, from the first phases to the last (common practice, no source). */
const EARLY_CARRY = 0.1;
const CORE_CARRY = 0.2;
const JOIN_CARRY = 0.35;
const SONG_CARRY = 0.5;

type Usual = 'carryShare' | 'ends';
const phase = (of: Omit<Phase, Usual> & Partial<Pick<Phase, Usual>>): Phase => ({ carryShare: EARLY_CARRY, ends: [], ...of });
/** Sung as meant on so many of the days it was sung, one after another. */
const running = (days: number, ...sings: string[]): Gate => ({ sings, days });

const RELEASE = phase({
  id: 'release',
  name: 'Release',
  weeks: [4, 6],
  weight: -1,
  strands: ['crossing', 'straw'],
  aim: 'Let go of the squeeze on the way through, a little breathy if need be; nothing that adds weight.',
  until: 'the siren goes through both ways without a scratch on three days running',
  likes: ['release-siren', 'falling-siren', 'straw-and-hoo'],
  ends: [running(3, 'release-siren', 'siren-on-oo')],
});
const CORE = phase({
  id: 'core',
  name: 'Rebuild core',
  weeks: [4, 6],
  weight: 1,
  strands: ['head', 'crossing'],
  aim: 'Give the released sound its core back, from above downward.',
  until: 'the first head notes hold clear for four beats and the siren still goes through, three days running',
  likes: ['first-head-hold', 'cry-fifth', 'twang-fifth'],
  ends: [running(3, 'first-head-hold'), running(3, 'siren-on-oo', 'seamless-siren')],
  carryShare: CORE_CARRY,
});
const JOIN = phase({
  id: 'join',
  name: 'Join',
  weeks: [4, 8],
  weight: 0,
  strands: ['crossing', 'evenness'],
  aim: 'Steps, arpeggios and open vowels across the change.',
  until: 'the siren of the test shows no step three days running, and is hard to place by ear',
  likes: ['five-note-ah', 'octave-arpeggio', 'narrow-slide'],
  ends: [running(3, 'seamless-siren', 'siren-on-oo')],
  carryShare: JOIN_CARRY,
});
const CARRY = phase({
  id: 'carry',
  name: 'Into songs',
  weeks: [4, 12],
  weight: 0,
  strands: ['evenness', 'range'],
  aim: 'Longer, faster, opener; and all of it into songs.',
  until: 'the coach hears it in a whole song',
  likes: ['nine-note', 'octave-and-a-fifth', 'triplet-run'],
  carryShare: SONG_CARRY,
});

/** Chest is carried up as far as is safe before it hands over: for those who don't carry it too high already. */
const STRETCH = phase({
  id: 'stretch',
  name: 'Stretch chest',
  weeks: [3, 5],
  weight: 1,
  strands: ['chest', 'crossing'],
  aim: 'Carry chest and the called middle up a little at a time, each belted note followed by a light one.',
  until: 'the call goes through all its keys without a scratch on three days running',
  likes: ['call-out', 'say-then-sustain', 'toggle-flip'],
  ends: [running(3, 'call-out')],
});
/** Head leads from above: for those whose chest isn't to be built first. */
const FROM_ABOVE = phase({
  id: 'from-above',
  name: 'Head from above',
  weeks: [3, 5],
  weight: -1,
  strands: ['head', 'crossing'],
  aim: 'Begin every line in head and bring it down, thin, as low as it will go.',
  until: 'a falling line stays in head to three notes under the change on four days running',
  likes: ['five-from-top', 'top-down-arpeggio', 'one-way-slide'],
  ends: [running(4, 'five-from-top', 'top-down-arpeggio')],
});

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
      until: 'the rounding scale is even three days running, and nobody hears where the vowel turned',
      likes: ['rounding-scale', 'octave-scale', 'even-fifths'],
      ends: [running(3, 'rounding-scale')],
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
      until: 'five notes cross each bridge without a spread, three days running',
      likes: ['forward-mix', 'twang-fifth', 'five-note-ah'],
      ends: [running(3, 'forward-mix', 'five-note-ah')],
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
      until: 'the same line goes over early, late or not at all, as you wish, three days running',
      likes: ['toggle-slide', 'octave-arpeggio', 'five-note-ah'],
      ends: [running(3, 'toggle-slide', 'octave-arpeggio', 'five-note-ah', 'seamless-siren')],
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
      until: 'five notes and their runs stay as light below the change as above it, three days running',
      likes: ['toggle-scale-down', 'riff-hoo', 'five-note-ah'],
      ends: [running(3, 'toggle-scale-down', 'riff-hoo')],
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
      until: 'the covered notes are as loud as those below and no louder, three days running',
      likes: ['rounding-scale', 'loud-soft-triad', 'hoot-octave'],
      ends: [running(3, 'rounding-scale', 'loud-soft-triad')],
      strands: ['evenness', 'crossing'],
    },
  },
};

/** For voices that are small, young or changing. */
export const COMFORT = phase({
  id: 'comfort',
  name: 'Comfortable band',
  weeks: [3, 4],
  weight: 0,
  strands: ['evenness'],
  aim: 'Sing where it is easy, falling more than rising, and nothing at the ends.',
  until: 'the next listening shows a wider voice',
  likes: ['three-note-fall', 'gentle-fifth-glide', 'five-four-three'],
});

/** The way from a finding to a voice at ease, in phases (common practice, no source). */
const BY_FINDING: Record<FindingName, readonly Phase[]> = {
  'pulled-chest': [RELEASE, CORE, JOIN, CARRY],
  'no-chest': [
    phase({
      id: 'find-chest',
      name: 'Find chest',
      weeks: [4, 6],
      weight: 1,
      strands: ['chest'],
      aim: 'Build chest low down, from speech, where it is safe.',
      until: 'the low phrase sounds like speech in every key, three days running',
      likes: ['low-chest-phrase', 'say-then-sustain', 'toggle-down'],
      ends: [running(3, 'low-chest-phrase')],
    }),
    JOIN,
    CARRY,
  ],
  flip: [
    phase({
      id: 'lighten',
      name: 'Lighten both sides',
      weeks: [2, 4],
      weight: -1,
      strands: ['crossing', 'straw'],
      aim: 'Make the leap small by making both sides light.',
      until: 'the falling siren comes down without a leap on four days running',
      likes: ['falling-siren', 'one-way-slide', 'ng-swoop'],
      ends: [running(4, 'falling-siren')],
    }),
    phase({
      id: 'cross',
      name: 'Cross slowly',
      weeks: [3, 5],
      weight: 0,
      strands: ['crossing', 'head'],
      aim: 'Slides both ways, and core for the first head notes.',
      until: 'the long siren crosses both ways on three days running',
      likes: ['long-siren', 'cry-siren', 'h-crossing'],
      ends: [running(3, 'long-siren')],
      carryShare: CORE_CARRY,
    }),
    JOIN,
    CARRY,
  ],
  toggle: [
    phase({
      id: 'smooth',
      name: 'Smooth the seam',
      weeks: [3, 4],
      weight: 0,
      strands: ['crossing'],
      aim: 'Slide through the seam, wide first, then narrow.',
      until: 'the narrow slide shows no step on three days running',
      likes: ['long-siren', 'narrow-slide'],
      ends: [running(3, 'narrow-slide')],
    }),
    JOIN,
    CARRY,
  ],
  'weak-first-head': [CORE, JOIN, CARRY],
  'uneven-loudness': [
    phase({
      id: 'even',
      name: 'Even the line',
      weeks: [3, 4],
      weight: 0,
      strands: ['evenness'],
      aim: 'Match neighbours: nothing jumps out, higher is not louder by force.',
      until: 'no note strays more than 3 dB from the line on three days running',
      likes: ['even-fifths', 'loud-soft-triad'],
      ends: [running(3, 'even-fifths', 'loud-soft-triad')],
    }),
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
