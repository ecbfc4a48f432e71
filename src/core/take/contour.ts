import { hzToMidi } from '../music/pitch';
import { sortFew } from '../signal/stats';
import { HOP_S, VoiceTrack } from '../voice/types';

/** Pitch of each frame as fractional MIDI; NaN where nobody sings. */
export type Contour = Float64Array;

export function contourOf(track: VoiceTrack): Contour {
  const out = new Float64Array(track.frames);
  for (let i = 0; i < out.length; i++) out[i] = track.f0[i] > 0 ? hzToMidi(track.f0[i]) : NaN;
  return out;
}

/** Seconds to frames, at least 1. */
export const framesIn = (seconds: number): number => Math.max(1, Math.round(seconds / HOP_S));

/** Stretches of singing as [start, end) frames; silences up to `bridgeS` seconds are bridged. */
export function phrases(contour: Contour, bridgeS: number, minS = 0.06): [number, number][] {
  const bridge = framesIn(bridgeS);
  const out: [number, number][] = [];
  let start = -1;
  let last = -1;
  for (let i = 0; i <= contour.length; i++) {
    const sung = i < contour.length && !Number.isNaN(contour[i]);
    if (sung) {
      if (start < 0) start = i;
      last = i;
    } else if (start >= 0 && (i === contour.length || i - last > bridge)) {
      if (last + 1 - start >= framesIn(minS)) out.push([start, last + 1]);
      start = -1;
    }
  }
  return out;
}

/** The contour with inner gaps of the phrase filled by straight lines; index 0 is `start`. */
export function filled(contour: Contour, start: number, end: number): Float64Array {
  const out = contour.slice(start, end);
  for (let i = 0; i < out.length; i++) {
    if (!Number.isNaN(out[i])) continue;
    let j = i;
    while (j < out.length && Number.isNaN(out[j])) j++;
    const a = out[i - 1];
    const b = out[j];
    for (let k = i; k < j; k++) out[k] = a + ((b - a) * (k - i + 1)) / (j - i + 1);
    i = j;
  }
  return out;
}

/** Moving median over an odd number of values; edges use what there is. */
export function smoothMedian(values: Float64Array, width: number): Float64Array {
  const half = width >> 1;
  const out = new Float64Array(values.length);
  const part = new Float64Array(2 * half + 1);
  for (let i = 0; i < values.length; i++) {
    let n = 0;
    for (let j = Math.max(0, i - half); j < Math.min(values.length, i + half + 1); j++) part[n++] = values[j];
    out[i] = sortFew(part, n)[n >> 1];
  }
  return out;
}

/** Moving average over an odd number of values; edges use what there is. */
export function smoothMean(values: Float64Array, width: number): Float64Array {
  const half = width >> 1;
  const out = new Float64Array(values.length);
  let sum = 0;
  let from = 0;
  let to = 0;
  for (let i = 0; i < values.length; i++) {
    while (to < Math.min(values.length, i + half + 1)) sum += values[to++];
    while (from < Math.max(0, i - half)) sum -= values[from++];
    out[i] = sum / (to - from);
  }
  return out;
}
