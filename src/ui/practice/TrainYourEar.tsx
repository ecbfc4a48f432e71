'use client';
import { useState } from 'react';
import type { EarTask } from '../../core/ears/types';
import { MadeVoices } from '../ears/MadeVoices';
import { useLanguage } from '../language/language';

/** What helps a singer to hear themselves; to place a change by its note is the coach's. */
const TASKS: readonly EarTask[] = ['louder', 'register', 'name'];

/** The coach's ear training in a gentle form, for days of rest as well: made voices, nothing sung, nothing told to anybody. */
export function TrainYourEar() {
  const { t } = useLanguage();
  const [open, setOpen] = useState(false);
  return (
    <details onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="min-h-11 cursor-pointer content-center font-semibold">{t('Train your ear')}</summary>
      {open && (
        <div className="flex flex-col gap-3">
          <p className="text-soft">
            {t(
              'A made voice sings; you say what was there, and are told. It is for you alone, and good for a day on which you don’t sing.',
            )}
          </p>
          <MadeVoices tasks={TASKS} gentle />
        </div>
      )}
    </details>
  );
}
