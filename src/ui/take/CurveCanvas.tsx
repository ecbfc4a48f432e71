'use client';
import { useCallback, useEffect, useRef } from 'react';
import { LadderScale } from '../ladder/scale';
import { Curve, drawCurve, TimeScale } from './trace';

const DARK = '(prefers-color-scheme: dark)';

/** A pitch curve on a canvas of the ladder's height; paints again when anything changes (or the theme does). */
export function CurveCanvas({ curve, time, scale }: { curve: Curve; time: TimeScale; scale: LadderScale }) {
  const draw = useCallback<Draw>((ctx, [ink, accent]) => drawCurve(ctx, curve, time, scale, ink, accent), [curve, time, scale]);
  return <Painted width={time.width} height={scale.height} draw={draw} />;
}

type Draw = (ctx: CanvasRenderingContext2D, colours: Colours) => void;

/** A canvas over what stands beneath; painted again when `draw` or its size changes, or the theme does. */
export function Painted({ width, height, draw }: { width: number; height: number; draw: Draw }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const paint = () => {
      const ctx = sizedContext(canvas.current, width, height);
      if (ctx) draw(ctx, themeColours());
    };
    paint();
    const dark = matchMedia(DARK);
    dark.addEventListener('change', paint);
    return () => dark.removeEventListener('change', paint);
  }, [draw, height, width]);
  return <canvas ref={canvas} aria-hidden="true" className="pointer-events-none absolute inset-0" style={{ width, height }} />;
}

/** The canvas's context, cleared and scaled to the screen's own pixels. */
export function sizedContext(canvas: HTMLCanvasElement | null, width: number, height: number): CanvasRenderingContext2D | null {
  const ctx = canvas?.getContext('2d');
  if (!canvas || !ctx || width <= 0) return null;
  const ratio = window.devicePixelRatio || 1;
  if (canvas.width !== Math.round(width * ratio) || canvas.height !== Math.round(height * ratio)) {
    canvas.width = Math.round(width * ratio);
    canvas.height = Math.round(height * ratio);
  }
  ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
  ctx.clearRect(0, 0, width, height);
  return ctx;
}

export type Colours = [ink: string, accent: string, soft: string];
let theme: { dark: MediaQueryList; wasDark: boolean; colours: Colours } | undefined;

/** Ink, accent and soft ink of the present theme. Asked at every frame: the styles are looked up only when the theme has changed. */
export function themeColours(): Colours {
  const dark = theme?.dark ?? matchMedia(DARK);
  if (!theme || theme.wasDark !== dark.matches) {
    const style = getComputedStyle(document.documentElement);
    const [ink, accent, soft] = ['--ink', '--accent', '--soft'].map((name) => style.getPropertyValue(name));
    theme = { dark, wasDark: dark.matches, colours: [ink, accent, soft] };
  }
  return theme.colours;
}
