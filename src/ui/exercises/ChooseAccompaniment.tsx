import { Accompaniment, ACCOMPANIMENTS } from '../../core/exercise/follow-along';

const WORDS: Record<Accompaniment, string> = {
  notes: 'plays the notes along',
  beats: 'plays chords under it',
  chord: 'gives the chord only',
};

/** What the piano does while a key is sung. */
export function ChooseAccompaniment({ chosen, onChoose }: { chosen: Accompaniment; onChoose: (chosen: Accompaniment) => void }) {
  return (
    <label className="flex min-h-12 items-center gap-2">
      The piano
      <select className="field flex-1" value={chosen} onChange={(e) => onChoose(e.target.value as Accompaniment)}>
        {ACCOMPANIMENTS.map((a) => (
          <option key={a} value={a}>
            {WORDS[a]}
          </option>
        ))}
      </select>
    </label>
  );
}
