'use client';
import { exerciseName } from '../../core/exercise/of-song';
import { useState } from 'react';
import type { Exercise } from '../../core/exercise/types';
import type { PlanItem } from '../../core/plan/types';
import type { Done } from '../../core/practice/types';
import { WhenAndHowLong } from './WhenAndHowLong';
import { useLanguage } from '../language/language';

const MINUTES = [1, 2, 3, 5, 10, 15, 20];

/** Something practised without the page, told afterwards. */
export function ByHand({
  items,
  today,
  onTell,
}: {
  items: (PlanItem & { exercise: Exercise })[];
  today: string;
  onTell: (what: Done, day: string) => void;
}) {
  const { t } = useLanguage();
  const [id, setId] = useState(items[0]?.exerciseId ?? '');
  const [minutes, setMinutes] = useState(2);
  const [day, setDay] = useState(today);
  const item = items.find((it) => it.exerciseId === id);
  return (
    <details>
      <summary className="min-h-11 cursor-pointer content-center font-semibold">{t('Practised without the phone?')}</summary>
      <form
        aria-label={t('Practised without the phone')}
        className="flex flex-col gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (!item) return;
          onTell(
            {
              kind: 'item',
              exerciseId: item.exerciseId,
              name: item.exercise.name,
              sound: item.sound,
              tempo: item.tempo,
              keys: [],
              seconds: minutes * 60,
              load: null,
              success: null,
              effort: null,
              signs: [],
              byHand: true,
            },
            day,
          );
        }}
      >
        <label className="flex flex-col text-sm text-soft">
          {t('What')}
          <select className="field text-base" value={id} onChange={(e) => setId(e.target.value)}>
            {items.map((it) => (
              <option key={it.exerciseId} value={it.exerciseId}>
                {t(exerciseName(it.exercise))}
              </option>
            ))}
          </select>
        </label>
        <WhenAndHowLong choices={MINUTES} minutes={minutes} onMinutes={setMinutes} day={day} today={today} onDay={setDay} />
        <button className="button" disabled={!item}>
          {t('Write it down')}
        </button>
      </form>
    </details>
  );
}
