'use client';
import { DoorField, DoorForm, NewPasswordField } from './DoorForm';
import { ask } from '../../sync/ask';
import { enter } from '../kit/enter';
import { useLanguage } from '../language/language';

/** Taking a place that was offered. */
export function Join({ token, email, studio }: { token: string; email: string; studio: string }) {
  const { t } = useLanguage();
  return (
    <>
      <h1 className="text-2xl font-bold">{t('A place in {studio}', { studio })}</h1>
      <DoorForm
        button={t('Join the studio')}
        send={(text) => ask('POST /api/door/join/[token]', { params: { token }, body: { name: text('name'), password: text('password') } })}
        onSent={() => enter()}
      >
        <p>{t('Your account is for {email}.', { email })}</p>
        <DoorField label={t('Your name')} name="name" autoComplete="name" maxLength={120} />
        <NewPasswordField />
      </DoorForm>
    </>
  );
}
