import type { Exercise } from '../../core/exercise/types';
import type { VoiceMap } from '../../core/map/types';
import type { PlanItem } from '../../core/plan/types';
import type { VoiceTypeId } from '../../core/plan/voice-types';

/** An assignment as its sheet shows it. */
export interface SheetView {
  assignment: { id: string; note: string; startsOn: string };
  singer: { id: string; name: string; part: string; voiceType: VoiceTypeId };
  map: VoiceMap;
  items: { item: PlanItem; exercise: Exercise }[];
}
