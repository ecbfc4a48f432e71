'use client';
import { DoorField, DoorForm, NewPasswordField } from './DoorForm';
import { enter } from '../kit/enter';

/** Taking a place that was offered. */
export function Join({ token, email, studio }: { token: string; email: string; studio: string }) {
  return (
    <>
      <h1 className="text-2xl font-bold">A place in {studio}</h1>
      <DoorForm
        path={`/api/door/join/${token}`}
        button="Join the studio"
        bodyOf={(text) => ({ name: text('name'), password: text('password') })}
        onSent={() => enter()}
      >
        <p>Your account is for {email}.</p>
        <DoorField label="Your name" name="name" autoComplete="name" maxLength={120} />
        <NewPasswordField />
      </DoorForm>
    </>
  );
}
