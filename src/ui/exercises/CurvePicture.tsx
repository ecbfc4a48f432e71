'use client';
import { KeyInTime, targetCurve } from '../../core/exercise/render';
import { useWidth } from '../kit/useWidth';
import { Rungs } from '../ladder/Ladder';
import { ladderScale } from '../ladder/scale';
import { useLanguage } from '../language/language';

const HEIGHT = 170;
const MARGIN_ST = 2;

/** What is meant to be heard, pitch over time on the rungs of the ladder. */
export function CurvePicture({ name, sounding: key }: { name: string; sounding: KeyInTime }) {
  const { note, t } = useLanguage();
  const [box, width] = useWidth();
  const midis = key.notes.map((n) => n.midi);
  const low = Math.min(...midis) - MARGIN_ST;
  const high = Math.max(...midis) + MARGIN_ST;
  const scale = ladderScale(low, high, HEIGHT);
  const from = key.notes[0].startS;
  const lasts = key.notes[key.notes.length - 1].endS - from;
  const x = (timeS: number) => 34 + ((timeS - from) / lasts) * (width - 44);
  return (
    <div ref={box}>
      <svg
        width={width}
        height={HEIGHT}
        role="img"
        aria-label={t('{name} as pitch over {seconds, number, ::.0} seconds', { name, seconds: lasts })}
        className="rounded-lg border border-line"
      >
        <Rungs scale={scale} width={width} />
        {[Math.min(...midis), Math.max(...midis)].map((m) => (
          <text key={m} x={4} y={scale.y(m)} dominantBaseline="central" fontSize={12} fill="var(--ink)">
            {note(m)}
          </text>
        ))}
        {targetCurve(key).map((run) => (
          <polyline
            key={run[0].timeS}
            points={run.map((p) => `${x(p.timeS)},${scale.y(p.midi)}`).join(' ')}
            fill="none"
            stroke="var(--accent)"
            strokeWidth={4}
            strokeLinecap="round"
            strokeLinejoin="round"
          />
        ))}
      </svg>
    </div>
  );
}
