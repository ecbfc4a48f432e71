import { YIN } from 'pitchfinder';
import { PitchDetector } from 'pitchy';
import { HOP_S, Pcm } from '../../core/voice/types';
import { framesOf } from './signals';

/** A tracker with one setting of its own; of a library's settings the best over all signals is shown. */
export interface Rival {
  name: string;
  track(pcm: Pcm): Float32Array;
}

function framed(pcm: Pcm, length: number, pitchOf: (frame: Float32Array) => number): Float32Array {
  const out = new Float32Array(framesOf(pcm));
  const frame = new Float32Array(length);
  for (let i = 0; i < out.length; i++) {
    const from = Math.round(i * HOP_S * pcm.sampleRate) - length / 2;
    for (let k = 0; k < length; k++) frame[k] = pcm.samples[from + k] ?? 0;
    out[i] = pitchOf(frame);
  }
  return out;
}

export const REGISTRY_RIVALS: Rival[][] = [
  [0.7, 0.8, 0.9].map((least) => ({
    name: `pitchy, clarity ${least}`,
    track(pcm: Pcm) {
      const detector = PitchDetector.forFloat32Array(2048);
      return framed(pcm, 2048, (frame) => {
        const [hz, clarity] = detector.findPitch(frame, pcm.sampleRate);
        return clarity > least ? hz : 0;
      });
    },
  })),
  [0.05, 0.1, 0.15].map((threshold) => ({
    name: `pitchfinder YIN, ${threshold}`,
    track(pcm: Pcm) {
      const yin = YIN({ sampleRate: pcm.sampleRate, threshold, probabilityThreshold: 0.8 });
      return framed(pcm, 2048, (frame) => yin(frame) ?? 0);
    },
  })),
];
