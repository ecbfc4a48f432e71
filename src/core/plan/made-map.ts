import type { VoiceMap } from '../map/types';

const limit = (midi: number) => ({ midi, takeIds: ['t'] });

/** For tests: a map that knows nothing of a voice but how far it reached. */
export const bareMap = (low: number, high: number): VoiceMap => ({
  engine: 'test',
  takes: 3,
  extreme: { low: limit(low), high: limit(high) },
  usable: null,
  passaggi: [],
  findings: [],
  speakingMidi: null,
  levels: [],
  blend: [],
  evenness: null,
  insecure: [],
  vowelTurns: [],
  weight: null,
  calibrated: 0,
  pinned: {},
});
