'use client';
import { patternSpan } from '../../core/exercise/pattern';
import type { VoiceMap } from '../../core/map/types';
import type { Planning } from '../../core/plan/check';
import type { PlanItem } from '../../core/plan/types';
import { useWidth } from '../kit/useWidth';
import { Ladder, PassaggioBand, Rungs } from '../ladder/Ladder';
import { LadderScale } from '../ladder/scale';
import { useLanguage } from '../language/language';

/** The whole set against the voice: one column an exercise, a bar for each key from its lowest to its highest note. */
export function KeysPicture({
  scale,
  map,
  items,
  find,
  selected,
}: {
  scale: LadderScale;
  map: VoiceMap;
  items: PlanItem[];
  find: Planning['find'];
  selected: string | null;
}) {
  const { keyNote, t } = useLanguage();
  const [box, width] = useWidth();
  const column = items.length ? width / items.length : width;
  return (
    <div className="flex gap-1">
      <Ladder scale={scale} map={map} />
      <div ref={box} className="min-w-0 flex-1">
        <svg
          width={width}
          height={scale.height}
          className="rounded-lg border border-line"
          role="img"
          aria-label={t('Keys of {n} exercises against the voice', { n: items.length })}
        >
          <Rungs scale={scale} width={width} />
          {map.passaggi.map((p) => (
            <PassaggioBand key={p.midi} scale={scale} passaggio={p} x={0} width={width} />
          ))}
          {items.map((item, i) => {
            const exercise = find(item.exerciseId);
            if (!exercise) return null;
            const span = patternSpan(exercise);
            const step = Math.min(9, (column - 4) / Math.max(1, item.keys.length));
            const left = i * column + (column - step * item.keys.length) / 2;
            return (
              <g key={item.exerciseId} opacity={selected && selected !== item.exerciseId ? 0.35 : 0.95}>
                {item.keys.map((key, k) => (
                  <rect
                    key={key}
                    x={left + k * step + 0.5}
                    width={Math.max(1.5, step - 1.5)}
                    y={scale.y(key + span.top) - scale.rung / 2}
                    height={(span.top - span.bottom + 1) * scale.rung}
                    rx={1.5}
                    fill="var(--accent)"
                  />
                ))}
                <text x={(i + 0.5) * column} y={scale.height - 6} textAnchor="middle" fontSize={12} fontWeight={700} fill="var(--ink)">
                  {i + 1}
                </text>
                <title>{`${t(exercise.name)}: ${item.keys.map(keyNote).join(' ')}`}</title>
              </g>
            );
          })}
        </svg>
      </div>
    </div>
  );
}
