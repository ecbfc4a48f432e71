'use client';
import { useState } from 'react';
import type { Before } from '../../core/practice/types';
import { useLanguage } from '../language/language';
import { texts } from '../../core/words/said';

const QUESTIONS = texts([
  ['hoarse', 'Hoarse'],
  ['ill', 'Ill'],
  ['pain', 'It hurts'],
  ['tired', 'Tired'],
]);

/** Before the first exercise of a day: how the voice is. */
export function BeforeQuestions({ onAnswer }: { onAnswer: (before: Before) => void }) {
  const { t } = useLanguage();
  const [answers, setAnswers] = useState<Before>({ kind: 'before', hoarse: false, ill: false, pain: false, tired: false });
  const any = QUESTIONS.some(([key]) => answers[key]);
  return (
    <section className="card flex flex-col gap-3" aria-labelledby="before">
      <h2 id="before" className="text-2xl font-bold">
        {t('How is the voice today?')}
      </h2>
      <div className="grid grid-cols-2 gap-2">
        {QUESTIONS.map(([key, words]) => (
          <button
            key={key}
            aria-pressed={answers[key]}
            className={`min-h-14 rounded-lg border-2 text-lg font-semibold ${answers[key] ? 'border-accent bg-accent text-accent-ink' : 'border-line bg-card'}`}
            onClick={() => setAnswers({ ...answers, [key]: !answers[key] })}
          >
            {t(words)}
          </button>
        ))}
      </div>
      <button className="button-main min-h-14 text-lg" onClick={() => onAnswer(answers)}>
        {any ? t('That’s how it is') : t('All well')}
      </button>
    </section>
  );
}
