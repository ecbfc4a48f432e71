import { Accompaniment, ACCOMPANIMENTS } from '../../core/exercise/follow-along';
import { useLanguage } from '../language/language';

import { texts } from '../../core/words/said';

const WORDS: Record<Accompaniment, string> = texts({
  notes: 'plays the notes along',
  beats: 'plays chords under it',
  chord: 'gives the chord only',
});

/** What the piano does while a key is sung. */
export function ChooseAccompaniment({ chosen, onChoose }: { chosen: Accompaniment; onChoose: (chosen: Accompaniment) => void }) {
  const { t } = useLanguage();
  return (
    <label className="flex min-h-12 items-center gap-2">
      {t('The piano')}
      <select className="field flex-1" value={chosen} onChange={(e) => onChoose(e.target.value as Accompaniment)}>
        {ACCOMPANIMENTS.map((a) => (
          <option key={a} value={a}>
            {t(WORDS[a])}
          </option>
        ))}
      </select>
    </label>
  );
}
