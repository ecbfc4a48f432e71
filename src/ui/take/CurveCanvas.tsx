'use client';
import { useEffect, useRef } from 'react';
import { LadderScale } from '../ladder/scale';
import { Curve, drawCurve, TimeScale } from './trace';

const DARK = '(prefers-color-scheme: dark)';

/** A pitch curve on a canvas of the ladder's height; paints again when anything changes (or the theme does). */
export function CurveCanvas({ curve, time, scale }: { curve: Curve; time: TimeScale; scale: LadderScale }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const paint = () => {
      const ctx = sizedContext(canvas.current, time.width, scale.height);
      if (!ctx) return;
      const [ink, accent] = themeColours();
      drawCurve(ctx, curve, time, scale, ink, accent);
    };
    paint();
    const dark = matchMedia(DARK);
    dark.addEventListener('change', paint);
    return () => dark.removeEventListener('change', paint);
  }, [curve, time, scale]);
  return (
    <canvas
      ref={canvas}
      aria-hidden="true"
      className="pointer-events-none absolute inset-0"
      style={{ width: time.width, height: scale.height }}
    />
  );
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

type Colours = [ink: string, accent: string, soft: string];
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
