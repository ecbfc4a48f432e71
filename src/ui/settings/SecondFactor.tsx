'use client';
import { QRCodeSVG } from 'qrcode.react';
import { FormEvent, useState } from 'react';
import { ask } from '../../sync/ask';
import { Form } from '../kit/Form';
import { useLanguage } from '../language/language';

type Attempt = <T>(work: () => Promise<T>) => Promise<T | undefined>;
const PATH = '/api/account/second-factor';

/** A field and its button. */
function OneField({
  label,
  button,
  type,
  autoComplete,
  onGiven,
}: {
  label: string;
  button: string;
  type: 'password' | 'text';
  autoComplete: string;
  onGiven(text: string): void;
}) {
  const give = (event: FormEvent<HTMLFormElement>) => {
    onGiven(String(new FormData(event.currentTarget).get('given') ?? ''));
  };
  return (
    <Form onSubmit={give} className="flex flex-wrap items-end gap-3">
      <label className="flex flex-col gap-1 text-sm text-soft">
        {label}
        <input className="field text-base" name="given" type={type} required autoComplete={autoComplete} />
      </label>
      <button className="button">{button}</button>
    </Form>
  );
}

/** A code of the coach's phone beside the password: set up, shown once, ended. */
export function SecondFactor({ on, attempt }: { on: boolean; attempt: Attempt }) {
  const { t } = useLanguage();
  const [begun, setBegun] = useState<{ uri: string; codes: string[] } | null>(null);
  const begin = async (present: string) => setBegun((await attempt(() => ask(`POST ${PATH}`, { body: { present } }))) ?? null);
  const confirm = async (code: string) => {
    if (await attempt(() => ask(`PUT ${PATH}`, { body: { code } }))) setBegun(null);
  };
  const end = (present: string) => void attempt(() => ask(`DELETE ${PATH}`, { body: { present } }));
  const secret = begun && new URL(begun.uri).searchParams.get('secret');
  return (
    <section aria-labelledby="second-factor" className="card flex flex-col gap-3">
      <h2 id="second-factor" className="text-lg font-bold">
        {t('A code from your phone')}
      </h2>
      <p className="text-soft">
        {on
          ? t('At the door a code is asked for beside the password: whoever learns the password alone stays outside.')
          : t(
              'With an authenticator on your phone the door asks for its code beside the password. Worth it for owners, who can do everything here.',
            )}
      </p>
      {on ? (
        <OneField
          label={t('Your password')}
          button={t('Ask for no code any more')}
          type="password"
          autoComplete="current-password"
          onGiven={end}
        />
      ) : begun ? (
        <ol className="flex list-decimal flex-col gap-3 pl-5">
          <li>
            {t('Let the authenticator on your phone read this, or type {secret} into it.', { secret: secret ?? '' })}
            <div className="mt-2 w-fit rounded-lg bg-white p-3">
              <QRCodeSVG value={begun.uri} size={168} title={t('For the authenticator on your phone')} />
            </div>
          </li>
          <li>
            {t('Write these down, for the day the phone is lost; each is good once:')}
            <ul className="mt-1 grid w-fit grid-cols-2 gap-x-6 font-mono" data-testid="kept-codes">
              {begun.codes.map((code) => (
                <li key={code}>{code}</li>
              ))}
            </ul>
          </li>
          <li>
            <OneField
              label={t('What the phone shows now')}
              button={t('Ask for it from now on')}
              type="text"
              autoComplete="one-time-code"
              onGiven={(code) => void confirm(code)}
            />
          </li>
        </ol>
      ) : (
        <OneField
          label={t('Your password')}
          button={t('Set it up')}
          type="password"
          autoComplete="current-password"
          onGiven={(present) => void begin(present)}
        />
      )}
    </section>
  );
}
