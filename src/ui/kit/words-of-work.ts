import { AIMS, Family, LoudnessShape, Material, Place, Role, Strand } from '../../core/exercise/types';

export const FAMILY_WORDS: Record<Family, string> = {
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
};

export const STRAND_WORDS: Record<Strand, string> = {
  crossing: 'Crossing',
  head: 'Head strength',
  chest: 'Chest strength',
  range: 'Range',
  evenness: 'Evenness',
  straw: 'Straw',
};

export const ROLE_WORDS: Record<Role, string> = {
  'warm-up': 'Warm-up',
  straw: 'Straw or trill',
  work: 'Work',
  carry: 'Into a song',
  test: 'Test',
  'cool-down': 'Cool-down',
};

export const AIM_WORDS: Record<(typeof AIMS)[number], string> = {
  chest: 'chest',
  'chest-blend': 'chest blend',
  'head-blend': 'head blend',
  head: 'head',
  across: 'from one to the other',
};

export const LOUDNESS_WORDS: Record<LoudnessShape, string> = {
  even: 'even',
  'softer-up': 'softer going up',
  'fuller-up': 'fuller going up',
  soft: 'soft throughout',
  swell: 'swelling and dying away',
};

export const PLACE_WORDS: Record<Place, string> = { away: 'away from the change', across: 'across the change', at: 'at the change' };

export const MATERIAL_WORDS: Record<Material, string> = { straw: 'a straw', water: 'a glass of water' };

export const WEIGHT_WORDS = { '-1': 'takes weight off', '0': 'leaves weight as it is', '1': 'adds weight' } as const;
export const weightWords = (weight: -1 | 0 | 1): string => WEIGHT_WORDS[`${weight}`];
