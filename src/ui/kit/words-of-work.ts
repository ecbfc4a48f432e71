import { AIMS, Family, LoudnessShape, Place, Role, Strand } from '../../core/exercise/types';
import { COLOUR_WORDS } from '../../core/take/types';
import { texts } from '../../core/words/said';

export const FAMILY_WORDS: Record<Family, string> = texts({
  scale: 'Scales',
  siren: 'Sirens',
  straw: 'Straw',
  trill: 'Trills and hums',
  toggle: 'Toggles',
  hold: 'Holds',
  speech: 'Speech to song',
  connector: 'Connectors',
  riff: 'Runs',
  range: 'Range',
  phrase: 'Phrases',
});

export const STRAND_WORDS: Record<Strand, string> = texts({
  crossing: 'Crossing',
  head: 'Head strength',
  chest: 'Chest strength',
  range: 'Range',
  evenness: 'Evenness',
  straw: 'Straw',
});

export const ROLE_WORDS: Record<Role, string> = texts({
  'warm-up': 'Warm-up',
  straw: 'Straw or trill',
  work: 'Work',
  carry: 'Into a song',
  test: 'Test',
  'cool-down': 'Cool-down',
});

export const AIM_WORDS: Record<(typeof AIMS)[number], string> = {
  ...COLOUR_WORDS,
  ...texts({ across: 'from one to the other' }),
};

export const LOUDNESS_WORDS: Record<LoudnessShape, string> = texts({
  even: 'even',
  'softer-up': 'softer going up',
  'fuller-up': 'fuller going up',
  soft: 'soft throughout',
  swell: 'swelling and dying away',
});

export const PLACE_WORDS: Record<Place, string> = texts({ away: 'away from the change', across: 'across the change', at: 'at the change' });

export const WEIGHT_WORDS = texts({ '-1': 'takes weight off', '0': 'leaves weight as it is', '1': 'adds weight' });
export const weightWords = (weight: -1 | 0 | 1): string => WEIGHT_WORDS[`${weight}`];
