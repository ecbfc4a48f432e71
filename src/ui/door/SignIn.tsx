'use client';
import { Link } from '../kit/Link';
import { useState } from 'react';
import { DoorField, DoorForm } from './DoorForm';
import { ask } from '../../sync/ask';
import { enter } from '../kit/enter';
import { useLanguage } from '../language/language';

export function SignIn({ to }: { to: string }) {
  const { t } = useLanguage();
  const [code, setCode] = useState(false);
  if (code)
    return (
      <>
        <h1 className="text-2xl font-bold">{t('The code')}</h1>
        <DoorForm
          key="code"
          button={t('Go in')}
          send={(text) => ask('POST /api/door/code', { body: { code: text('code') } })}
          onSent={() => enter(to)}
        >
          <DoorField
            label={t('What your phone shows now')}
            hint={t('Six digits. Without the phone: one of the codes you kept for that day; each is good once.')}
            name="code"
            autoComplete="one-time-code"
            autoFocus
          />
        </DoorForm>
      </>
    );
  return (
    <>
      <h1 className="text-2xl font-bold">{t('Sign in')}</h1>
      <DoorForm
        button={t('Sign in')}
        send={(text) => ask('POST /api/door/sign-in', { body: { email: text('email'), password: text('password') } })}
        onSent={(answer) => (answer.code ? setCode(true) : enter(to))}
      >
        <DoorField label={t('E-mail address')} name="email" type="email" autoComplete="username" />
        <DoorField label={t('Password')} name="password" type="password" autoComplete="current-password" />
      </DoorForm>
      <p className="flex flex-wrap gap-x-6">
        <Link className="min-h-11 content-center font-semibold underline" href="/sign-up">
          {t('Make an account')}
        </Link>
        <Link className="min-h-11 content-center font-semibold underline" href="/forgot">
          {t('I forgot the password')}
        </Link>
      </p>
      <p className="text-soft">{t('You sing and want to practise? Open the link your coach sent you; you need no account.')}</p>
    </>
  );
}
