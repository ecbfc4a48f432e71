import { useState } from 'react';
import type { Entry } from '../../core/practice/types';
import { addressOf } from '../../sync/ask';
import { say } from '../../sync/words';
import { ForCoaches } from '../kit/may-change';
import { useLanguage } from '../language/language';

/** The coach's word that what nobody listened to went as meant: it counts like a take that was heard. */
export function Granted({ entry, name }: { entry: Pick<Entry, 'id' | 'day' | 'granted'>; name: string }) {
  const { dateOf, t } = useLanguage();
  const [granted, setGranted] = useState(entry.granted ?? false);
  const path = addressOf('PUT /api/practice/[entryId]', { entryId: entry.id });
  return (
    <ForCoaches>
      <button
        className={`button-small min-h-7 ${granted ? 'border-accent text-accent' : 'text-soft'}`}
        aria-pressed={granted}
        aria-label={t('{name} on {day} went as meant', { name, day: dateOf(entry.day) })}
        onClick={() => {
          setGranted(!granted);
          say({ method: 'PUT', path, subject: `${path}#granted`, body: { granted: !granted } });
        }}
      >
        {t('Went as meant')}
      </button>
    </ForCoaches>
  );
}
