'use client';
import { RefObject, useEffect, useRef } from 'react';
import { hzToMidi } from '../../core/music/pitch';
import type { LiveMoment } from '../../core/take/live';
import { HOP_S } from '../../core/voice/types';
import { LadderScale } from '../ladder/scale';
import { sizedContext, themeColours } from './CurveCanvas';
import { LINE_PX, OUTLINE_PX, spanOf, strokeCurve } from './trace';

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

/** Where the ramp stands, looked at again now and then; `known` tells whether it has moved. */
function createRamp() {
  let span = { from: 0, span: 1 };
  let known = 0;
  return (store: LiveStore) => {
    const count = Math.ceil(store.scores.length / (SPAN_EVERY / SCORE_EVERY));
    if (count !== known) {
      span = spanOf(store.scores.slice(-MOST_SCORES));
      known = count;
    }
    return { ...span, known };
  };
}

/** Values drawn once more, so that new strokes join on to those that stand. */
const OVERLAP = 3;

/**
 * The voice as it is being sung, beside the ladder. Only what is new is drawn, on what stands; all is drawn anew when the ramp
 * moves or when the window is full and goes on by half (`onWindow` is told where it begins, seconds).
 */
export function LiveTrace({
  store,
  scale,
  width,
  onWindow,
}: {
  store: RefObject<LiveStore>;
  scale: LadderScale;
  width: number;
  onWindow: (fromS: number) => void;
}) {
  const outline = useRef<HTMLCanvasElement>(null);
  const colours = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    store.current.changed = true;
    const ramp = createRamp();
    let shown: { live: LiveStore; fromS: number; to: number; known: number } | null = null;
    let frame = requestAnimationFrame(function paint() {
      frame = requestAnimationFrame(paint);
      const live = store.current;
      if (!live.changed || width <= 0) return;
      live.changed = false;
      const { from, span, known } = ramp(live);
      const sungS = live.midi.length * HOP_S;
      const same = shown !== null && shown.live === live;
      const full = same && sungS > shown!.fromS + LIVE_WINDOW_S;
      const fromS = full ? sungS - LIVE_WINDOW_S / 2 : same ? shown!.fromS : Math.max(0, sungS - LIVE_WINDOW_S / 2);
      const anew = !same || full || shown!.known !== known;
      if (!same || full) onWindow(fromS);
      const pens = [outline, colours].map((c) => (anew ? sizedContext(c.current, width, scale.height) : c.current?.getContext('2d')));
      if (!pens[0] || !pens[1]) return;
      const first = Math.max(0, anew ? Math.floor(fromS / HOP_S) - 1 : shown!.to - OVERLAP);
      const curve = { startS: first * HOP_S, hopS: HOP_S, midi: live.midi.slice(first) };
      const time = { fromS, toS: fromS + LIVE_WINDOW_S, width };
      const [ink, , soft] = themeColours();
      strokeCurve(pens[0], curve, time, scale, OUTLINE_PX, ink);
      strokeCurve(pens[1], { ...curve, head: live.head.slice(first).map((h) => (h - from) / span) }, time, scale, LINE_PX, soft);
      shown = { live, fromS, to: live.midi.length, known };
    });
    return () => cancelAnimationFrame(frame);
  }, [store, scale, width, onWindow]);
  return [outline, colours].map((canvas, i) => (
    <canvas
      key={i}
      ref={canvas}
      data-testid={i === 1 ? 'live-trace' : undefined}
      aria-hidden="true"
      className="pointer-events-none absolute inset-0"
      style={{ width, height: scale.height }}
    />
  ));
}
