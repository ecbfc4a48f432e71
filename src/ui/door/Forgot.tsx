'use client';
import { useState } from 'react';
import { DoorField, DoorForm } from './DoorForm';
import { ask } from '../../sync/ask';
import { useLanguage } from '../language/language';

export function Forgot() {
  const { rich, t } = useLanguage();
  const [sent, setSent] = useState(false);
  return (
    <>
      <h1 className="text-2xl font-bold">{t('A new password')}</h1>
      {sent ? (
        <p className="card" role="status">
          {t('If there is an account with this address, a message to it holds the way to a new password, good for an hour.')}{' '}
          {rich(
            'Where no mail server is set, the message lies under Post, where another owner of the studio finds it; or, on the machine Wendel runs on, type <code>npm run account -- reset</code> and the address.',
            {},
            { code: (inside) => <code>{inside}</code> },
          )}
        </p>
      ) : (
        <DoorForm
          button={t('Send the message')}
          send={(text) => ask('POST /api/door/forgot', { body: { email: text('email') } })}
          onSent={() => setSent(true)}
        >
          <DoorField label={t('E-mail address of the account')} name="email" type="email" autoComplete="username" />
        </DoorForm>
      )}
    </>
  );
}
