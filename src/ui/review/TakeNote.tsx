'use client';
import { useState } from 'react';
import { useMayChange } from '../kit/may-change';
import { request } from '../kit/request';

/** The coach's own words on a take; kept when the field is left. */
export function TakeNote({ takeId, stored }: { takeId: string; stored: string }) {
  const mayChange = useMayChange();
  const [said, setSaid] = useState('');
  const save = (note: string) =>
    request(`/api/takes/${takeId}`, {
      method: 'PATCH',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ note }),
    }).then(
      () => setSaid('Kept.'),
      (error: Error) => setSaid(error.message),
    );
  return (
    <label className="flex flex-col gap-1 text-sm text-soft">
      A word on this take
      <textarea
        className="field min-h-16 py-2 text-base"
        readOnly={!mayChange}
        defaultValue={stored}
        maxLength={2000}
        onBlur={(e) => e.target.value !== stored && void save(e.target.value)}
      />
      <span role="status">{said}</span>
    </label>
  );
}
