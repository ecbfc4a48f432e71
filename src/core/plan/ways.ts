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
}

export const WAYS: Record<SchoolId, Way> = {
  classical: {
    shiftSt: 0,
    sounds: ['oo', 'oh', 'oh to oo'],
    likes: ['rounding-scale', 'hoot-octave', 'octave-scale'],
    strands: ['evenness', 'head'],
    success: 'the vowel rounds in time and the loudness stays even across both passaggi',
  },
  bridges: {
    shiftSt: 1,
    sounds: ['wee', 'nay', 'ng-ee', 'nyeh', 'twangy ah'],
    likes: ['forward-mix', 'twang-fifth', 'cry-siren'],
    strands: ['crossing'],
    success: 'each bridge is passed with a narrow, bright sound and no spread',
  },
  'chest-first': {
    shiftSt: 2,
    sounds: ['ya', 'hey', 'nay', 'yeh'],
    likes: ['call-out', 'cry-siren', 'toggle-flip', 'say-then-sustain'],
    strands: ['chest', 'crossing'],
    success: 'chest reaches a little higher without a scratch, and can be let go of on purpose',
  },
  'early-connect': {
    shiftSt: -2,
    sounds: ['hoo', 'oo', 'ng'],
    likes: ['one-way-slide', 'five-from-top', 'top-down-arpeggio', 'toggle-scale-down'],
    strands: ['head', 'crossing'],
    success: 'head leads from low down and nothing thickens on the way',
  },
  'release-first': {
    shiftSt: 0,
    sounds: ['breathy oo', 'hoo', 'hoo-hey'],
    likes: ['release-siren', 'h-crossing', 'straw-and-hoo'],
    strands: ['straw', 'crossing'],
    success: 'the voice goes through without squeezing, breathy or not',
  },
  covered: {
    shiftSt: -1,
    sounds: ['oh', 'oo', 'yawned oh', 'oh to oo'],
    likes: ['rounding-scale', 'hoot-octave', 'loud-soft-triad'],
    strands: ['evenness', 'crossing'],
    success: 'the upper notes are solid and dark, and not shouted',
  },
};

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

/** The phases of a plan: from what holds the voice back most, as its school goes about it. */
export function phasesFor(school: SchoolId, leading: FindingName | undefined, light: boolean): readonly Phase[] {
  const usual = leading ? BY_FINDING[leading] : [JOIN, CARRY];
  // Release-first teaches letting go to all who cross audibly; a light voice has nothing to let go of.
  if (school === 'release-first' && !light && (leading === 'flip' || leading === 'toggle')) return [RELEASE, ...usual];
  return usual;
}
