'use client';
import type { Ref } from 'react';
import type { VoiceMap, Vote } from '../../core/map/types';
import { CoachMarkShape, MachineMark, SingerMark } from '../kit/Shapes';
import { useWidth } from '../kit/useWidth';
import { EVENT_WORDS, SOURCE_WORDS } from '../kit/words';
import { Ladder, PassaggioBand, Rungs, VowelTurn } from '../ladder/Ladder';
import { rampColour } from '../ladder/ramp';
import { LadderScale } from '../ladder/scale';
import { useLanguage } from '../language/language';
import { ofBand } from './words-of-bands';

const LEVEL_WIDTH = 110;
const BLEND_WIDTH = 110;
const GAP = 10;
const HEAD = 26;
/** In a narrower window it is moved sideways under the ladder. */
const LEAST_WIDTH = 480;

/** The voice beside the ladder: every change heard, by date, going up and coming down, and how loud each note is. */
export function MapPicture({
  scale,
  map,
  when,
  onPlay,
  ghost,
  figure,
}: {
  scale: LadderScale;
  map: VoiceMap;
  /** An earlier map, drawn in outline behind this one. */
  ghost?: VoiceMap | null;
  figure?: Ref<HTMLElement>;
  when: Map<string, Date>;
  onPlay: (vote: Vote) => void;
}) {
  const { dateOf, t } = useLanguage();
  const [box, width] = useWidth();
  const column = Math.max(0, (width - LEVEL_WIDTH - BLEND_WIDTH - 2 * GAP) / 2);
  const dates = [...new Set([...when.values()].map((d) => new Date(d).getTime()))].sort((a, b) => a - b);
  const [first, last] = [dates[0], dates[dates.length - 1]];
  const xOf = (takeId: string) => {
    const t = new Date(when.get(takeId) ?? last).getTime();
    return 22 + (last > first ? (t - first) / (last - first) : 0.5) * (column - 44);
  };
  const votes = map.passaggi.flatMap((p) => p.votes);
  return (
    <figure ref={figure} className="min-w-0">
      <div className="flex gap-2">
        <div style={{ paddingTop: HEAD }}>
          <Ladder scale={scale} map={map} />
        </div>
        <div className="min-w-0 flex-1 overflow-x-auto">
          <div ref={box} style={{ minWidth: LEAST_WIDTH }}>
            <div aria-hidden="true" className="flex text-sm text-soft" style={{ height: HEAD }}>
              <span style={{ width: column }}>{t('Changes going up')}</span>
              <span style={{ width: column }}>{t('Coming down')}</span>
              <span style={{ width: BLEND_WIDTH + 2 * GAP, paddingLeft: GAP }}>{t('Chest to head')}</span>
              <span>{t('Soft to loud')}</span>
            </div>
            <svg width={width} height={scale.height} className="rounded-lg" role="group" aria-label={t('Every change heard, by date')}>
              <Rungs scale={scale} width={width} />
              {map.passaggi.map((p) => (
                <PassaggioBand key={p.midi} scale={scale} passaggio={p} x={0} width={2 * column} />
              ))}
              {map.vowelTurns?.map((t) => (
                <VowelTurn key={t.vowel} scale={scale} {...t} width={2 * column} />
              ))}
              {ghost && <Ghost scale={scale} map={ghost} width={2 * column} />}
              {map.extreme && (
                <>
                  <LimitLine
                    scale={scale}
                    midi={map.extreme.high.midi}
                    width={width}
                    text={t('touched {note}', { note: { note: map.extreme.high.midi } })}
                    above
                  />
                  <LimitLine
                    scale={scale}
                    midi={map.extreme.low.midi}
                    width={width}
                    text={t('touched {note}', { note: { note: map.extreme.low.midi } })}
                  />
                </>
              )}
              {(['up', 'down'] as const).map((direction, d) => {
                const own = votes.filter((v) => v.direction === direction);
                return (
                  <g key={direction} transform={`translate(${d * column} 0)`}>
                    <rect
                      x={0.5}
                      y={0.5}
                      width={Math.max(0, column - 1)}
                      height={scale.height - 1}
                      rx={8}
                      fill="none"
                      stroke="var(--line)"
                    />
                    {own.map((v) => (
                      <g
                        key={`${v.takeId}${v.timeS}${v.source}`}
                        className="cursor-pointer"
                        role="button"
                        tabIndex={0}
                        aria-label={t('Play: {what} at {note}', {
                          what: SOURCE_WORDS[v.source] ?? EVENT_WORDS[v.kind],
                          note: { note: v.midi },
                        })}
                        onClick={() => onPlay(v)}
                        onKeyDown={(e) => e.key === 'Enter' && onPlay(v)}
                      >
                        <circle cx={xOf(v.takeId)} cy={scale.y(v.midi)} r={14} fill="transparent" />
                        {v.source === 'coach' ? (
                          <CoachMarkShape x={xOf(v.takeId)} y={scale.y(v.midi)} />
                        ) : v.source === 'singer' ? (
                          <SingerMark x={xOf(v.takeId)} y={scale.y(v.midi)} />
                        ) : (
                          <MachineMark x={xOf(v.takeId)} y={scale.y(v.midi)} size={7} strong={v.weight >= 0.5} />
                        )}
                      </g>
                    ))}
                  </g>
                );
              })}
              <BlendCurve scale={scale} blend={map.blend} x={2 * column + GAP} />
              <LevelCurve scale={scale} levels={map.levels} riseDb={map.evenness?.slopeDb ?? null} x={2 * column + BLEND_WIDTH + 2 * GAP} />
            </svg>
            {first && (
              <div aria-hidden="true" className="flex text-sm text-soft">
                {[0, 1].map((i) => (
                  <span key={i} className="flex justify-between px-2" style={{ width: column }}>
                    <span>{dateOf(new Date(first))}</span>
                    {last > first && <span>{dateOf(new Date(last))}</span>}
                  </span>
                ))}
              </div>
            )}
          </div>
        </div>
      </div>
      <figcaption className="sr-only">
        <table>
          <caption>{t('The map of the voice')}</caption>
          <tbody>
            {map.passaggi.map((p) => (
              <tr key={p.midi}>
                <th scope="row">{t('Change near {note}', { note: { note: p.midi } })}</th>
                <td>
                  {p.impression ? t('first impression, ') : ''}
                  {t('between {low} and {high}, up {up} of {upOf}, down {down} of {downOf}', ofBand(p))}
                </td>
              </tr>
            ))}
            {map.blend.map((b) => (
              <tr key={`blend${b.midi}`}>
                <th scope="row">{t('Share of head at {note}', { note: { note: b.midi } })}</th>
                <td>{t('{percent} percent, give or take {by}', { percent: Math.round(100 * b.head), by: Math.round(100 * b.spread) })}</td>
              </tr>
            ))}
            {map.levels.map((l) => (
              <tr key={l.midi}>
                <th scope="row">{t('Loudness at {note}', { note: { note: l.midi } })}</th>
                <td>{t('{db} decibels against the middle of the voice', { db: l.db.toFixed(0) })}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </figcaption>
    </figure>
  );
}

/** Where the changes and the ends of the voice stood earlier: outlines only. */
function Ghost({ scale, map, width }: { scale: LadderScale; map: VoiceMap; width: number }) {
  return (
    <g aria-hidden="true" fill="none" stroke="var(--ink)" strokeWidth={1.5} strokeDasharray="6 4" opacity={0.7} data-testid="ghost">
      {map.passaggi.map((p) => (
        <rect
          key={p.midi}
          x={3}
          width={Math.max(0, width - 6)}
          rx={6}
          y={scale.y(p.highMidi) - scale.rung / 2}
          height={scale.y(p.lowMidi) - scale.y(p.highMidi) + scale.rung}
        />
      ))}
      {map.extreme &&
        [map.extreme.low.midi, map.extreme.high.midi].map((m) => <path key={m} d={`M0 ${scale.y(m)}H${width}`} strokeDasharray="1 5" />)}
    </g>
  );
}

function LimitLine({
  scale,
  midi,
  width,
  text,
  above,
}: {
  scale: LadderScale;
  midi: number;
  width: number;
  text: string;
  above?: boolean;
}) {
  const y = scale.y(midi);
  return (
    <g>
      <line x1={0} x2={width} y1={y} y2={y} stroke="var(--soft)" strokeDasharray="2 4" />
      <text x={10} y={above ? y - 5 : y + 14} fontSize={12} fill="var(--soft)">
        {text}
      </text>
    </g>
  );
}

/** Share of head per note on the register ramp: left all chest, right all head; the pale band is the spread between passes. */
function BlendCurve({ scale, blend, x }: { scale: LadderScale; blend: VoiceMap['blend']; x: number }) {
  if (blend.length < 3) return null;
  const at = (head: number) => x + 6 + Math.min(1, Math.max(0, head)) * (BLEND_WIDTH - 12);
  const edge = (sign: 1 | -1) => blend.map((b) => `${at(b.head + sign * b.spread)},${scale.y(b.midi)}`);
  return (
    <g aria-hidden="true">
      {blend.map((b) => (
        <rect
          key={b.midi}
          x={x}
          width={BLEND_WIDTH}
          y={scale.y(b.midi) - scale.rung / 2}
          height={scale.rung + 0.5}
          fill={rampColour(b.head)}
        />
      ))}
      <polygon points={[...edge(1), ...edge(-1).reverse()].join(' ')} fill="var(--card)" fillOpacity={0.45} />
      <polyline
        points={blend.map((b) => `${at(b.head)},${scale.y(b.midi)}`).join(' ')}
        fill="none"
        stroke="var(--card)"
        strokeWidth={3}
        strokeLinejoin="round"
      />
    </g>
  );
}

/** Loudness per note against the voice's middle: an even voice leans steadily to the right as it rises (common practice). */
function LevelCurve({ scale, levels, riseDb, x }: { scale: LadderScale; levels: VoiceMap['levels']; riseDb: number | null; x: number }) {
  if (levels.length < 3) return null;
  const reach = Math.max(12, ...levels.map((l) => Math.abs(l.db)));
  const mean = (value: (l: (typeof levels)[number]) => number) => levels.reduce((s, l) => s + value(l), 0) / levels.length;
  const [middle, loudness] = [mean((l) => l.midi), mean((l) => l.db)];
  /** The even rise this voice would have. */
  const even = (midi: number) => loudness + ((riseDb ?? 0) * (midi - middle)) / 12;
  const at = (db: number) => x + LEVEL_WIDTH / 2 + (db / reach) * (LEVEL_WIDTH / 2 - 10);
  return (
    <g aria-hidden="true">
      <line x1={at(0)} x2={at(0)} y1={0} y2={scale.height} stroke="var(--line)" />
      {riseDb !== null && (
        <line
          x1={at(even(levels[0].midi))}
          y1={scale.y(levels[0].midi)}
          x2={at(even(levels[levels.length - 1].midi))}
          y2={scale.y(levels[levels.length - 1].midi)}
          stroke="var(--soft)"
          strokeWidth={1.5}
          strokeDasharray="5 4"
        />
      )}
      <polyline
        points={levels.map((l) => `${at(l.db)},${scale.y(l.midi)}`).join(' ')}
        fill="none"
        stroke="var(--accent)"
        strokeWidth={3}
        strokeLinejoin="round"
      />
    </g>
  );
}
