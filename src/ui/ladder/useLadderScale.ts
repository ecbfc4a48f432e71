import { useMemo } from 'react';
import type { VoiceMap } from '../../core/map/types';
import { VoiceTypeId, voiceType } from '../../core/plan/voice-types';
import type { Range } from '../../core/take/types';
import { LadderScale, ladderRange, ladderScale } from './scale';

/** The scale of a singer's ladder at a height: the whole voice as far as it is mapped (its type's until then), and this take's range. */
export function useLadderScale(map: VoiceMap, type: VoiceTypeId, height: number, take: Range | null = null): LadderScale {
  const { lowestMidi, highestMidi } = take ?? {};
  return useMemo(() => {
    const { low, high } = ladderRange(
      map,
      voiceType(type),
      [lowestMidi, highestMidi].filter((m) => m !== undefined),
    );
    return ladderScale(low, high, height);
  }, [map, type, height, lowestMidi, highestMidi]);
}
