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
export function curveOf(trace: Trace): Curve {
  const sung = trace.head.filter((_, i) => trace.midi[i] > 0);
  const low = quantile(sung, 0.1);
  const high = quantile(sung, 0.9);
  const span = Math.max(LEAST_SPAN, high - low);
  const from = (low + high) / 2 - span / 2;
  return { startS: 0, hopS: trace.hopS, midi: trace.midi, head: trace.head.map((h) => (h - from) / span) };
}

export interface TimeScale {
  fromS: number;
  toS: number;
  width: number;
}

export const xAt = (t: TimeScale, s: number) => ((s - t.fromS) / (t.toS - t.fromS)) * t.width;
export const secondsAt = (t: TimeScale, x: number) => t.fromS + (x / t.width) * (t.toS - t.fromS);

/** Values joined by one stroke; each stroke has one colour. */
const STROKE = 4;
/** A jump of this many semitones between neighbours breaks the line: pitch leapt, it did not slide. */
const BREAK_ST = 1.2;

/** Paint a curve beside the ladder: the colour of the register over an outline that stands out on any ground. */
export function drawCurve(ctx: CanvasRenderingContext2D, curve: Curve, time: TimeScale, scale: LadderScale, ink: string, plain: string) {
  const first = Math.max(0, Math.floor((time.fromS - curve.startS) / curve.hopS));
  const last = Math.min(curve.midi.length - 1, Math.ceil((time.toS - curve.startS) / curve.hopS));
  ctx.lineJoin = 'round';
  ctx.lineCap = 'round';
  for (const outline of [true, false]) {
    ctx.lineWidth = outline ? 7 : 4.5;
    for (let i = first; i < last;) {
      if (!(curve.midi[i] > 0)) {
        i++;
        continue;
      }
      ctx.beginPath();
      ctx.moveTo(xAt(time, curve.startS + i * curve.hopS), scale.y(curve.midi[i]));
      ctx.strokeStyle = outline ? ink : curve.head ? rampColour(curve.head[i]) : plain;
      let n = 0;
      let broken = false;
      while (i < last && n < STROKE && !broken) {
        i++;
        n++;
        broken = !(curve.midi[i] > 0) || Math.abs(curve.midi[i] - curve.midi[i - 1]) > BREAK_ST;
        if (!broken) ctx.lineTo(xAt(time, curve.startS + i * curve.hopS), scale.y(curve.midi[i]));
      }
      if (n === 1 && broken) ctx.lineTo(xAt(time, curve.startS + (i - 1) * curve.hopS) + 0.5, scale.y(curve.midi[i - 1]));
      ctx.stroke();
    }
  }
}
