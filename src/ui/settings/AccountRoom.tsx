'use client';
import { said, Said } from '../../core/words/said';
import { FormEvent, useState } from 'react';
import { LanguageChoice, MovableDoChoice } from '../language/LanguageChoice';
import { Notice } from '../kit/Notice';
import { SecondFactor } from './SecondFactor';
import { useAttempt } from './useAttempt';
import { ask } from '../../sync/ask';
import { Form } from '../kit/Form';
import { useLanguage } from '../language/language';

import { texts } from '../../core/words/said';

const ROLE_WORDS = texts({ owner: 'owner of the studio', coach: 'coach', reader: 'looking only' });

interface Props {
  name: string;
  email: string;
  role: keyof typeof ROLE_WORDS;
  secondFactor: boolean;
  sessions: { id: string; createdAt: Date; userAgent: string | null; here: boolean }[];
}

/** What a browser calls itself, in short. */
function browserOf(agent: string | null): Said {
  const named = /(Firefox|Edg|OPR|Chrome|Safari)/
    .exec(agent ?? '')?.[1]
    ?.replace('Edg', 'Edge')
    .replace('OPR', 'Opera');
  const browser = named ? { own: named } : said('A browser');
  const system = /(Android|iPhone|iPad|Windows|Mac OS|Linux)/.exec(agent ?? '')?.[1];
  return system ? said('{browser} on {system}', { browser, system: { own: system } }) : said('{browser}', { browser });
}

/** One's own account: the password, and where one is signed in. */
export function AccountRoom({ name, email, role, secondFactor, sessions }: Props) {
  const { dateTimeOf, t } = useLanguage();
  const { problem, attempt } = useAttempt();
  const [kept, setKept] = useState(false);
  const change = async (event: FormEvent<HTMLFormElement>) => {
    const form = event.currentTarget;
    const data = new FormData(form);
    setKept(false);
    const done = await attempt(() =>
      ask('PUT /api/account/password', { body: { present: String(data.get('present')), password: String(data.get('password')) } }),
    );
    if (!done) return;
    form.reset();
    setKept(true);
  };
  return (
    <>
      <h1 className="text-2xl font-bold">{t('Your account')}</h1>
      <p>
        {name}, {email}: {t(ROLE_WORDS[role])}
      </p>
      {problem && <Notice>{t(problem)}</Notice>}
      <section aria-labelledby="language" className="card flex flex-col gap-2">
        <h2 id="language" className="text-lg font-bold">
          {t('In this browser')}
        </h2>
        <div className="flex flex-wrap gap-3">
          <LanguageChoice />
          <MovableDoChoice />
        </div>
      </section>
      <Form onSubmit={change} className="card flex flex-wrap items-end gap-3">
        <h2 className="w-full text-lg font-bold">{t('Password')}</h2>
        <input type="hidden" autoComplete="username" value={email} readOnly />
        <label className="flex flex-col gap-1 text-sm text-soft">
          {t('The present one')}
          <input className="field text-base" name="present" type="password" required autoComplete="current-password" />
        </label>
        <label className="flex flex-col gap-1 text-sm text-soft">
          {t('A new one, at least 12 characters')}
          <input
            className="field text-base"
            name="password"
            type="password"
            required
            minLength={12}
            maxLength={128}
            autoComplete="new-password"
          />
        </label>
        <button className="button-main">{t('Change it')}</button>
        <p role="status" className="w-full text-soft empty:hidden">
          {kept && t('Changed. Everywhere else you are signed out.')}
        </p>
      </Form>
      <SecondFactor on={secondFactor} attempt={attempt} />
      <section aria-labelledby="sessions">
        <h2 id="sessions" className="text-lg font-bold">
          {t('Where you are signed in')}
        </h2>
        <ul className="mt-2 flex flex-col gap-2">
          {sessions.map((s) => (
            <li key={s.id} className="card flex flex-wrap items-center gap-3" data-testid="session">
              <p className="min-w-0 flex-1">
                {t('{browser}, since {date}', { browser: browserOf(s.userAgent), date: dateTimeOf(s.createdAt) })}
              </p>
              {s.here ? (
                <b>{t('here')}</b>
              ) : (
                <button
                  className="button"
                  onClick={() => void attempt(() => ask('DELETE /api/account/sessions/[sessionId]', { params: { sessionId: s.id } }))}
                >
                  {t('Sign out there')}
                </button>
              )}
            </li>
          ))}
        </ul>
      </section>
    </>
  );
}
