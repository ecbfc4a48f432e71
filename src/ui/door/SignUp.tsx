'use client';
import { Radio, RadioGroup } from '@headlessui/react';
import { Link } from '../kit/Link';
import { useState } from 'react';
import { DoorField, DoorForm, NewPasswordField } from './DoorForm';
import { ask } from '../../sync/ask';
import { enter } from '../kit/enter';
import { useLanguage } from '../language/language';

import { texts } from '../../core/words/said';

const STARTS = texts([
  ['demo', 'With the demo studio', 'Made-up singers with eight weeks of recordings, to look around in.'],
  ['own', 'With an empty studio of my own', 'For your own singers. The demo stays for whoever wants it.'],
]);

/** A new account: with a studio of its own, or with the demo's while nobody has it. */
export function SignUp({ open, vacant }: { open: boolean; vacant: boolean }) {
  const { t } = useLanguage();
  const [start, setStart] = useState<'demo' | 'own'>(vacant ? 'demo' : 'own');
  if (!open)
    return (
      <>
        <h1 className="text-2xl font-bold">{t('New account')}</h1>
        <p className="card">
          {t('New studios are not taken in here. Ask the owner of a studio to invite you: the message holds your way in.')}
        </p>
        <SignInInstead />
      </>
    );
  return (
    <>
      <h1 className="text-2xl font-bold">{t('New account')}</h1>
      <DoorForm
        button={t('Make the account')}
        send={(text) =>
          ask('POST /api/door/sign-up', {
            body: {
              name: text('name'),
              email: text('email'),
              password: text('password'),
              studio: start === 'demo' ? null : text('studio'),
            },
          })
        }
        onSent={() => enter()}
      >
        <DoorField label={t('Your name')} name="name" autoComplete="name" maxLength={120} />
        <DoorField label={t('E-mail address')} name="email" type="email" autoComplete="username" maxLength={200} />
        <NewPasswordField />
        {vacant && (
          <RadioGroup value={start} onChange={setStart} aria-label={t('How to begin')} className="flex flex-col gap-2">
            {STARTS.map(([id, name, words]) => (
              <Radio
                key={id}
                value={id}
                className="group flex cursor-pointer gap-3 rounded-lg border border-line p-3 data-checked:border-accent data-focus:outline-2 data-focus:outline-accent"
              >
                <span
                  aria-hidden
                  className="mt-1 size-5 shrink-0 rounded-full border-2 border-soft group-data-checked:border-6 group-data-checked:border-accent"
                />
                <span>
                  <b>{t(name)}</b>
                  <br />
                  {t(words)}
                </span>
              </Radio>
            ))}
          </RadioGroup>
        )}
        {start === 'own' && <DoorField label={t('Name of the studio')} name="studio" maxLength={120} autoComplete="organization" />}
      </DoorForm>
      <SignInInstead />
    </>
  );
}

const SignInInstead = () => {
  const { t } = useLanguage();
  return (
    <Link className="min-h-11 content-center self-start font-semibold underline" href="/sign-in">
      {t('I have an account')}
    </Link>
  );
};
