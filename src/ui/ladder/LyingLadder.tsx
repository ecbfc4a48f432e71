import type { VoiceMap } from '../../core/map/types';
import { isNatural } from '../../core/music/pitch';

/** All voices on one keyboard: D2 to G6. */
export const LYING_RANGE = { low: 38, high: 91 };
const STEP = 6;
const HEIGHT = 34;

/** The ladder laid on its side for a list: one row a voice, low notes left. Decorative. */
export function LyingLadder({ map }: { map: VoiceMap }) {
  const notes = Array.from({ length: LYING_RANGE.high - LYING_RANGE.low + 1 }, (_, i) => LYING_RANGE.low + i);
  const x = (midi: number) => (midi - LYING_RANGE.low + 0.5) * STEP;
  return (
    <svg width={notes.length * STEP} height={HEIGHT} aria-hidden="true" className="rounded">
      {notes.map((m) => (
        <rect key={m} x={x(m) - STEP / 2} width={STEP} height={HEIGHT} fill={isNatural(m) ? 'var(--card)' : 'var(--rung)'} />
      ))}
      {notes.filter((m) => m % 12 === 0).map((m) => (
        <line key={m} x1={x(m) - STEP / 2} x2={x(m) - STEP / 2} y1={0} y2={HEIGHT} stroke="var(--rung-dark)" />
      ))}
      {map.extreme && <rect x={x(map.extreme.low.midi)} width={x(map.extreme.high.midi) - x(map.extreme.low.midi)} y={HEIGHT / 2 - 4} height={8} rx={4} fill="var(--soft)" />}
      {map.passaggi.map((p) => (
        <g key={p.midi}>
          <rect x={x(p.lowMidi) - 4} width={x(p.highMidi) - x(p.lowMidi) + 8} y={3} height={HEIGHT - 6} rx={6} fill="var(--band)" opacity={0.35 + 0.4 * p.confidence} />
          <circle cx={x(p.midi)} cy={HEIGHT / 2} r={4} fill="var(--ink)" />
        </g>
      ))}
    </svg>
  );
}
