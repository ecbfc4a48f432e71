import { RefObject, useEffect, useMemo, useRef } from 'react';
import type { TargetPoint } from '../../core/exercise/render';
import { voiceBegins } from '../../core/lesson/target';
import { type LadderScale, targetWidth } from '../ladder/scale';
import { LIVE_WINDOW_S, type LiveStore } from '../take/LiveTrace';

/** Where it waits for the voice. */
const WAITS_AT_S = 0.4;

interface Props {
  target: readonly (readonly TargetPoint[])[];
  live: RefObject<LiveStore>;
  scale: LadderScale;
  width: number;
  /** Where the window in view begins, seconds. */
  fromS: number;
}

/** What is meant, under what is sung; it begins where the voice does, whenever that is. */
export function Target({ target, live, scale, width, fromS }: Props) {
  const group = useRef<SVGGElement>(null);
  const x = width / LIVE_WINDOW_S;
  useEffect(() => {
    let asked = 0;
    let read: readonly number[] | null = null;
    let begins: number | null = null;
    let placedAt: number | null = null;
    const place = () => {
      asked = requestAnimationFrame(place);
      const { midi } = live.current;
      if (midi !== read) begins = null;
      read = midi;
      begins ??= voiceBegins(midi);
      const at = ((begins ?? WAITS_AT_S) - fromS) * x;
      // The same again would be painted anew.
      if (at !== placedAt) group.current?.setAttribute('transform', `translate(${at} 0)`);
      placedAt = at;
    };
    place();
    return () => cancelAnimationFrame(asked);
  }, [live, fromS, x]);
  const paths = useMemo(
    () => target.map((run) => run.map((p, i) => `${i ? 'L' : 'M'}${p.timeS * x} ${scale.y(p.midi)}`).join('')),
    [target, x, scale],
  );
  return (
    <g
      ref={group}
      data-testid="target"
      fill="none"
      stroke="var(--accent)"
      strokeWidth={targetWidth(scale)}
      strokeLinecap="round"
      strokeLinejoin="round"
      opacity={0.3}
    >
      {paths.map((d, i) => (
        <path key={i} d={d} />
      ))}
    </g>
  );
}
