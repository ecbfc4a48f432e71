import { memo, RefObject, useState } from 'react';
import type { TargetPoint } from '../../core/exercise/render';
import type { CoachMark, VoiceMap } from '../../core/map/types';
import { CoachMarkShape, SingerMark } from '../kit/Shapes';
import { useWidth } from '../kit/useWidth';
import { Ladder, PassaggioBand, Rungs } from '../ladder/Ladder';
import type { LadderScale } from '../ladder/scale';
import { LIVE_WINDOW_S, LiveStore, LiveTrace } from '../take/LiveTrace';
import { Target } from './Target';

/** A key of the step in hand, on the ladder: sung, being sung, or to come. */
export interface KeyRung {
  lowest: number;
  highest: number;
  state: 'done' | 'now';
}

/** The voice as it sings, beside the ladder, with the keys of the step and the marks of this take. */
export const Stage = memo(function Stage({
  scale,
  map,
  live,
  keys = [],
  target = [],
  marks = [],
  pace,
  played,
  onPlay,
  children,
}: {
  scale: LadderScale;
  map: VoiceMap;
  live: RefObject<LiveStore>;
  keys?: KeyRung[];
  /** What is meant in what is sung, or about to be. */
  target?: readonly (readonly TargetPoint[])[];
  marks?: CoachMark[];
  pace?: RefObject<HTMLParagraphElement | null>;
  /** Notes that sound at a keyboard, and keys of the ladder that are played. */
  played?: readonly number[];
  onPlay?: (midi: number, down: boolean) => void;
  children?: React.ReactNode;
}) {
  const [box, width] = useWidth();
  const [fromS, setFromS] = useState(0);
  return (
    <div className="flex gap-2">
      <Ladder scale={scale} map={map} played={played} onPlay={onPlay} />
      <div ref={box} className="relative min-w-0 flex-1 overflow-hidden rounded-lg border border-line" style={{ height: scale.height }}>
        <svg width={width} height={scale.height} aria-hidden="true">
          <Rungs scale={scale} width={width} />
          {map.passaggi.map((p) => (
            <PassaggioBand key={p.midi} scale={scale} passaggio={p} x={0} width={width} />
          ))}
          {keys.map((k, i) => (
            <rect
              key={i}
              x={k.state === 'now' ? 4 : 18 + 5 * (keys.length - 1 - i)}
              width={k.state === 'now' ? 10 : 3}
              rx={1.5}
              y={scale.y(k.highest) - scale.rung / 2}
              height={scale.y(k.lowest) - scale.y(k.highest) + scale.rung}
              fill={k.state === 'now' ? 'var(--accent)' : 'var(--soft)'}
              opacity={k.state === 'now' ? 0.9 : 0.35}
            />
          ))}
          {target.length > 0 && <Target target={target} live={live} scale={scale} width={width} fromS={fromS} />}
        </svg>
        <LiveTrace store={live} scale={scale} width={width} onWindow={setFromS} />
        <svg width={width} height={scale.height} className="pointer-events-none absolute inset-0" aria-hidden="true">
          {marks
            .filter((m) => m.timeS >= fromS)
            .map((m) => {
              const Shape = m.by === 'singer' ? SingerMark : CoachMarkShape;
              return <Shape key={m.id} x={((m.timeS - fromS) / LIVE_WINDOW_S) * width} y={scale.y(m.midi)} />;
            })}
        </svg>
        {pace && <p ref={pace} role="status" className="absolute inset-x-0 bottom-2 text-center text-lg font-semibold" />}
        {children}
      </div>
    </div>
  );
});
