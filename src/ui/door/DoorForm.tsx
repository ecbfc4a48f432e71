'use client';
import { FormEvent, useState } from 'react';
import { Notice } from '../kit/Notice';
import { sendJson } from '../kit/request';

/** The one form of the door: fields, a button, and what went wrong. `onSent` follows once the server said yes. */
export function DoorForm({
  path,
  button,
  children,
  bodyOf,
  onSent,
}: {
  path: string;
  button: string;
  children: React.ReactNode;
  bodyOf(text: (name: string) => string): unknown;
  onSent(answer: unknown): void;
}) {
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const send = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    setBusy(true);
    setProblem(null);
    try {
      const answer = await sendJson(
        'POST',
        path,
        bodyOf((name) => String(form.get(name) ?? '')),
      );
      onSent(answer);
    } catch (error) {
      setProblem((error as Error).message);
      setBusy(false);
    }
  };
  return (
    <form onSubmit={(e) => void send(e)} className="card flex flex-col gap-3">
      {children}
      {problem && <Notice>{problem}</Notice>}
      <button className="button-main self-start" disabled={busy}>
        {button}
      </button>
    </form>
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
export const NewPasswordField = ({ label = 'Password' }: { label?: string }) => (
  <DoorField
    label={label}
    name="password"
    type="password"
    autoComplete="new-password"
    minLength={12}
    maxLength={128}
    hint="At least 12 characters. Three or four words do well."
  />
);
