import { quantile } from '../../core/signal/stats';
import type { Trace } from '../../core/take/types';
import { LadderScale } from '../ladder/scale';
import { rampColour } from '../ladder/ramp';

/** A pitch curve to draw: one value each `hopS` seconds from `startS`; 0 where nobody sings. */
export interface Curve {
  startS: number;
  hopS: number;
  midi: ArrayLike<number>;
  /** Place on the register ramp (0 chest to 1 head) of each value, where known. */
  head?: ArrayLike<number>;
}

/** Timbre that spans less than this in a take is one colour: there is no change to paint. */
const LEAST_SPAN = 1.6;

/** A stored trace as a curve. Timbre scores mean something only against each other: the take's own span is the ramp. */
export function curveOf(trace: Pick<Trace, 'hopS' | 'midi' | 'head'>): Curve {
  const { from, span } = spanOf(trace.head.filter((_, i) => trace.midi[i] > 0));
  return { startS: 0, hopS: trace.hopS, midi: trace.midi, head: trace.head.map((h) => (h - from) / span) };
}

/** Where the ramp begins and how far it goes, for timbre scores that belong together. */
export function spanOf(scores: number[]): { from: number; span: number } {
  const low = quantile(scores, 0.1);
  const high = quantile(scores, 0.9);
  const span = Math.max(LEAST_SPAN, high - low);
  return { from: (low + high) / 2 - span / 2, span };
}

export interface TimeScale {
  fromS: number;
  toS: number;
  width: number;
}

export const xAt = (t: TimeScale, s: number) => ((s - t.fromS) / (t.toS - t.fromS)) * t.width;
export const secondsAt = (t: TimeScale, x: number) => t.fromS + (x / t.width) * (t.toS - t.fromS);

/** Least length of a stroke of one colour, in values and in pixels: strokes are what painting costs. */
const LEAST_VALUES = 4;
const LEAST_PX = 3;
/** A jump of this many semitones between neighbours breaks the line: pitch leapt, it did not slide. */
const BREAK_ST = 1.2;

/** Paint a curve beside the ladder: the colour of the register over an outline that stands out on any ground. */
export function drawCurve(ctx: CanvasRenderingContext2D, curve: Curve, time: TimeScale, scale: LadderScale, ink: string, plain: string) {
  strokeCurve(ctx, { ...curve, head: undefined }, time, scale, OUTLINE_PX, ink);
  strokeCurve(ctx, curve, time, scale, LINE_PX, plain);
}

export const OUTLINE_PX = 7;
export const LINE_PX = 4.5;

/** One pass of the pen along a curve, in the ramp's colours where the register is known and `plain` elsewhere. */
export function strokeCurve(
  ctx: CanvasRenderingContext2D,
  { midi, startS, hopS, head }: Curve,
  time: TimeScale,
  scale: LadderScale,
  lineWidth: number,
  plain: string,
) {
  const first = Math.max(0, Math.floor((time.fromS - startS) / hopS));
  const last = Math.min(midi.length - 1, Math.ceil((time.toS - startS) / hopS));
  const pxPerValue = (hopS / (time.toS - time.fromS)) * time.width;
  const most = Math.max(LEAST_VALUES, Math.ceil(LEAST_PX / pxPerValue));
  // More than about two values to a pixel can't be seen.
  const stride = Math.max(1, Math.floor(0.5 / pxPerValue));
  const x = (i: number) => xAt(time, startS + i * hopS);
  ctx.lineJoin = 'round';
  ctx.lineCap = 'round';
  ctx.lineWidth = lineWidth;
  ctx.strokeStyle = plain;
  ctx.beginPath();
  for (let i = first; i < last;) {
    if (!(midi[i] > 0)) {
      i++;
      continue;
    }
    // A curve of one colour is one stroke; else there is one for each colour.
    if (head) {
      ctx.beginPath();
      ctx.strokeStyle = Number.isNaN(head[i]) ? plain : rampColour(head[i]);
    }
    ctx.moveTo(x(i), scale.y(midi[i]));
    let n = 0;
    let broken = false;
    while (i < last && n < most && !broken) {
      i++;
      n++;
      broken = !(midi[i] > 0) || Math.abs(midi[i] - midi[i - 1]) > BREAK_ST;
      if (!broken && (n % stride === 0 || n === most || i === last)) ctx.lineTo(x(i), scale.y(midi[i]));
    }
    // What was sung up to a break is drawn to its end, a single value as a dot.
    if (broken) ctx.lineTo(x(i - 1) + (n === 1 ? 0.5 : 0), scale.y(midi[i - 1]));
    if (head) ctx.stroke();
  }
  if (!head) ctx.stroke();
}
