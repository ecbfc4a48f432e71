'use client';
import { useMemo } from 'react';
import type { CoachMark, VoiceMap } from '../../core/map/types';
import type { TakeFindings, Trace } from '../../core/take/types';
import { CoachMarkShape, MachineMark, SingerMark } from '../kit/Shapes';
import { useWidth } from '../kit/useWidth';
import { EVENT_WORDS } from '../kit/words';
import { Ladder, PassaggioBand, Rungs, VowelTurn } from '../ladder/Ladder';
import { LadderScale } from '../ladder/scale';
import { CurveCanvas } from './CurveCanvas';
import type { Change } from '../../core/take/changes';
import { Curve, curveOf, secondsAt, TimeScale, xAt } from './trace';
import { useLanguage } from '../language/language';

interface Props {
  scale: LadderScale;
  map: VoiceMap | null;
  findings: TakeFindings | null;
  trace: Trace;
  changes: Change[];
  marks: CoachMark[];
  selected?: Change | null;
  playheadS?: number | null;
  onSelect?: (change: Change) => void;
  onPlay: (fromS: number) => void;
  /** Another take on the same axes, drawn faintly. */
  ghost?: Trace | null;
}

/** A take beside the ladder: its curve, what the machine found (rings) and what the coach said (diamonds). Click to play from there. */
export function TakePicture({ scale, map, findings, trace, changes, marks, selected, playheadS, onSelect, onPlay, ghost }: Props) {
  const { t } = useLanguage();
  const [box, width] = useWidth();
  const curve = useMemo(() => curveOf(trace), [trace]);
  const other = useMemo(() => (ghost ? beside(ghost, trace) : null), [ghost, trace]);
  const durationS = Math.max(trace.midi.length * trace.hopS, other ? other.startS + other.midi.length * other.hopS : 0);
  const time: TimeScale = useMemo(() => ({ fromS: 0, toS: Math.max(1, durationS), width: Math.max(1, width) }), [durationS, width]);
  const atPlayhead = playheadS != null ? trace.midi[Math.round(playheadS / trace.hopS)] || null : null;

  return (
    <div className="flex gap-2">
      <Ladder scale={scale} map={map} current={atPlayhead} />
      <div
        ref={box}
        className="relative min-w-0 flex-1 cursor-pointer overflow-hidden rounded-lg border border-line"
        style={{ height: scale.height }}
        onClick={(e) => onPlay(secondsAt(time, e.clientX - e.currentTarget.getBoundingClientRect().left))}
      >
        <svg width={time.width} height={scale.height} aria-hidden="true" className="absolute inset-0">
          <Rungs scale={scale} width={time.width} />
          {map?.passaggi.map((p) => (
            <PassaggioBand key={p.midi} scale={scale} passaggio={p} x={0} width={time.width} />
          ))}
          {findings?.vowelTurnMidi != null && <VowelTurn scale={scale} vowel="" midi={findings.vowelTurnMidi} width={time.width} />}
          {Array.from({ length: Math.floor(durationS) + 1 }, (_, s) => (
            <g key={s}>
              <line x1={xAt(time, s)} x2={xAt(time, s)} y1={scale.height - 8} y2={scale.height} stroke="var(--soft)" />
              {s > 0 && (durationS < 20 || s % 5 === 0) && (
                <text x={xAt(time, s)} y={scale.height - 11} textAnchor="middle" fontSize={11} fill="var(--soft)">
                  {s} s
                </text>
              )}
            </g>
          ))}
        </svg>
        {other && (
          <div className="opacity-35">
            <CurveCanvas curve={other} time={time} scale={scale} />
          </div>
        )}
        <CurveCanvas curve={curve} time={time} scale={scale} />
        <svg
          width={time.width}
          height={scale.height}
          className="absolute inset-0"
          role="group"
          aria-label={t('Changes found in this take')}
        >
          {changes.map((c) => (
            <g
              key={c.timeS}
              role={onSelect ? 'button' : 'img'}
              tabIndex={onSelect ? 0 : undefined}
              aria-label={t('{what} at {note}, {s, number, ::.0} seconds', {
                what: EVENT_WORDS[c.kind],
                note: { note: c.midi },
                s: c.timeS,
              })}
              className="cursor-pointer"
              onClick={(e) => {
                e.stopPropagation();
                onSelect?.(c);
              }}
              onKeyDown={(e) => (e.key === 'Enter' || e.key === ' ') && (e.preventDefault(), e.stopPropagation(), onSelect?.(c))}
            >
              <circle cx={xAt(time, c.timeS)} cy={scale.y(c.midi)} r={22} fill="transparent" />
              {c.timeS === selected?.timeS && (
                <circle
                  cx={xAt(time, c.timeS)}
                  cy={scale.y(c.midi)}
                  r={17}
                  fill="none"
                  stroke="var(--ink)"
                  strokeWidth={1.5}
                  strokeDasharray="4 3"
                />
              )}
              <MachineMark x={xAt(time, c.timeS)} y={scale.y(c.midi)} strong={c.confidence >= 0.5} />
            </g>
          ))}
          {marks.map((m) =>
            m.verdict === 'reject' ? (
              <path key={m.id} d={cross(xAt(time, m.timeS), scale.y(m.midi), 9)} stroke="var(--coach)" strokeWidth={4} fill="none" />
            ) : m.by === 'singer' ? (
              <SingerMark key={m.id} x={xAt(time, m.timeS)} y={scale.y(m.midi)} />
            ) : (
              <CoachMarkShape key={m.id} x={xAt(time, m.timeS)} y={scale.y(m.midi)} />
            ),
          )}
          {playheadS != null && (
            <line x1={xAt(time, playheadS)} x2={xAt(time, playheadS)} y1={0} y2={scale.height} stroke="var(--ink)" strokeWidth={2} />
          )}
        </svg>
        {!findings?.quality.usable && findings && (
          <p className="absolute inset-x-0 top-2 text-center font-semibold">{t('Nothing is concluded from this take.')}</p>
        )}
      </div>
    </div>
  );
}

/** Another take's curve, moved so that both begin to sing at the same moment. */
function beside(ghost: Trace, trace: Trace): Curve {
  const begins = (t: Trace) =>
    Math.max(
      0,
      t.midi.findIndex((m) => m > 0),
    ) * t.hopS;
  return { ...curveOf(ghost), startS: begins(trace) - begins(ghost) };
}

const cross = (x: number, y: number, r: number) => `M${x - r} ${y - r}L${x + r} ${y + r}M${x - r} ${y + r}L${x + r} ${y - r}`;
