import type { VoiceMap } from '../map/types';
import type { KnownVoice } from './types';

/** Surer than this a map's word on how the change is crossed counts before a take is heard. */
const SURE = 0.6;

/** What a map says of a voice's change; where it knows none, the one expected. */
export function knownVoice({ passaggi, findings }: Pick<VoiceMap, 'passaggi' | 'findings'>, expectedMidi: number): KnownVoice {
  const main = [...passaggi].sort((a, b) => b.confidence - a.confidence)[0];
  const pulls = findings.some((f) => f.name === 'pulled-chest' && f.confidence >= SURE);
  const known = main && main.confidence >= SURE && !main.impression;
  return { changeMidi: main?.midi ?? expectedMidi, handsOver: pulls ? false : known ? true : null };
}
