'use client';
import { useLanguage } from '../language/language';
import { texts } from '../../core/words/said';
import { memo, RefObject, useEffect, useRef } from 'react';
import { TOLD_AT_CM, useLevelSetting } from './level-setting';
import type { Source } from './sources';

/** Peaks fill this from outside; the needle falls by itself. */
export interface MeterStore {
  peak: number;
  /** The last moments' level, A-weighted, dB relative to a mean square of 1. */
  levelDb: number;
}

const FLOOR_DB = -60;
const HOT_DB = -3;
const LOW_DB = -30;
const FALL_DB_PER_FRAME = 0.6;

/** Told about four times a second: quicker can't be read. */
const EVERY_MS = 250;

/** Under this nothing is heard of a voice, dB of full scale. */
const SOFT_DB = -50;
const LEVELS = texts({ hot: 'too hot: turn down', good: 'good', soft: 'soft', quiet: 'quiet' });

/** Input level with its healthy corridor; says in words when it is too soft or clips, and in decibels how loud it is. */
export const LevelMeter = memo(function LevelMeter({
  store,
  paused,
  source,
}: {
  store: RefObject<MeterStore>;
  paused: boolean;
  source: Source;
}) {
  const { t } = useLanguage();
  const { offsetDb } = useLevelSetting(source);
  const number = useRef<HTMLSpanElement>(null);
  const bar = useRef<HTMLDivElement>(null);
  const word = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    // While a take is stored and analysed the processor is better spent there.
    if (paused) return;
    let shown = FLOOR_DB;
    let last = 0;
    let frame = requestAnimationFrame(function paint(now) {
      frame = requestAnimationFrame(paint);
      const db = 20 * Math.log10(store.current.peak + 1e-4);
      store.current.peak *= 0.8;
      shown = Math.max(FLOOR_DB, db, shown - FALL_DB_PER_FRAME);
      if (bar.current) bar.current.style.transform = `scaleX(${((shown - FLOOR_DB) / -FLOOR_DB).toFixed(3)})`;
      const text = t(shown > HOT_DB ? LEVELS.hot : shown > LOW_DB ? LEVELS.good : shown > SOFT_DB ? LEVELS.soft : LEVELS.quiet);
      if (now - last > EVERY_MS && number.current) {
        last = now;
        const db = store.current.levelDb + (offsetDb ?? 0);
        number.current.textContent = Number.isFinite(db) ? `${db.toFixed(0).replace('-', '−')} dB${offsetDb === null ? '' : '(A)'}` : '';
      }
      if (word.current && word.current.textContent !== text) word.current.textContent = text;
    });
    return () => cancelAnimationFrame(frame);
  }, [store, paused, offsetDb, t]);
  const at = (db: number) => `${((db - FLOOR_DB) / -FLOOR_DB) * 100}%`;
  return (
    <div className="flex items-center gap-3 text-sm">
      <span className="text-soft">{t('Level')}</span>
      <div aria-hidden="true" className="relative h-4 flex-1 overflow-hidden rounded-full border border-line bg-paper">
        <div className="absolute inset-y-0 border-x-2 border-soft" style={{ left: at(LOW_DB), right: `calc(100% - ${at(HOT_DB)})` }} />
        <div ref={bar} className="h-full origin-left bg-accent" style={{ transform: 'scaleX(0)' }} />
      </div>
      <span ref={word} data-testid="level" className="min-w-12 font-semibold">
        {t(LEVELS.quiet)}
      </span>
      <span
        ref={number}
        data-testid="level-db"
        title={offsetDb === null ? t('relative to full scale, A-weighted') : t('at {cm} cm', { cm: TOLD_AT_CM })}
        className="min-w-14 text-right tabular-nums text-soft"
      />
    </div>
  );
});
