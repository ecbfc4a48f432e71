import { Anchors } from '../exercise/keys';
import { FindingName } from '../map/types';

/** One exercise as it is assigned. */
export interface PlanItem {
  exerciseId: string;
  /** Tonics in the order sung. */
  keys: number[];
  sound: string;
  tempo: number;
  minutes: number;
  timesADay: number;
  /** One sentence a singer can read. */
  reason: string;
  caution: string;
}

export interface Plan {
  anchors: Anchors;
  /** Whether the change was measured or only expected for the voice type. */
  changeMeasured: boolean;
  /** What the plan works on, in order of weight. */
  worksOn: FindingName[];
  items: PlanItem[];
}
