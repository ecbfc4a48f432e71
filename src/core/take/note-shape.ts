import { fitLine } from '../signal/stats';
import { HOP_S } from '../voice/types';
import { Contour, framesIn } from './contour';
import { NoteShape, Vibrato } from './types';

/** A note has arrived when it stays this near its centre, or comes to it: a deep vibrato only passes through. */
const ARRIVED_ST = 0.3;
const SETTLED_S = 0.03;
/** Vibrato: 4 to 8 swings a second (common practice), three of them at least, and most of what moves. */
const RATES = Array.from({ length: 41 }, (_, i) => 4 + i / 10);
const FEWEST_SWINGS = 3;
const LEAST_CENTS = 10;
const LEAST_SHARE = 0.5;

/**
 * How a note between two frames was sung: seconds until it settled on its centre, drift from end to end (cents, least
 * squares), vibrato if there is one, and what unrest is left without both (cents, one standard deviation).
 */
export function noteShape(contour: Contour, start: number, end: number, centre: number): NoteShape {
  const settled = framesIn(SETTLED_S);
  let from = start;
  while (from + settled < end && !near(contour, from, from + settled, centre) && !passes(contour, from, centre)) from++;
  if (from + settled >= end) from = start;
  const times: number[] = [];
  const cents: number[] = [];
  for (let i = from; i < end; i++) {
    if (Number.isNaN(contour[i])) continue;
    times.push(i * HOP_S);
    cents.push(100 * (contour[i] - centre));
  }
  const seconds = times.length * HOP_S;
  const line = seconds > 0.1 ? fitLine(times, cents) : { slope: 0, intercept: 0 };
  const rest = cents.map((c, i) => c - line.intercept - line.slope * times[i]);
  const vibrato = fitVibrato(times, rest, seconds);
  const after = vibrato ? rest.map((c, i) => c - vibrato.wave(times[i])) : rest;
  return {
    onsetS: (from - start) * HOP_S,
    driftCents: line.slope * seconds,
    vibrato: vibrato && { rateHz: vibrato.rateHz, cents: vibrato.cents },
    unrestCents: Math.sqrt(after.reduce((s, c) => s + c * c, 0) / Math.max(1, after.length)),
  };
}

function near(contour: Contour, from: number, to: number, centre: number): boolean {
  for (let i = from; i < to; i++) if (!(Math.abs(contour[i] - centre) < ARRIVED_ST)) return false;
  return true;
}

/** Whether the pitch is at the centre, or goes through it before the next frame. */
const passes = (contour: Contour, i: number, centre: number) => (contour[i] - centre) * (contour[i + 1] - centre) <= 0;

/** The sinusoid of 4 to 8 Hz that explains most of a note's movement; null when it explains too little of it. */
function fitVibrato(times: number[], cents: number[], seconds: number): (Vibrato & { wave: (t: number) => number }) | null {
  const power = cents.reduce((s, c) => s + c * c, 0);
  let best = { share: 0, rateHz: 0, a: 0, b: 0 };
  for (const rateHz of RATES) {
    if (seconds * rateHz < FEWEST_SWINGS) continue;
    let a = 0;
    let b = 0;
    for (let i = 0; i < times.length; i++) {
      a += cents[i] * Math.cos(2 * Math.PI * rateHz * times[i]);
      b += cents[i] * Math.sin(2 * Math.PI * rateHz * times[i]);
    }
    a *= 2 / times.length;
    b *= 2 / times.length;
    const share = ((a * a + b * b) * times.length) / 2 / power;
    if (share > best.share) best = { share, rateHz, a, b };
  }
  const { share, rateHz, a, b } = best;
  const depth = Math.hypot(a, b);
  if (share < LEAST_SHARE || depth < LEAST_CENTS) return null;
  return { rateHz, cents: depth, wave: (t) => a * Math.cos(2 * Math.PI * rateHz * t) + b * Math.sin(2 * Math.PI * rateHz * t) };
}
