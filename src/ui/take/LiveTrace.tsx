'use client';
import { RefObject, useEffect, useRef } from 'react';
import { hzToMidi } from '../../core/music/pitch';
import type { LiveFrame } from '../../core/voice/live';
import { HOP_S } from '../../core/voice/types';
import { LadderScale } from '../ladder/scale';
import { sizedContext, themeColours } from './CurveCanvas';
import { drawCurve } from './trace';

/** Seconds of singing in view; longer takes scroll. */
export const LIVE_WINDOW_S = 12;

/** Live frames of one take, filled from outside; drawing follows the screen, not React. */
export interface LiveStore {
  midi: number[];
  changed: boolean;
}

export const emptyLive = (): LiveStore => ({ midi: [], changed: true });

export function addFrames(store: LiveStore, frames: LiveFrame[]) {
  for (const f of frames) store.midi.push(f.hz > 0 ? hzToMidi(f.hz) : 0);
  store.changed = true;
}

/** The voice as it is being sung, beside the ladder. */
export function LiveTrace({ store, scale, width }: { store: RefObject<LiveStore>; scale: LadderScale; width: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    store.current.changed = true;
    let frame = requestAnimationFrame(function paint() {
      frame = requestAnimationFrame(paint);
      const live = store.current;
      if (!live.changed) return;
      live.changed = false;
      const ctx = sizedContext(canvas.current, width, scale.height);
      if (!ctx) return;
      const sungS = live.midi.length * HOP_S;
      const fromS = Math.max(0, sungS - LIVE_WINDOW_S);
      drawCurve(
        ctx,
        { startS: 0, hopS: HOP_S, midi: live.midi },
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
