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
const SCORE_EVERY = 12;
const MOST_SCORES = 2000;
const SPAN_EVERY = 120;
/** A ramp that has moved by less than this share of itself stays as it is: all that stands would be drawn anew. */
const MOVED = 0.04;

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

/** Where the ramp stands, looked at again now and then; another `move` tells that it has moved. */
function createRamp() {
  let ramp = { from: 0, span: 1, move: 0 };
  let known = 0;
  return (store: LiveStore) => {
    const count = Math.ceil(store.scores.length / (SPAN_EVERY / SCORE_EVERY));
    if (count !== known) {
      known = count;
      const next = spanOf(store.scores.slice(-MOST_SCORES));
      const by = Math.max(Math.abs(next.from - ramp.from), Math.abs(next.span - ramp.span));
      if (by > MOVED * ramp.span) ramp = { ...next, move: ramp.move + 1 };
    }
    return ramp;
  };
}

/** Values outlined once more, so that new strokes join on to those that stand; the colour goes back over all that outline covers. */
const OVERLAP = 3;
const COLOUR_OVERLAP = 20;

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
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    store.current.changed = true;
    const ramp = createRamp();
    let shown: { live: LiveStore; fromS: number; to: number; move: number } | null = null;
    let frame = requestAnimationFrame(function paint() {
      frame = requestAnimationFrame(paint);
      const live = store.current;
      if (!live.changed || width <= 0) return;
      live.changed = false;
      const { from, span, move } = ramp(live);
      const sungS = live.midi.length * HOP_S;
      const same = shown !== null && shown.live === live;
      const full = same && sungS > shown!.fromS + LIVE_WINDOW_S;
      const fromS = full ? sungS - LIVE_WINDOW_S / 2 : same ? shown!.fromS : Math.max(0, sungS - LIVE_WINDOW_S / 2);
      const anew = !same || full || shown!.move !== move;
      if (!same || full) onWindow(fromS);
      const pen = anew ? sizedContext(canvas.current, width, scale.height) : canvas.current?.getContext('2d');
      if (!pen) return;
      const begin = anew ? Math.floor(fromS / HOP_S) - 1 : shown!.to;
      const part = (overlap: number) => {
        const first = Math.max(0, begin - overlap);
        return { startS: first * HOP_S, hopS: HOP_S, midi: live.midi.slice(first), head: live.head.slice(first) };
      };
      const time = { fromS, toS: fromS + LIVE_WINDOW_S, width };
      const [ink, , soft] = themeColours();
      strokeCurve(pen, { ...part(OVERLAP), head: undefined }, time, scale, OUTLINE_PX, ink);
      const coloured = part(COLOUR_OVERLAP);
      strokeCurve(pen, { ...coloured, head: coloured.head.map((h) => (h - from) / span) }, time, scale, LINE_PX, soft);
      shown = { live, fromS, to: live.midi.length, move };
    });
    return () => cancelAnimationFrame(frame);
  }, [store, scale, width, onWindow]);
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
