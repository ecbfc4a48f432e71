'use client';
import Link from 'next/link';
import { useState } from 'react';
import { DoorForm, NewPasswordField } from './DoorForm';
import { ask } from '../../sync/ask';

export function NewPassword({ token }: { token: string }) {
  const [done, setDone] = useState(false);
  return (
    <>
      <h1 className="text-2xl font-bold">A new password</h1>
      {done ? (
        <p className="card" role="status">
          The new password holds, and you are signed out everywhere.{' '}
          <Link className="font-semibold underline" href="/sign-in">
            Sign in
          </Link>
        </p>
      ) : (
        <DoorForm
          button="Set the password"
          send={(text) => ask('POST /api/door/new-password', { body: { token, password: text('password') } })}
          onSent={() => setDone(true)}
        >
          <NewPasswordField label="New password" />
        </DoorForm>
      )}
    </>
  );
}
