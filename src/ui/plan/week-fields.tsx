import type { Said } from '../../core/words/said';
import { useLanguage } from '../language/language';

/** From which day a week counts. */
export function BeginsOn({ day, onDay }: { day: string; onDay: (day: string) => void }) {
  const { t } = useLanguage();
  return (
    <label className="flex flex-col gap-1.5 text-sm text-soft">
      {t('The week begins on')}
      <input className="field text-base" type="date" required value={day} onChange={(e) => e.target.value && onDay(e.target.value)} />
    </label>
  );
}

/** A word that goes with a week. */
export function AWord({ label, word, onWord }: { label: Said; word: string; onWord: (word: string) => void }) {
  const { t } = useLanguage();
  return (
    <label className="flex flex-col gap-1.5 text-sm text-soft">
      {t(label)}
      <textarea className="field min-h-20 py-2 text-base" value={word} maxLength={2000} onChange={(e) => onWord(e.target.value)} />
    </label>
  );
}
