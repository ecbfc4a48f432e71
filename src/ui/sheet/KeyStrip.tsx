import { patternSpan } from '../../core/exercise/pattern';
import type { Exercise } from '../../core/exercise/types';
import type { VoiceMap } from '../../core/map/types';
import { isNatural } from '../../core/music/pitch';
import type { PlanItem } from '../../core/plan/types';

const HEIGHT = 30;

/** Where an exercise lies in the voice: the ladder on its side, low left; a line for each key. Decorative. */
export function KeyStrip({
  range,
  map,
  item,
  exercise,
  current,
}: {
  range: { low: number; high: number };
  map: VoiceMap;
  item: PlanItem;
  exercise: Exercise;
  current: number | null;
}) {
  const count = range.high - range.low + 1;
  const step = 256 / count;
  const x = (midi: number) => (midi - range.low) * step;
  const span = patternSpan(exercise);
  const line = HEIGHT / item.keys.length;
  return (
    <svg viewBox={`0 0 256 ${HEIGHT}`} className="mt-1 w-full" aria-hidden="true">
      {Array.from({ length: count }, (_, i) => range.low + i).map((m) => (
        <rect key={m} x={x(m)} width={step} height={HEIGHT} fill={isNatural(m) ? 'var(--paper)' : 'var(--rung)'} />
      ))}
      {map.passaggi.map((p) => (
        <rect
          key={p.midi}
          x={x(p.lowMidi)}
          width={Math.max(step, x(p.highMidi) - x(p.lowMidi))}
          height={HEIGHT}
          fill="var(--band)"
          opacity={0.55}
        />
      ))}
      {item.keys.map((key, k) => (
        <rect
          key={key}
          x={x(key + span.bottom)}
          width={(span.top - span.bottom + 1) * step}
          y={k * line + line * 0.2}
          height={Math.max(0.8, line * 0.6)}
          fill={key === current ? 'var(--ink)' : 'var(--accent)'}
        />
      ))}
    </svg>
  );
}
