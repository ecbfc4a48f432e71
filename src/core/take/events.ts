import { HOP_S, VoiceTrack } from '../voice/types';
import { Contour, framesIn, phrases, smoothMean } from './contour';
import { Leg, TakeEvent } from './types';

const LEAP_ST = 0.9;
/** A flip may fall silent for this long; a longer silence is a breath. */
const MAX_GAP_S = 0.18;
/** A hole in the level beside a crossing of colour, and one that is an event by itself (a room makes smaller ones). */
const DIP_DB = 2.5;
const LONE_DIP_DB = 6;
/** A hole counts when it is this much deeper than any other of its leg: vibrato and noise make many alike. */
const SINGULAR = 1.6;
/** A cross-over narrower than this is heard as a step of colour. */
const STEP_WIDTH_ST = 2.1;
/** Signs of one change fall within this time. */
const SAME_MOMENT_S = 0.25;

/** Everything audible that happens along the legs of a siren, in time order. */
export function sirenEvents(track: VoiceTrack, contour: Contour, legs: Leg[]): TakeEvent[] {
  const level = smoothMean(Float64Array.from(track.levelDb), 5);
  const leaps = mergeReturns(findLeaps(contour, level, legs));
  const events = [...leaps];
  const near = (t: number) => events.some((e) => Math.abs(e.timeS - t) < SAME_MOMENT_S);
  for (const leg of legs) {
    const dips = singular(findDips(contour, level, leg)).filter((d) => !near(d.timeS));
    const say = (kind: 'timbre' | 'dip', { timeS, midi, dipDb }: Dip, confidence: number) => {
      if (near(timeS)) return;
      events.push({ timeS, midi, fromMidi: midi, toMidi: midi, direction: leg.direction, kind, confidence, dipDb });
    };
    for (const cross of leg.crossOvers) {
      // A step of colour; or a crossing whose width the fit leaves open, with a hole in the level inside it.
      const step = cross.widthSt <= STEP_WIDTH_ST && cross.confidence > 0.4;
      const dip = dips.find((d) => Math.abs(d.midi - cross.midi) < Math.max(2, cross.widthSt / 3));
      if (dip) say('timbre', dip, Math.min(0.95, cross.confidence + 0.2));
      else if (step) say('timbre', { timeS: cross.timeS, midi: cross.midi, dipDb: 0 }, Math.min(0.95, cross.confidence));
    }
    for (const d of dips) if (d.dipDb >= LONE_DIP_DB) say('dip', d, Math.min(0.8, 0.2 + d.dipDb / 15));
  }
  return events.sort((a, b) => a.timeS - b.timeS);
}

/** First time the leg passes a pitch. */
export function timeAt(contour: Contour, leg: Leg, midi: number): number {
  const end = Math.round(leg.endS / HOP_S);
  for (let i = Math.round(leg.startS / HOP_S); i < end; i++) {
    if (Number.isNaN(contour[i])) continue;
    if (leg.direction === 'up' ? contour[i] >= midi : contour[i] <= midi) return i * HOP_S;
  }
  return leg.endS;
}

const legAt = (legs: Leg[], timeS: number) => legs.find((l) => timeS >= l.startS - 0.05 && timeS <= l.endS + 0.05);

/** Leaps of pitch against the smooth glide on both sides, with or without a short silence between. */
function findLeaps(contour: Contour, level: Float64Array, legs: Leg[]): TakeEvent[] {
  const out: TakeEvent[] = [];
  for (const [start, end] of phrases(contour, MAX_GAP_S, 0.2)) {
    let i = start + 4;
    while (i < end - 4) {
      const found = leapAt(contour, i, start, end);
      if (!found || Math.abs(found.leap) < LEAP_ST) {
        i++;
        continue;
      }
      // Walk to where the leap is strongest.
      let best = found;
      let at = i;
      for (let j = i + 1; j < Math.min(end - 4, i + framesIn(0.1)); j++) {
        const other = leapAt(contour, j, start, end);
        if (other && Math.abs(other.leap) > Math.abs(best.leap)) {
          best = other;
          at = j;
        }
      }
      const timeS = ((best.lastBefore + best.firstAfter) / 2) * HOP_S;
      const leg = legAt(legs, timeS);
      if (leg) {
        const direction = leg.direction;
        const dipDb = dipBetween(level, best.lastBefore, best.firstAfter);
        const along = best.leap > 0 === (direction === 'up');
        out.push({
          timeS,
          midi: (best.before + best.after) / 2,
          fromMidi: best.before,
          toMidi: best.after,
          direction,
          kind: along ? 'flip' : 'crack',
          confidence: Math.min(0.98, 0.45 + 0.2 * (Math.abs(best.leap) - LEAP_ST) + 0.02 * Math.max(0, dipDb)),
          dipDb,
        });
      }
      i = Math.max(at, best.firstAfter) + framesIn(0.05);
    }
  }
  return out;
}

/**
 * The leap at frame i: pitch just after against pitch just before, less what the glide itself would have covered.
 * Null unless both sides have at least 30 ms of steady glide.
 */
function leapAt(contour: Contour, i: number, start: number, end: number) {
  let lastBefore = i;
  while (lastBefore > start && Number.isNaN(contour[lastBefore])) lastBefore--;
  // The tracker's window blurs a leap over about 20 ms; look from outside the blur.
  const before = side(contour, lastBefore, -1, start, end);
  let firstAfter = i + 1;
  while (firstAfter < end && Number.isNaN(contour[firstAfter])) firstAfter++;
  firstAfter = Math.min(end - 1, Math.max(firstAfter, i + 5));
  if (Number.isNaN(contour[firstAfter])) return null;
  const after = side(contour, firstAfter, 1, start, end);
  if (!before || !after) return null;
  const frames = firstAfter - lastBefore;
  const glide = 0.5 * (clampSlope(before.slope) + clampSlope(after.slope)) * frames;
  return { leap: after.midi - before.midi - glide, before: before.midi, after: after.midi, lastBefore, firstAfter };
}

/** Two octaves a second is as fast as a siren goes: 0.12 semitones a frame. */
const clampSlope = (s: number) => Math.max(-0.12, Math.min(0.12, s));

/** Pitch at `from` and slope per frame of the 50 ms going away from the leap; null if it isn't a smooth glide. */
function side(contour: Contour, from: number, step: 1 | -1, start: number, end: number) {
  const n = 10;
  const last = from + step * (n - 1);
  if (last < start || last >= end) return null;
  let sumX = 0;
  let sumY = 0;
  let count = 0;
  for (let k = 0; k < n; k++) {
    const m = contour[from + step * k];
    if (Number.isNaN(m)) return null;
    sumX += k;
    sumY += m;
    count++;
  }
  const mx = sumX / count;
  const my = sumY / count;
  let sxx = 0;
  let sxy = 0;
  for (let k = 0; k < n; k++) {
    sxx += (k - mx) ** 2;
    sxy += (k - mx) * (contour[from + step * k] - my);
  }
  const perStep = sxy / sxx;
  let rough = 0;
  for (let k = 0; k < n; k++) rough = Math.max(rough, Math.abs(contour[from + step * k] - my - perStep * (k - mx)));
  if (rough > 0.9) return null;
  return { midi: my - perStep * mx, slope: perStep * step };
}

function dipBetween(level: Float64Array, from: number, to: number): number {
  const reach = framesIn(0.1);
  let least = Infinity;
  for (let i = Math.max(0, from - 6); i <= Math.min(level.length - 1, to + 6); i++) least = Math.min(least, level[i]);
  let a = -Infinity;
  let b = -Infinity;
  for (let k = 0; k < reach; k++) {
    a = Math.max(a, level[Math.max(0, from - k)]);
    b = Math.max(b, level[Math.min(level.length - 1, to + k)]);
  }
  return Math.min(a, b) - least;
}

/** A leap undone within 0.3 s is a crack: one event, not two. */
function mergeReturns(leaps: TakeEvent[]): TakeEvent[] {
  const out: TakeEvent[] = [];
  for (const e of leaps) {
    const last = out[out.length - 1];
    const opposite = last && e.toMidi > e.fromMidi !== last.toMidi > last.fromMidi;
    if (last && opposite && e.timeS - last.timeS < 0.3) {
      last.kind = 'crack';
      last.midi = Math.min(last.fromMidi, e.toMidi);
      last.dipDb = Math.max(last.dipDb, e.dipDb);
    } else out.push({ ...e });
  }
  return out;
}

interface Dip {
  timeS: number;
  dipDb: number;
  midi: number;
}

/** The one hole that stands out of all the others of its leg, if there is one; deep ones stand by themselves. */
function singular(dips: Dip[]): Dip[] {
  const byDepth = [...dips].sort((a, b) => b.dipDb - a.dipDb);
  const [first, second] = byDepth;
  return byDepth.filter((d) => d.dipDb >= LONE_DIP_DB || (d === first && (!second || first.dipDb >= SINGULAR * second.dipDb)));
}

/** Short holes in the level inside a leg: lower than within 100 ms on both sides by DIP_DB. */
function findDips(contour: Contour, level: Float64Array, leg: Leg): Dip[] {
  const from = Math.round(leg.startS / HOP_S) + framesIn(0.15);
  const to = Math.round(leg.endS / HOP_S) - framesIn(0.15);
  const reach = framesIn(0.1);
  const out: Dip[] = [];
  for (let i = from; i < to; i++) {
    if (!(level[i] <= level[i - 1] && level[i] < level[i + 1])) continue;
    let a = -Infinity;
    let b = -Infinity;
    for (let k = 1; k <= reach; k++) {
      a = Math.max(a, level[i - k]);
      b = Math.max(b, level[i + k]);
    }
    const dipDb = Math.min(a, b) - level[i];
    if (dipDb < DIP_DB) continue;
    const last = out[out.length - 1];
    const dip = { timeS: i * HOP_S, dipDb, midi: pitchNear(contour, i) };
    if (Number.isNaN(dip.midi)) continue;
    if (last && dip.timeS - last.timeS < SAME_MOMENT_S) {
      if (dipDb > last.dipDb) out[out.length - 1] = dip;
    } else out.push(dip);
  }
  return out;
}

function pitchNear(contour: Contour, i: number): number {
  for (let k = 0; k < 20; k++) {
    if (!Number.isNaN(contour[i - k])) return contour[i - k];
    if (!Number.isNaN(contour[i + k])) return contour[i + k];
  }
  return NaN;
}
