import type { VoiceSummary } from '../../core/map/types';
import { isNatural } from '../../core/music/pitch';
import { useLanguage } from '../language/language';

/** All voices on one keyboard: C2 to G6. */
export const LYING_RANGE = { low: 36, high: 91 };
const STEP = 6;
const HEIGHT = 34;
const LABEL_HEIGHT = 22;
/** As wide as drawn; on a tablet half of that, so that the list fits beside a piano. */
const WIDTH = 'h-auto w-[336px] max-lg:w-[184px]';

const xOf = (midi: number) => (midi - LYING_RANGE.low + 0.5) * STEP;
const NOTES = Array.from({ length: LYING_RANGE.high - LYING_RANGE.low + 1 }, (_, i) => LYING_RANGE.low + i);
const SHARPS = NOTES.filter((m) => !isNatural(m))
  .map((m) => `M${xOf(m) - STEP / 2} 0h${STEP}v${HEIGHT}h${-STEP}z`)
  .join('');
const OCTAVES = NOTES.filter((m) => m % 12 === 0);

/** The names of the octaves over a column of lying ladders. */
export function LyingLabels() {
  const { note, t } = useLanguage();
  return (
    <svg
      viewBox={`0 0 ${NOTES.length * STEP} ${LABEL_HEIGHT}`}
      className={WIDTH}
      role="img"
      aria-label={t('From {low} to {high}', { low: { note: LYING_RANGE.low }, high: { note: LYING_RANGE.high } })}
    >
      {OCTAVES.map((m) => (
        <text key={m} x={xOf(m) - STEP / 2} y={LABEL_HEIGHT - 3} className="text-[13px] max-lg:text-[22px]" fill="var(--soft)">
          {note(m)}
        </text>
      ))}
    </svg>
  );
}

/** The ladder laid on its side for a list: one row a voice, low notes left. Decorative. */
export function LyingLadder({ map }: { map: VoiceSummary }) {
  return (
    <svg viewBox={`0 0 ${NOTES.length * STEP} ${HEIGHT}`} aria-hidden="true" className={`rounded ${WIDTH}`}>
      <path d={SHARPS} fill="var(--rung)" />
      <path d={OCTAVES.map((m) => `M${xOf(m) - STEP / 2} 0v${HEIGHT}`).join('')} stroke="var(--rung-dark)" />
      {map.extreme && (
        <rect
          x={xOf(map.extreme.low.midi)}
          width={xOf(map.extreme.high.midi) - xOf(map.extreme.low.midi)}
          y={HEIGHT / 2 - 4}
          height={8}
          rx={4}
          fill="var(--soft)"
        />
      )}
      {map.passaggi.map((p) => (
        <g key={p.midi}>
          <rect
            x={xOf(p.lowMidi) - 4}
            width={xOf(p.highMidi) - xOf(p.lowMidi) + 8}
            y={3}
            height={HEIGHT - 6}
            rx={6}
            fill={p.impression ? 'none' : 'var(--band)'}
            stroke={p.impression ? 'var(--soft)' : 'none'}
            strokeDasharray="3 3"
            opacity={p.impression ? 1 : 0.35 + 0.4 * p.confidence}
          />
          <circle cx={xOf(p.midi)} cy={HEIGHT / 2} r={4} fill="var(--ink)" />
        </g>
      ))}
    </svg>
  );
}
