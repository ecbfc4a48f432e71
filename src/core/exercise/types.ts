import { FindingName } from '../map/types';
import { SchoolId } from '../map/schools';
import { texts } from '../words/said';

/** One note of a pattern. `slide` joins it to the next by an unbroken glide. */
export interface Step {
  /** Major-scale degree of the key: 1 the tonic, 8 its octave, 0 and below under it. */
  degree: number;
  /** Semitones the degree is raised (1) or lowered (-1); absent: as the scale has it. */
  alter?: -1 | 1;
  /** Length in crotchets. */
  beats: number;
  slide?: boolean;
}

export const FAMILIES = ['scale', 'siren', 'straw', 'trill', 'toggle', 'hold', 'speech', 'connector', 'riff', 'range', 'phrase'] as const;
export type Family = (typeof FAMILIES)[number];

/** What an exercise makes better; a singer has a grade in each. */
export const STRANDS = ['crossing', 'head', 'chest', 'range', 'evenness', 'straw'] as const;
export type Strand = (typeof STRANDS)[number];

/** Where it stands in a set. */
export const ROLES = ['warm-up', 'straw', 'work', 'carry', 'test', 'cool-down'] as const;
export type Role = (typeof ROLES)[number];

/** The register it is sung in; `across`: it passes from one into the other. */
export const AIMS = ['chest', 'chest-blend', 'head-blend', 'head', 'across'] as const;
export type Aim = (typeof AIMS)[number];

export const LOUDNESS_SHAPES = ['even', 'softer-up', 'fuller-up', 'soft', 'swell'] as const;
export type LoudnessShape = (typeof LOUDNESS_SHAPES)[number];

/** Where it lies: away from the change, passing through it, or staying at it. */
export const PLACES = ['away', 'across', 'at'] as const;
export type Place = (typeof PLACES)[number];

export const MATERIALS = ['straw', 'water'] as const;
export type Material = (typeof MATERIALS)[number];
export const MATERIAL_WORDS: Record<Material, string> = texts({ straw: 'a straw', water: 'a glass of water' });

/** How success is told from a recording (core/plan/success.ts). */
export const MEASURES = ['sounds-through', 'crosses', 'blends', 'holds', 'in-tune', 'even', 'softer-up'] as const;
export type Measure = (typeof MEASURES)[number];

/** A place in the singer's own map that keys are counted from. */
export const ANCHORS = ['low', 'high', 'change', 'speaking'] as const;
export type Anchor = (typeof ANCHORS)[number];

/** Which note of the pattern is put where: `edge` of the pattern at `anchor` plus `semitones`. */
export interface KeyPlace {
  edge: 'bottom' | 'top';
  anchor: Anchor;
  semitones: number;
}

/** Keys walk from the first place to the second by semitone; of those that fit the voice the last `most` are sung. */
export interface KeyRule {
  from: KeyPlace;
  to: KeyPlace;
  most?: number;
}

export const GRADES = [1, 2, 3, 4, 5, 6] as const;

export interface Exercise {
  id: string;
  name: string;
  family: Family;
  strand: Strand;
  role: Role;
  steps: Step[];
  /** Crotchets a minute: slowest, usual, fastest. */
  tempo: [number, number, number];
  /** Breath between keys, crotchets. */
  breathBeats: number;
  /** What to sing it on, easiest first. */
  sounds: string[];
  aim: Aim;
  loudness: LoudnessShape;
  place: Place;
  /** Rung on the difficulty ladder, 1 easy to 6. */
  grade: number;
  /** -1 takes weight off, +1 adds weight. */
  weight: -1 | 0 | 1;
  keys: KeyRule;
  suits: FindingName[];
  avoid: FindingName[];
  /** Schools that teach it; empty: all. */
  schools: SchoolId[];
  /** Exercises that should be easy before this one. */
  after: string[];
  needs: Material[];
  /** Minutes at a time, and times a day. */
  minutes: number;
  timesADay: number;
  measure: Measure;
  /** What the singer does, in words a singer understands. */
  how: string;
  /** What it is for: completes "because ...". */
  purpose: string;
  caution: string;
  /** In a singer's week a line of a song is a line of one of theirs: its title, and its key as `saidKey` counts it. */
  ofSong?: { title: string; key: number };
}
