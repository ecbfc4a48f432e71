import { expectedChange, VoiceTypeId, voiceType } from '../plan/voice-types';
import { CrossingStyle, SingerProfile } from './profile';

/** A simulated voice of a type, crossing in a given style where such voices usually do. */
export function typicalProfile(type: VoiceTypeId, style: CrossingStyle): SingerProfile {
  const { low, high, tract } = voiceType(type);
  const change = expectedChange(type);
  return {
    lowMidi: low,
    highMidi: Math.max(high, change + 9),
    tract,
    crossings: [{ upMidi: change, downMidi: change - 1.5, style, leapSt: 3, widthSt: 6 }],
    breathiness: 0.15,
    vibrato: { rateHz: 5.5, cents: 40 },
    scatterSt: 0.4,
    speakingMidi: low + 5,
  };
}
