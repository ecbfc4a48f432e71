import { asKey } from '../../core/music/scale';
import { Pause, Pin, Play, Repeat1, SkipForward, Square } from 'lucide-react';
import type { ReactNode } from 'react';
import type { Shown, useWalk } from './useWalk';
import { useLanguage } from '../language/language';

/** What a singer says to a pianist, by thumb: wait, once more, stay here, the next one, enough. */
export function AlongControls({
  along,
  shown,
  onEnough,
}: {
  along: Pick<ReturnType<typeof useWalk>, 'pause' | 'goOn' | 'stay' | 'go'>;
  shown: Shown;
  onEnough: () => void;
}) {
  const { t } = useLanguage();
  const paused = shown.state === 'paused';
  return (
    <div className="flex flex-col gap-2">
      <div role="group" aria-label={t('The piano')} className="grid grid-cols-4 gap-2">
        {paused ? (
          <Ask words={t('Go on')} onAsk={along.goOn} icon={<Play aria-hidden />} />
        ) : (
          <Ask words={t('Wait')} onAsk={along.pause} icon={<Pause aria-hidden />} />
        )}
        <Ask words={t('Once more')} onAsk={() => along.stay('once')} on={shown.stays === 'once'} icon={<Repeat1 aria-hidden />} />
        <Ask words={t('Stay here')} onAsk={() => along.stay('on')} on={shown.stays === 'on'} icon={<Pin aria-hidden />} />
        <Ask words={t('Next key')} onAsk={() => along.go('next')} icon={<SkipForward aria-hidden />} />
      </div>
      <button className="button-main min-h-16 text-xl" onClick={onEnough}>
        <Square aria-hidden /> {t('Enough')}
      </button>
    </div>
  );
}

/** One thing asked of the piano, a thumb wide. */
export function Ask({ words, onAsk, on, icon }: { words: string; onAsk: () => void; on?: boolean; icon: ReactNode }) {
  return (
    <button
      aria-pressed={on}
      className={`button min-h-16 flex-col justify-center gap-1 px-1 text-sm leading-tight ${on ? 'border-accent bg-card font-bold' : ''}`}
      onClick={onAsk}
    >
      {icon}
      {words}
    </button>
  );
}

/** The keys of an exercise, the one that sounds and how each went; while it goes on, a press leads to a key. */
export function AlongKeys({
  keys,
  at,
  tune,
  onGo,
}: {
  keys: readonly number[];
  /** The key that sounds, an index; null: none. */
  at: number | null;
  /** By index, whether a key was in tune; null: not heard. */
  tune: ReadonlyMap<number, boolean | null>;
  onGo: (at: number) => void;
}) {
  const { keyNote, t } = useLanguage();
  return (
    <ol className="flex flex-wrap gap-1" aria-label={t('Keys')}>
      {keys.map((k, i) => {
        const was = tune.get(i) ?? null;
        return (
          <li key={i}>
            <button
              aria-label={was === null ? keyNote(k) : t(was ? '{note}, in tune' : '{note}, off', { note: asKey(k) })}
              aria-current={i === at}
              disabled={at === null}
              onClick={() => onGo(i)}
              className={`grid min-h-11 min-w-11 place-items-center rounded-md border text-sm ${i === at ? 'border-accent font-bold' : 'border-line text-soft'}`}
            >
              {keyNote(k)}
              {was !== null && <span aria-hidden>{was ? '●' : '○'}</span>}
            </button>
          </li>
        );
      })}
    </ol>
  );
}
