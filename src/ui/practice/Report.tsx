'use client';
import { useState } from 'react';
import { MOST_EFFORT, Sign, SIGNS } from '../../core/plan/safety';
import { SIGN_WORDS } from './words';

const LEVELS = Array.from({ length: 11 }, (_, i) => i);

/** After an exercise: how hard it was, and whether anything was wrong. */
export function Report({
  name,
  success,
  onTell,
}: {
  name: string;
  success: boolean | null;
  onTell: (effort: number | null, signs: Sign[]) => void;
}) {
  const [effort, setEffort] = useState<number | null>(null);
  const [signs, setSigns] = useState<Sign[]>([]);
  return (
    <section className="card flex flex-col gap-4" aria-labelledby="report">
      <h2 id="report" className="text-2xl font-bold">
        {name}: how was it?
      </h2>
      {success !== null && <p className="text-lg">{success ? 'It went as meant.' : 'Not yet as meant. That is what practice is for.'}</p>}
      <fieldset>
        <legend className="mb-1">Effort, 0 none to 10 the most there is</legend>
        <div className="grid grid-cols-6 gap-1">
          {LEVELS.map((level) => (
            <button
              key={level}
              aria-pressed={effort === level}
              className={`min-h-12 rounded-lg border-2 text-lg ${effort === level ? 'border-accent bg-accent text-accent-ink' : level > MOST_EFFORT ? 'border-band bg-card' : 'border-line bg-card'}`}
              onClick={() => setEffort(level)}
            >
              {level}
            </button>
          ))}
        </div>
      </fieldset>
      <fieldset>
        <legend className="mb-1">Anything wrong?</legend>
        <div className="grid grid-cols-2 gap-1">
          {SIGNS.filter((s) => s !== 'effort').map((sign) => {
            const on = signs.includes(sign);
            return (
              <button
                key={sign}
                aria-pressed={on}
                className={`min-h-12 rounded-lg border-2 ${on ? 'border-accent bg-accent text-accent-ink' : 'border-line bg-card'}`}
                onClick={() => setSigns(on ? signs.filter((s) => s !== sign) : [...signs, sign])}
              >
                {SIGN_WORDS[sign]}
              </button>
            );
          })}
        </div>
      </fieldset>
      <button className="button-main min-h-14 text-lg" onClick={() => onTell(effort, signs)}>
        {signs.length ? 'Tell it' : 'Fine'}
      </button>
    </section>
  );
}
