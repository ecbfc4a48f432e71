import { Passaggio, VoiceMap } from '../../core/map/types';
import { zoneOf } from '../../core/map/zone';
import { isNatural } from '../../core/music/pitch';
import { LadderScale } from './scale';
import { useLanguage } from '../language/language';

/** Rungs behind whatever stands beside the ladder: naturals and sharps told apart by tone. */
export function Rungs({ scale, width }: { scale: LadderScale; width: number }) {
  const notes = Array.from({ length: scale.high - scale.low + 1 }, (_, i) => scale.low + i);
  return (
    <g aria-hidden="true">
      {notes.map((midi) => (
        <g key={midi}>
          {!isNatural(midi) && <rect x={0} width={width} y={scale.y(midi) - scale.rung / 2} height={scale.rung} fill="var(--rung)" />}
          {midi % 12 === 0 && (
            <line x1={0} x2={width} y1={scale.y(midi) + scale.rung / 2} y2={scale.y(midi) + scale.rung / 2} stroke="var(--rung-dark)" />
          )}
        </g>
      ))}
    </g>
  );
}

const KEY_WIDTH = 46;
export const LADDER_WIDTH = 108;

/** A keyboard on its side with the voice's own map drawn beside the keys. Decorative: a text table carries the same. */
export function Ladder({
  scale,
  map,
  current,
  played,
  onPlay,
  flats,
}: {
  scale: LadderScale;
  map: VoiceMap | null;
  current?: number | null;
  /** Notes that sound at a keyboard. */
  played?: readonly number[];
  /** A key under a finger or the mouse: pressed, and let go of. */
  onPlay?: (midi: number, down: boolean) => void;
  /** Beside music in a key with flats its changes are spelt so. */
  flats?: boolean;
}) {
  const { note } = useLanguage();
  const notes = Array.from({ length: scale.high - scale.low + 1 }, (_, i) => scale.low + i);
  const dense = scale.rung < 11;
  return (
    <svg width={LADDER_WIDTH} height={scale.height} aria-hidden="true" className="shrink-0 select-none">
      {notes.map((midi) => {
        const natural = isNatural(midi);
        const lit = (current != null && Math.round(current) === midi) || (played?.includes(midi) ?? false);
        const labelled = dense ? midi % 12 === 0 || midi % 12 === 5 : natural;
        return (
          <g key={midi}>
            <rect
              x={0}
              width={natural ? KEY_WIDTH : KEY_WIDTH * 0.62}
              y={scale.y(midi) - scale.rung / 2 + 0.5}
              height={scale.rung - 1}
              rx={2}
              fill={lit ? 'var(--accent)' : natural ? 'var(--key)' : 'var(--key-sharp)'}
              stroke="var(--line)"
              strokeWidth={0.75}
              data-key={onPlay && midi}
              data-sounds={played?.includes(midi) || undefined}
              className={onPlay && 'cursor-pointer touch-none'}
              onPointerDown={
                onPlay &&
                ((e) => {
                  e.currentTarget.setPointerCapture(e.pointerId);
                  onPlay(midi, true);
                })
              }
              onPointerUp={onPlay && (() => onPlay(midi, false))}
              onPointerCancel={onPlay && (() => onPlay(midi, false))}
            />
            {labelled && natural && (
              <text
                x={KEY_WIDTH - 4}
                y={scale.y(midi)}
                textAnchor="end"
                dominantBaseline="central"
                fontSize={Math.min(13, Math.max(10, scale.rung * 0.8))}
                fontWeight={midi % 12 === 0 ? 700 : 400}
                fill={lit ? 'var(--accent-ink)' : 'var(--key-ink)'}
                // Where keys are thinner than their names, the name stands on its key's colour all the same.
                stroke={lit ? 'var(--accent)' : 'var(--key)'}
                strokeWidth={dense ? 3 : 0}
                paintOrder="stroke"
                className="pointer-events-none"
              >
                {note(midi)}
              </text>
            )}
          </g>
        );
      })}
      {map && <MapColumn scale={scale} map={map} flats={flats} />}
    </svg>
  );
}

function MapColumn({ scale, map, flats }: { scale: LadderScale; map: VoiceMap; flats?: boolean }) {
  const x = KEY_WIDTH + 10;
  return (
    <g>
      {map.extreme && (
        <rect
          x={x + 6}
          width={4}
          rx={2}
          y={scale.y(map.extreme.high.midi)}
          height={scale.y(map.extreme.low.midi) - scale.y(map.extreme.high.midi)}
          fill="var(--line)"
        />
      )}
      {map.usable && (
        <rect
          x={x}
          width={16}
          rx={4}
          y={scale.y(map.usable.high.midi) - scale.rung / 2}
          height={scale.y(map.usable.low.midi) - scale.y(map.usable.high.midi) + scale.rung}
          fill="none"
          stroke="var(--soft)"
          strokeWidth={1.5}
        />
      )}
      {map.passaggi.map((p) => (
        <PassaggioBand key={p.midi} scale={scale} passaggio={p} x={x + 20} width={LADDER_WIDTH - x - 22} flats={flats} />
      ))}
    </g>
  );
}

const BRACKET_WIDTH = 5;
/** A longer name of a note (Sol#3) is written smaller, beside the bracket still. */
const LONG_NAME = 4;

/** A soft band with a likely centre, never a line: it fades over the interval; a bracket beside it holds the notes of the change. */
export function PassaggioBand({
  scale,
  passaggio: p,
  x,
  width,
  flats,
}: {
  scale: LadderScale;
  passaggio: Passaggio;
  x: number;
  width: number;
  flats?: boolean;
}) {
  const { note } = useLanguage();
  const called = note(p.midi, flats);
  const id = `band-${Math.round(p.midi * 100)}-${x}`;
  const reach = Math.max(1, (p.highMidi - p.lowMidi) / 2 + 0.7);
  const { first, last } = zoneOf(p);
  // A first impression is drawn paler, with a broken edge.
  const opacity = p.impression ? 0.25 : 0.25 + 0.45 * p.confidence;
  return (
    <g>
      <defs>
        <linearGradient id={id} x1="0" y1="0" x2="0" y2="1">
          <stop offset="0" stopColor="var(--band)" stopOpacity={0} />
          <stop offset="0.35" stopColor="var(--band)" stopOpacity={opacity} />
          <stop offset="0.65" stopColor="var(--band)" stopOpacity={opacity} />
          <stop offset="1" stopColor="var(--band)" stopOpacity={0} />
        </linearGradient>
      </defs>
      <rect
        x={x}
        width={width}
        y={scale.y(p.midi + reach)}
        height={scale.y(p.midi - reach) - scale.y(p.midi + reach)}
        fill={`url(#${id})`}
      />
      <path
        d={`M${x + BRACKET_WIDTH} ${scale.y(first) + scale.rung / 2}h-4V${scale.y(last) - scale.rung / 2}h4`}
        fill="none"
        stroke="var(--soft)"
        strokeWidth={1.5}
        strokeDasharray={p.impression ? '3 3' : undefined}
      />
      {width > 14 && width < 60 && (
        <text
          x={x + (width + BRACKET_WIDTH) / 2}
          y={scale.y(p.midi)}
          textAnchor="middle"
          dominantBaseline="central"
          fontSize={called.length > LONG_NAME ? 9.5 : 12}
          fontWeight={700}
          fill="var(--ink)"
        >
          {called}
        </text>
      )}
    </g>
  );
}

/** Right of a label stays free what was heard last, px: it lies at the edge. */
const LABEL_MARGIN = 32;

/** Where a vowel's colour turns by itself: a thin mark, so that it isn't taken for a change of register. */
export function VowelTurn({ scale, vowel, midi, width }: { scale: LadderScale; vowel: string; midi: number; width: number }) {
  const { t } = useLanguage();
  const y = scale.y(midi);
  return (
    <g>
      <line x1={0} x2={width} y1={y} y2={y} stroke="var(--soft)" strokeWidth={0.75} />
      <text x={width - LABEL_MARGIN} y={y - 3} textAnchor="end" fontSize={11} fill="var(--soft)">
        {vowel ? t('“{vowel}” turns here: vowel, not register', { vowel }) : t('vowel, not register')}
      </text>
    </g>
  );
}
