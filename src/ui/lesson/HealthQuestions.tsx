'use client';
import { FormEvent } from 'react';
import type { HealthAnswers } from '../../core/lesson/types';
import { Form } from '../kit/Form';
import { useLanguage } from '../language/language';

import { texts } from '../../core/words/said';

const QUESTIONS = texts([
  ['hoarse', 'Hoarse, or rougher than usual?'],
  ['ill', 'A cold, a cough, or otherwise ill?'],
  ['pain', 'Any pain in the throat, also to speak or to swallow?'],
]);

/** Before singing: how the voice is today. Wendel advises, it doesn't diagnose. */
export function HealthQuestions({ told, onAnswer }: { told: string; onAnswer: (answers: HealthAnswers) => void }) {
  const { t } = useLanguage();
  const answer = (event: FormEvent<HTMLFormElement>) => {
    const form = new FormData(event.currentTarget);
    const yes = (name: string) => form.get(name) === 'on';
    onAnswer({ hoarse: yes('hoarse'), ill: yes('ill'), pain: yes('pain'), note: String(form.get('note') ?? '') });
  };
  return (
    <Form onSubmit={answer} className="card flex max-w-2xl flex-col gap-3 text-lg">
      <h2 className="text-[40px] leading-tight font-bold">{t('How is the voice today?')}</h2>
      {told && (
        <p>
          {t('Told at intake:')} <b>{t(told)}</b>
        </p>
      )}
      {QUESTIONS.map(([name, words]) => (
        <label key={name} className="flex min-h-11 items-center gap-3">
          <input type="checkbox" name={name} className="size-6" /> {t(words)}
        </label>
      ))}
      <label className="flex flex-col gap-1 text-sm text-soft">
        {t('Anything else (optional)')}
        <input className="field text-base" name="note" maxLength={1000} autoComplete="off" />
      </label>
      <p className="text-sm text-soft">
        {t(
          'In pain nothing is sung. Ill or hoarse, nothing tests the voice, adds weight or goes above the change. Hoarseness that stays for weeks, pain, blood or a sudden loss of voice belong to a doctor; trouble breathing is an emergency.',
        )}
      </p>
      <button className="button-main self-start" autoFocus>
        {t('Begin')}
      </button>
    </Form>
  );
}
