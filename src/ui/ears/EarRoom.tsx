'use client';
import { useState } from 'react';
import type { Ears } from '../../core/ears/passes';
import { useMayChange } from '../kit/may-change';
import { MadeVoices } from './MadeVoices';
import { OurTakes } from './OurTakes';
import { useLanguage } from '../language/language';

import { texts } from '../../core/words/said';

const SOURCES = texts([
  ['made', 'Made voices'],
  ['ours', 'Our own singers'],
]);

/** A coach's ear, trained on made voices whose truth is known, and compared with the machine's on the studio's own singers. */
export function EarRoom({ ears }: { ears: Ears }) {
  const { t } = useLanguage();
  const [source, setSource] = useState<'made' | 'ours'>('made');
  const mayChange = useMayChange();
  return (
    <main className="mx-auto flex max-w-3xl flex-col gap-4 px-4 py-4">
      <header className="flex flex-wrap items-center gap-2">
        <h1 className="mr-auto text-2xl font-bold">{t('Ears')}</h1>
        {mayChange && (
          <div role="group" aria-label={t('Whose voices')} className="flex gap-2">
            {SOURCES.map(([id, name]) => (
              <button
                key={id}
                className={`button ${id === source ? 'border-accent text-accent' : ''}`}
                aria-pressed={id === source}
                onClick={() => setSource(id)}
              >
                {t(name)}
              </button>
            ))}
          </div>
        )}
      </header>
      {source === 'made' ? <MadeVoices /> : <OurTakes before={ears} />}
    </main>
  );
}
