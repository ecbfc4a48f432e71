'use client';
import { RefObject, useEffect, useRef } from 'react';
import { hzToMidi } from '../../core/music/pitch';
import type { LiveMoment } from '../../core/take/live';
import { HOP_S } from '../../core/voice/types';
import { LadderScale } from '../ladder/scale';
import { sizedContext, themeColours } from './CurveCanvas';
import { drawCurve, spanOf } from './trace';

/** Seconds of singing in view; longer takes scroll. */
export const LIVE_WINDOW_S = 12;

/** Scores from which the ramp is set, every so many values; the last two minutes of singing count. */
const SCORE_EVERY = 4;
const MOST_SCORES = 6000;
const SPAN_EVERY = 100;

/** Live frames of one take, filled from outside; drawing follows the screen, not React. */
export interface LiveStore {
  midi: number[];
  /** Timbre score, NaN where it isn't known. */
  head: number[];
  changed: boolean;
  /** Timbre scores of this vowel so far, this take's and those before it: they set the ramp. */
  scores: number[];
  vowel: string;
}

/** For the next take: what was heard before on the same vowel still sets the ramp. */
export const emptyLive = (vowel: string, before?: LiveStore): LiveStore => ({
  midi: [],
  head: [],
  changed: true,
  scores: before?.vowel === vowel ? before.scores.slice(-MOST_SCORES) : [],
  vowel,
});

export function addFrames(store: LiveStore, frames: LiveMoment[]) {
  for (const f of frames) {
    store.midi.push(f.hz > 0 ? hzToMidi(f.hz) : 0);
    store.head.push(f.head);
    if (store.head.length % SCORE_EVERY === 0 && !Number.isNaN(f.head)) store.scores.push(f.head);
  }
  store.changed = true;
}

/** The ramp as it stands, looked at again now and then: what was painted takes the colour it has by what is known now. */
function createRamp() {
  let span = { from: 0, span: 1 };
  let known = -1;
  return (store: LiveStore) => {
    const count = Math.ceil(store.scores.length / (SPAN_EVERY / SCORE_EVERY));
    if (count !== known && store.scores.length > 0) {
      span = spanOf(store.scores.slice(-MOST_SCORES));
      known = count;
    }
    return span;
  };
}

/** The voice as it is being sung, beside the ladder. */
export function LiveTrace({ store, scale, width }: { store: RefObject<LiveStore>; scale: LadderScale; width: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    store.current.changed = true;
    const ramp = createRamp();
    let frame = requestAnimationFrame(function paint() {
      frame = requestAnimationFrame(paint);
      const live = store.current;
      if (!live.changed) return;
      live.changed = false;
      const ctx = sizedContext(canvas.current, width, scale.height);
      if (!ctx) return;
      const sungS = live.midi.length * HOP_S;
      const fromS = Math.max(0, sungS - LIVE_WINDOW_S);
      const first = Math.max(0, Math.floor(fromS / HOP_S) - 1);
      const { from, span } = ramp(live);
      drawCurve(
        ctx,
        { startS: first * HOP_S, hopS: HOP_S, midi: live.midi.slice(first), head: live.head.slice(first).map((h) => (h - from) / span) },
        { fromS, toS: fromS + LIVE_WINDOW_S, width },
        scale,
        ...themeColours(canvas.current!),
      );
    });
    return () => cancelAnimationFrame(frame);
  }, [store, scale, width]);
  return (
    <canvas
      ref={canvas}
      data-testid="live-trace"
      aria-hidden="true"
      className="pointer-events-none absolute inset-0"
      style={{ width, height: scale.height }}
    />
  );
}
