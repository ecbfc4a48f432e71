'use client';
import { useState } from 'react';
import { DoorField, DoorForm } from './DoorForm';
import { ask } from '../../sync/ask';

export function Forgot() {
  const [sent, setSent] = useState(false);
  return (
    <>
      <h1 className="text-2xl font-bold">A new password</h1>
      {sent ? (
        <p className="card" role="status">
          If there is an account with this address, a message to it holds the way to a new password, good for an hour. Where no mail server
          is set, the message lies under Post, where another owner of the studio finds it; or, on the machine Wendel runs on, type{' '}
          <code>npm run account -- reset</code> and the address.
        </p>
      ) : (
        <DoorForm
          button="Send the message"
          send={(text) => ask('POST /api/door/forgot', { body: { email: text('email') } })}
          onSent={() => setSent(true)}
        >
          <DoorField label="E-mail address of the account" name="email" type="email" autoComplete="username" />
        </DoorForm>
      )}
    </>
  );
}
