'use client';
import { DoorField, DoorForm, NewPasswordField } from './DoorForm';
import { ask } from '../../sync/ask';
import { enter } from '../kit/enter';

/** Taking a place that was offered. */
export function Join({ token, email, studio }: { token: string; email: string; studio: string }) {
  return (
    <>
      <h1 className="text-2xl font-bold">A place in {studio}</h1>
      <DoorForm
        button="Join the studio"
        send={(text) => ask('POST /api/door/join/[token]', { params: { token }, body: { name: text('name'), password: text('password') } })}
        onSent={() => enter()}
      >
        <p>Your account is for {email}.</p>
        <DoorField label="Your name" name="name" autoComplete="name" maxLength={120} />
        <NewPasswordField />
      </DoorForm>
    </>
  );
}
