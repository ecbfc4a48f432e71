'use client';
import { useState } from 'react';
import { Exercise, FAMILIES, Family } from '../../core/exercise/types';
import { FINDING_WORDS } from '../kit/words';
import { Staff } from '../staff/Staff';

const FAMILY_WORDS: Record<Family, string> = {
  scale: 'Scales',
  siren: 'Sirens',
  straw: 'Straw and trills',
  toggle: 'Toggles',
  hold: 'Holds',
};

/** Every exercise there is, shown from C4. */
export function Shelf({ exercises }: { exercises: Exercise[] }) {
  const [family, setFamily] = useState<Family | null>(null);
  const shown = exercises.filter((e) => !family || e.family === family);
  return (
    <main className="mx-auto max-w-[1240px] px-4 py-4">
      <h1 className="text-2xl font-bold">Exercises</h1>
      <div role="group" aria-label="Family" className="my-3 flex flex-wrap gap-2">
        {[null, ...FAMILIES].map((f) => (
          <button
            key={f ?? 'all'}
            aria-pressed={family === f}
            className={family === f ? 'button-main' : 'button'}
            onClick={() => setFamily(f)}
          >
            {f ? FAMILY_WORDS[f] : 'All'}
          </button>
        ))}
      </div>
      <ul className="grid gap-3 md:grid-cols-2">
        {shown.map((e) => (
          <li key={e.id} className="card">
            <div className="flex items-baseline gap-3">
              <h2 className="flex-1 text-lg font-bold">{e.name}</h2>
              <span className="text-sm text-soft">grade {e.grade}</span>
            </div>
            <Staff exercise={e} tonic={60} />
            <p>{e.how}</p>
            <p className="mt-1 text-sm text-soft">
              On {e.sounds.join(', then ')}.{' '}
              {e.suits.length > 0 && `For: ${e.suits.map((s) => FINDING_WORDS[s].toLowerCase()).join(', ')}.`}{' '}
              {e.weight > 0 ? 'Adds weight.' : e.weight < 0 ? 'Takes weight off.' : ''}
            </p>
          </li>
        ))}
      </ul>
    </main>
  );
}
