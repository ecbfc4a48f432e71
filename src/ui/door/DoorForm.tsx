'use client';
import { FormEvent, useState } from 'react';
import { Notice } from '../kit/Notice';
import { Form } from '../kit/Form';
import { useLanguage } from '../language/language';
import type { Said } from '../../core/words/said';
import { saidOf } from '../../core/words/said-error';

/** The one form of the door: fields, a button, and what went wrong. `send` gets what was written in; `onSent` follows once the server said yes. */
export function DoorForm<T>({
  button,
  children,
  send,
  onSent,
}: {
  button: string;
  children: React.ReactNode;
  send(text: (name: string) => string): Promise<T>;
  onSent(answer: T): void;
}) {
  const { t } = useLanguage();
  const [problem, setProblem] = useState<Said | null>(null);
  const [busy, setBusy] = useState(false);
  const submit = async (event: FormEvent<HTMLFormElement>) => {
    const form = new FormData(event.currentTarget);
    setBusy(true);
    setProblem(null);
    try {
      onSent(await send((name) => String(form.get(name) ?? '')));
    } catch (error) {
      setProblem(saidOf(error));
      setBusy(false);
    }
  };
  return (
    <Form onSubmit={submit} className="card flex flex-col gap-3">
      {children}
      {problem && <Notice>{t(problem)}</Notice>}
      <button className="button-main self-start" disabled={busy}>
        {button}
      </button>
    </Form>
  );
}

/** A field of a form with its name above it. */
export function DoorField({ label, hint, ...input }: { label: string; hint?: string } & React.InputHTMLAttributes<HTMLInputElement>) {
  return (
    <label className="flex flex-col gap-1 text-sm text-soft">
      {label}
      <input className="field text-base" required {...input} />
      {hint && <span>{hint}</span>}
    </label>
  );
}

/** Where a new password is chosen. */
export const NewPasswordField = ({ label }: { label?: string }) => {
  const { t } = useLanguage();
  return (
    <DoorField
      label={label ?? t('Password')}
      name="password"
      type="password"
      autoComplete="new-password"
      minLength={12}
      maxLength={128}
      hint={t('At least 12 characters. Three or four words do well.')}
    />
  );
};
