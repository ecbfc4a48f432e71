import type { Said } from '../words/said';
import { Anchors } from '../exercise/keys';
import { Exercise, Material, Strand } from '../exercise/types';
import { SchoolId } from '../map/schools';
import { FindingName, VoiceMap } from '../map/types';
import { Straw } from '../straw/flow';
import type { Age } from './ages';
import type { IntakeAnswers } from './intake';
import type { RuleId } from './rules';
import type { Today } from './safety';
import { VoiceTypeId } from './voice-types';

/** Where an item stands in a set, in the order sung. */
export const PARTS = ['warm-up', 'straw-before', 'work', 'counterweight', 'carry', 'test', 'straw-after'] as const;
export type Part = (typeof PARTS)[number];

export const DAYS_A_WEEK = 7;

/** Work proper: what is sung for the findings and to balance it. */
export const isWork = ({ part }: { part: Part }): boolean => part === 'work' || part === 'counterweight';

/** Where an item stands in a set; a counterweight stands among the work. */
export const partRank = (item: { part: Part }): number => PARTS.indexOf(isWork(item) ? 'work' : item.part);

/** A cue is read at a glance between two keys. */
export const LONGEST_CUE = 60;
export const MOST_CUES = 8;

/** One exercise as it is assigned. */
export interface PlanItem {
  exerciseId: string;
  part: Part;
  /** Tonics in the order sung. */
  keys: number[];
  sound: string;
  /** Which straws to take, in words; for straw work with an inventory. */
  straws?: Said;
  tempo: number;
  minutes: number;
  timesADay: number;
  /** Days of the week it is sung on, 0 the first. */
  days: number[];
  /** One sentence a singer can read. */
  reason: Said;
  caution: Said;
  /** The coach's own words between the keys, by turns: "less air". */
  cues?: string[];
  /** What decided on it. */
  rules: RuleId[];
  /** What would make it advance. */
  advance: Said;
}

export type Grades = Record<Strand, number>;

/** What a plan is made from. */
export interface PlanRequest {
  map: VoiceMap;
  voiceType: VoiceTypeId;
  school: SchoolId;
  shelf: readonly Exercise[];
  /** Practice a day, minutes. */
  minutesADay: number;
  materials: readonly Material[];
  /** The singer's own straws. */
  straws: readonly (Straw & { count: number })[];
  /** Which phase of the way the singer is in, 0 the first; `phaseId`, where it is there, names it, whatever the map now says. */
  phase: number;
  phaseId?: string;
  /** Grades reached; what is missing is expected from the map. */
  grades: Partial<Grades>;
  minor: boolean;
  /** How old the singer is; absent: not said. */
  age?: Age;
  /** A voice that is changing. */
  changing?: boolean;
  /** What was answered at intake. */
  intake?: IntakeAnswers;
  today: Today | null;
}

/** What has to be sung as meant before a phase is over: one of some exercises, on so many of its days one after another. */
export interface Gate {
  sings: readonly string[];
  days: number;
}

/** A stretch of weeks with one aim. */
export interface Phase {
  id: string;
  name: string;
  weeks: [number, number];
  aim: string;
  /** What ends it, in words; and as far as it can be reckoned (core/practice/gates.ts). Without gates only the coach's ear tells. */
  until: string;
  ends: readonly Gate[];
  /** Share of the week's minutes that goes into songs, 0..1. */
  carryShare: number;
  strands: readonly Strand[];
  /** Weight it works with by preference. */
  weight: -1 | 0 | 1;
  likes: readonly string[];
}

/** An exercise that was not chosen, and why. */
export interface LeftOut {
  exerciseId: string;
  because: Said;
  rule: RuleId | null;
}

export interface Plan {
  anchors: Anchors;
  /** The phase that was begun isn't on the way that the map now asks for: a question to the coach. */
  leftItsWay: boolean;
  /** Only the comfortable band is sung: no change is worked on. */
  narrow: boolean;
  /** Whether the change was measured or only expected for the voice type. */
  changeMeasured: boolean;
  school: SchoolId;
  /** What the plan works on, in order of weight. */
  worksOn: FindingName[];
  phases: readonly Phase[];
  phase: number;
  grades: Grades;
  items: PlanItem[];
  leftOut: LeftOut[];
  /** What the coach and the singer should know besides, in sentences. */
  notes: Said[];
}
