'use client';
import { Link } from '../kit/Link';
import { useState } from 'react';
import { DoorForm, NewPasswordField } from './DoorForm';
import { ask } from '../../sync/ask';
import { useLanguage } from '../language/language';

export function NewPassword({ token }: { token: string }) {
  const { t } = useLanguage();
  const [done, setDone] = useState(false);
  return (
    <>
      <h1 className="text-2xl font-bold">{t('A new password')}</h1>
      {done ? (
        <p className="card" role="status">
          {t('The new password holds, and you are signed out everywhere.')}{' '}
          <Link className="font-semibold underline" href="/sign-in">
            {t('Sign in')}
          </Link>
        </p>
      ) : (
        <DoorForm
          button={t('Set the password')}
          send={(text) => ask('POST /api/door/new-password', { body: { token, password: text('password') } })}
          onSent={() => setDone(true)}
        >
          <NewPasswordField label={t('New password')} />
        </DoorForm>
      )}
    </>
  );
}
