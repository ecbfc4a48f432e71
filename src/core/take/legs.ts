import { HOP_S } from '../voice/types';
import { Contour, filled, framesIn, phrases, smoothMedian } from './contour';
import { Leg } from './types';

/** A turn must undo this many semitones to end a leg. */
const TURN_ST = 3;
const MIN_LEG_ST = 4;
/** Seven tenths of a slide take longer than this, however fast. */
const LEAP_S = 0.2;

/** Split sirens into legs: stretches between turning points, at least four semitones wide. `crossOvers` are left empty. */
export function sirenLegs(contour: Contour): Leg[] {
  const legs: Leg[] = [];
  for (const [start, end] of phrases(contour, 0.3, 0.3)) {
    const midi = smoothMedian(filled(contour, start, end), 9);
    for (const [a, b] of turns(midi)) {
      if (Math.abs(midi[b] - midi[a]) < MIN_LEG_ST || leapt(midi, a, b)) continue;
      legs.push({
        startS: (start + a) * HOP_S,
        endS: (start + b) * HOP_S,
        direction: midi[b] > midi[a] ? 'up' : 'down',
        lowestMidi: Math.min(midi[a], midi[b]),
        highestMidi: Math.max(midi[a], midi[b]),
        crossOvers: [],
      });
    }
  }
  return legs;
}

/** Whether the way from one turn to the next was leapt, not slid: its inner part took no time. */
function leapt(midi: Float64Array, a: number, b: number): boolean {
  const up = midi[b] > midi[a];
  const at = (part: number) => {
    const level = midi[a] + part * (midi[b] - midi[a]);
    let i = a;
    while (i < b && (up ? midi[i] < level : midi[i] > level)) i++;
    return i;
  };
  return at(0.85) - at(0.15) < framesIn(LEAP_S);
}

/** Zigzag: consecutive [from, to] indices between extremes that are TURN_ST or more apart. */
function turns(midi: Float64Array): [number, number][] {
  const points: number[] = [];
  let low = 0;
  let high = 0;
  let heading = 0;
  for (let i = 1; i < midi.length; i++) {
    if (midi[i] < midi[low]) low = i;
    if (midi[i] > midi[high]) high = i;
    if (heading >= 0 && midi[high] - midi[i] >= TURN_ST) {
      if (heading === 0) points.push(midi[low] < midi[high] && low < high ? low : 0);
      points.push(high);
      heading = -1;
      low = i;
      high = i;
    } else if (heading <= 0 && midi[i] - midi[low] >= TURN_ST) {
      if (heading === 0) points.push(high < low ? high : 0);
      points.push(low);
      heading = 1;
      low = i;
      high = i;
    }
  }
  if (heading === 0) return [[0, midi.length - 1]];
  points.push(heading > 0 ? high : low);
  const out: [number, number][] = [];
  for (let i = 1; i < points.length; i++) if (points[i] > points[i - 1]) out.push([points[i - 1], points[i]]);
  return out;
}
