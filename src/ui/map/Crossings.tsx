'use client';
import { Pause, Play, Square } from 'lucide-react';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { useTakePlayer } from '../../audio/take-player';
import { ASIDE_S, Crossing } from '../../core/map/crossings';
import type { Direction } from '../../core/take/types';
import type { Said } from '../../core/words/said';
import { saidOf } from '../../core/words/said-error';
import { ask } from '../../sync/ask';
import { Notice } from '../kit/Notice';
import { Window } from '../kit/Window';
import { useWidth } from '../kit/useWidth';
import { EVENT_WORDS } from '../kit/words';
import { Rungs } from '../ladder/Ladder';
import { ladderScale, LadderScale } from '../ladder/scale';
import { useLanguage } from '../language/language';
import { Colours, Painted } from '../take/CurveCanvas';
import { Curve, curveOf, drawCurve, strokeCurve, TimeScale, xAt } from '../take/trace';

const HEIGHT = 320;
/** Notes to each side of the change: an octave and a bit, more is another story. */
const ASIDE_ST = 8;
/** A pass of the film stands so long, ms. */
const EACH_MS = 350;
/** Passes that went before, under the one that is shown. */
const FAINT = 0.3;
const THIN_PX = 2;
const EDGED_PX = 3;

const WAYS: readonly Direction[] = ['up', 'down'];

/** All passes of months through one change, laid over each other at it: as one picture, pass by pass as a film, and each to be heard. */
export function Crossings({
  singerId,
  midi,
  when,
  onClose,
}: {
  singerId: string;
  midi: number;
  when: ReadonlyMap<string, Date>;
  onClose: () => void;
}) {
  const { dateOf, note, t } = useLanguage();
  const [passes, setPasses] = useState<Crossing[] | null>(null);
  const [problem, setProblem] = useState<Said | null>(null);
  /** So many are laid over each other: all, until somebody looks back. */
  const [shown, setShown] = useState(0);
  const [film, setFilm] = useState(false);
  const player = useTakePlayer(false);
  const { setSlow } = player;
  useEffect(() => setSlow(true), [setSlow]);
  useEffect(() => {
    let current = true;
    ask('GET /api/singers/[singerId]/crossings', { params: { singerId }, query: { midi: String(midi) } }).then(
      (all) => {
        if (!current) return;
        setPasses(all);
        setShown(all.length);
      },
      (error) => current && setProblem(saidOf(error)),
    );
    return () => {
      current = false;
    };
  }, [midi, singerId]);
  const count = passes?.length ?? 0;
  useEffect(() => {
    if (!film) return;
    const next = setTimeout(() => (shown < count ? setShown(shown + 1) : setFilm(false)), EACH_MS);
    return () => clearTimeout(next);
  }, [count, film, shown]);

  const last = passes?.[shown - 1];
  const { playing } = player;
  return (
    <Window title={t('Every pass through {note}', { note: { note: midi } })} width="max-w-3xl" onClose={onClose}>
      {problem && <Notice>{t(problem)}</Notice>}
      {passes && count === 0 && <p>{t('No pass is kept that could be drawn.')}</p>}
      {passes && last && (
        <>
          <div className="grid grid-cols-2 gap-2">
            {WAYS.map((way) => (
              <OneWay key={way} way={way} midi={midi} passes={passes} shown={shown} alone={shown < count || film} />
            ))}
          </div>
          <p className="min-h-6">
            <b>{t('{n} of {of}', { n: shown, of: count })}</b>: {when.has(last.takeId) ? dateOf(when.get(last.takeId)!) : ''},{' '}
            {last.kind === 'blend' ? t('Blends') : t(EVENT_WORDS[last.kind])}, {note(last.midi)}, {t(last.direction)}
          </p>
          <div className="flex flex-wrap items-center gap-2">
            <button
              className="button-main"
              onClick={() => {
                if (!film && shown === count) setShown(1);
                setFilm(!film);
              }}
            >
              {film ? <Pause aria-hidden size={18} /> : <Play aria-hidden size={18} />} {film ? t('Hold') : t('Pass by pass')}
            </button>
            <input
              type="range"
              className="min-w-40 flex-1"
              aria-label={t('Passes laid over each other')}
              min={1}
              max={count}
              value={shown}
              onChange={(e) => (setFilm(false), setShown(Number(e.target.value)))}
            />
            <button
              className="button"
              onClick={() =>
                playing ? player.stop() : (setFilm(false), player.play(last.takeId, last.timeS - ASIDE_S, last.timeS + ASIDE_S))
              }
            >
              {playing ? <Square aria-hidden size={16} /> : <Play aria-hidden size={16} />}{' '}
              {playing ? t('Stop') : t('This one, at half speed')}
            </button>
          </div>
        </>
      )}
    </Window>
  );
}

/** The passes one way; the newest that is shown stands out. `alone`: it is looked at, not the picture of all. */
function OneWay({
  way,
  midi,
  passes,
  shown,
  alone,
}: {
  way: Direction;
  midi: number;
  passes: readonly Crossing[];
  shown: number;
  alone: boolean;
}) {
  const { note, t } = useLanguage();
  const [box, width] = useWidth();
  const scale = useMemo(() => ladderScale(Math.round(midi) - ASIDE_ST, Math.round(midi) + ASIDE_ST, HEIGHT), [midi]);
  const own = useMemo(() => passes.map((p, i) => ({ p, i })).filter(({ p }) => p.direction === way), [passes, way]);
  const time = useMemo((): TimeScale => ({ fromS: -ASIDE_S, toS: ASIDE_S, width }), [width]);
  const curves = useMemo(() => new Map(own.map(({ p, i }) => [i, aroundTheChange(p)])), [own]);
  const paint = useCallback(
    (ctx: CanvasRenderingContext2D, colours: Colours) => draw(ctx, colours, curves, shown, alone, time, scale),
    [alone, curves, scale, shown, time],
  );
  return (
    <figure>
      <figcaption className="text-sm text-soft">
        {way === 'up' ? t('Going up') : t('Coming down')}:{' '}
        {t('{n, plural, one {# pass} other {# passes}}', { n: own.filter(({ i }) => i < shown).length })}
      </figcaption>
      <div ref={box} className="relative overflow-hidden rounded-lg border border-line" style={{ height: HEIGHT }}>
        <svg width={width} height={HEIGHT} aria-hidden="true">
          <Rungs scale={scale} width={width} />
          <line x1={width / 2} x2={width / 2} y1={0} y2={HEIGHT} stroke="var(--soft)" strokeDasharray="3 3" />
          <line x1={0} x2={width} y1={scale.y(midi)} y2={scale.y(midi)} stroke="var(--band)" />
          <g fontSize={12} fill="var(--soft)">
            <text x={4} y={scale.y(midi) - 4} fontWeight={700}>
              {note(midi)}
            </text>
            {[-1, 1].map((s) => (
              <text key={s} x={xAt(time, s)} y={HEIGHT - 6} textAnchor="middle">
                {s < 0 ? '−1 s' : '1 s'}
              </text>
            ))}
          </g>
        </svg>
        <Painted width={width} height={HEIGHT} draw={paint} />
      </div>
    </figure>
  );
}

const aroundTheChange = ({ pitch, head, hopS }: Crossing): Curve => ({ ...curveOf({ midi: pitch, head, hopS }), startS: -ASIDE_S });

function draw(
  ctx: CanvasRenderingContext2D,
  [ink, accent, soft]: Colours,
  curves: ReadonlyMap<number, Curve>,
  shown: number,
  alone: boolean,
  time: TimeScale,
  scale: LadderScale,
) {
  const alpha = alone ? FAINT : 2 * FAINT;
  for (const [i, curve] of curves) {
    if (i >= shown - (alone ? 1 : 0)) continue;
    // An edge, or dark chest would be lost on dark ground.
    ctx.globalAlpha = alpha / 3;
    strokeCurve(ctx, { ...curve, head: undefined }, time, scale, EDGED_PX, soft);
    ctx.globalAlpha = alpha;
    strokeCurve(ctx, curve, time, scale, THIN_PX, accent);
  }
  ctx.globalAlpha = 1;
  const newest = curves.get(shown - 1);
  if (alone && newest) drawCurve(ctx, newest, time, scale, ink, accent);
}
