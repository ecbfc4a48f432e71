'use client';
import { useState } from 'react';
import { MOST_EFFORT, Sign, SIGNS } from '../../core/plan/safety';
import { judgementInWords } from '../../core/judge/words';
import { noteName } from '../../core/music/pitch';
import type { Judged } from '../../core/practice/types';
import { VERDICT_SIGNS, VERDICT_WORDS } from '../kit/verdict';
import { SIGN_WORDS } from './words';

const LEVELS = Array.from({ length: 11 }, (_, i) => i);

/** After an exercise: how hard it was, and whether anything was wrong. */
export function Report({
  name,
  judged,
  onTell,
}: {
  name: string;
  judged: Judged | null;
  onTell: (effort: number | null, signs: Sign[]) => void;
}) {
  const [effort, setEffort] = useState<number | null>(null);
  const [signs, setSigns] = useState<Sign[]>([]);
  return (
    <section className="card flex flex-col gap-4" aria-labelledby="report">
      <h2 id="report" className="text-2xl font-bold">
        {name}: how was it?
      </h2>
      {judged && (
        <div data-testid="judged">
          <p className="text-lg">
            <b>{VERDICT_WORDS[judged.verdict]}</b> {judgementInWords(judged)}
          </p>
          <ol className="mt-2 flex flex-wrap gap-1" aria-label="Each key">
            {judged.keys.map((k, i) => (
              <li
                key={i}
                aria-label={`${noteName(k.tonicMidi)}: ${k.verdict}`}
                className={`grid min-h-9 min-w-9 place-items-center rounded-md border px-1 text-sm ${k.verdict === 'yes' ? 'border-accent' : 'border-line text-soft'}`}
              >
                {noteName(k.tonicMidi)}
                <span aria-hidden>{VERDICT_SIGNS[k.verdict]}</span>
              </li>
            ))}
          </ol>
        </div>
      )}
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
