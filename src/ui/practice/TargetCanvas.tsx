'use client';
import { RefObject, useEffect, useRef } from 'react';
import { stepSemitones } from '../../core/exercise/pattern';
import { KeyInTime, targetCurve } from '../../core/exercise/render';
import { exerciseName } from '../../core/exercise/of-song';
import type { Exercise } from '../../core/exercise/types';
import { movableDo } from '../../core/exercise/movable-do';
import { isNatural, nearestOctave } from '../../core/music/pitch';
import { HOP_S } from '../../core/voice/types';
import type { LiveStore } from '../take/LiveTrace';
import { useWidth } from '../kit/useWidth';
import { ladderScale, targetWidth } from '../ladder/scale';
import { useLanguage } from '../language/language';

const HEIGHT = 260;
const MARGIN_ST = 3;
const LEFT = 36;

/** Which key sounds, when its chord began (milliseconds of `performance.now`), and when the take began. */
export interface Moment {
  key: KeyInTime;
  sinceMs: number;
  takeMs: number | null;
  /** When it was broken off. */
  cutMs?: number;
}

interface Props {
  moment: RefObject<Moment | null>;
  live: RefObject<LiveStore>;
  exercise: Pick<Exercise, 'name' | 'ofSong' | 'steps'>;
}

/** What is meant in this key on the rungs of the ladder, where it is by now, and what is sung over it. */
export function TargetCanvas({ moment, live, exercise }: Props) {
  const { note, t, tongue } = useLanguage();
  const { steps } = exercise;
  const [box, width] = useWidth();
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const element = canvas.current;
    const context = element?.getContext('2d');
    if (!element || !context || width === 0) return;
    const ratio = devicePixelRatio;
    element.width = width * ratio;
    element.height = HEIGHT * ratio;
    const style = getComputedStyle(document.documentElement);
    const colour = (what: string) => style.getPropertyValue(`--${what}`).trim();
    const colours = {
      rung: colour('rung'),
      ink: colour('ink'),
      soft: colour('soft'),
      accent: colour('accent'),
      card: colour('card'),
      band: colour('band'),
    };
    const called = (midi: number, tonic: number) => {
      const step = tongue.movableDo && steps.find((s) => tonic + stepSemitones(s) === midi);
      return step ? movableDo(step) : note(midi);
    };
    let asked = 0;
    const draw = () => {
      asked = requestAnimationFrame(draw);
      context.setTransform(ratio, 0, 0, ratio, 0, 0);
      context.fillStyle = colours.card;
      context.fillRect(0, 0, width, HEIGHT);
      const now = moment.current;
      if (!now) return;
      const { key } = now;
      const midis = key.notes.map((n) => n.midi);
      const low = Math.min(...midis) - MARGIN_ST;
      const high = Math.max(...midis) + MARGIN_ST;
      const scale = ladderScale(low, high, HEIGHT);
      const x = (s: number) => LEFT + (s / key.totalS) * (width - LEFT);
      context.font = '12px sans-serif';
      context.textBaseline = 'middle';
      for (let m = low; m <= high; m++) {
        if (!isNatural(m)) {
          context.fillStyle = colours.rung;
          context.fillRect(0, scale.y(m) - scale.rung / 2, width, scale.rung);
        }
        if (midis.includes(m) && (tongue.movableDo || isNatural(m))) {
          context.fillStyle = colours.soft;
          context.fillText(called(m, key.tonic), 2, scale.y(m));
        }
      }
      context.lineCap = context.lineJoin = 'round';
      context.strokeStyle = colours.accent;
      context.globalAlpha = 0.35;
      context.lineWidth = targetWidth(scale);
      for (const run of targetCurve(key)) {
        context.beginPath();
        for (const p of run) context.lineTo(x(p.timeS), scale.y(p.midi));
        context.stroke();
      }
      context.globalAlpha = 1;
      const at = ((now.cutMs ?? performance.now()) - now.sinceMs) / 1000;
      if (now.takeMs !== null) {
        const { midi } = live.current;
        const first = Math.max(0, Math.round((now.sinceMs - now.takeMs) / 1000 / HOP_S));
        context.strokeStyle = colours.ink;
        context.lineWidth = 3;
        context.beginPath();
        let pen = false;
        for (let i = first; i < midi.length; i++) {
          if (!(midi[i] > 0)) {
            pen = false;
            continue;
          }
          const px = x((i - first) * HOP_S);
          const py = scale.y(nearestOctave(midi[i], (low + high) / 2));
          if (pen) context.lineTo(px, py);
          else context.moveTo(px, py);
          pen = true;
        }
        context.stroke();
      }
      context.fillStyle = colours.band;
      context.fillRect(x(Math.min(at, key.totalS)) - 1, 0, 2, HEIGHT);
    };
    draw();
    return () => cancelAnimationFrame(asked);
  }, [moment, live, width, note, steps, tongue]);
  return (
    <div ref={box}>
      <canvas
        ref={canvas}
        role="img"
        aria-label={t('{name}: what is meant, and what is sung', { name: exerciseName(exercise) })}
        style={{ width, height: HEIGHT }}
        className="rounded-lg border border-line"
      />
    </div>
  );
}
