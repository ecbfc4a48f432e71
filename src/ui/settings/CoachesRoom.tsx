'use client';
import { FormEvent, useState } from 'react';
import { Notice } from '../kit/Notice';
import { useAttempt } from './useAttempt';
import type { Role } from '../../core/format/studio';
import { ask } from '../../sync/ask';
import { Form } from '../kit/Form';
import { useLanguage } from '../language/language';

import { texts } from '../../core/words/said';

const ROLES: readonly [Role, string][] = texts([
  ['coach', 'works with the singers'],
  ['reader', 'looks, and changes nothing'],
  ['owner', 'also runs the studio'],
]);

interface Props {
  members: { userId: string; name: string; email: string; role: Role; self: boolean }[];
  invites: { id: string; email: string; role: Role; expiresAt: Date }[];
}

/** Who works in the studio, what each may do, and who is asked to come. */
export function CoachesRoom({ members, invites }: Props) {
  const { dateOf, t } = useLanguage();
  const { problem, attempt } = useAttempt();
  const [made, setMade] = useState<{ email: string; address: string } | null>(null);

  const invite = async (event: FormEvent<HTMLFormElement>) => {
    const form = event.currentTarget;
    const data = new FormData(form);
    const email = String(data.get('email'));
    const done = await attempt(() => ask('POST /api/invites', { body: { email, role: String(data.get('role')) as Role } }));
    if (!done) return;
    setMade({ email, address: done.address });
    form.reset();
  };

  return (
    <>
      <h1 className="text-2xl font-bold">{t('Coaches')}</h1>
      {problem && <Notice>{t(problem)}</Notice>}
      <ul className="flex flex-col gap-2">
        {members.map((m) => (
          <li key={m.userId} className="card flex flex-wrap items-center gap-3" data-testid="member">
            <p className="min-w-52 flex-1">
              <b>{m.name}</b> {m.self && t('(you)')}
              <br />
              <span className="text-soft">{m.email}</span>
            </p>
            <RoleChoice
              label={t('What {name} does', { name: m.name })}
              value={m.role}
              onChange={(role) => void attempt(() => ask('PUT /api/members/[userId]', { params: { userId: m.userId }, body: { role } }))}
            />
            <Dismiss
              name={m.name}
              onDismiss={() => void attempt(() => ask('DELETE /api/members/[userId]', { params: { userId: m.userId } }))}
            />
          </li>
        ))}
        {invites.map((i) => (
          <li key={i.id} className="card flex flex-wrap items-center gap-3 border-dashed">
            <p className="min-w-52 flex-1">
              <b>{i.email}</b>
              <br />
              <span className="text-soft">
                {t('asked to come, {what}; the offer is good until {expiresAt}', {
                  what: ROLES.find(([r]) => r === i.role)![1],
                  expiresAt: dateOf(i.expiresAt),
                })}
              </span>
            </p>
            <button
              className="button"
              onClick={() => void attempt(() => ask('DELETE /api/invites/[inviteId]', { params: { inviteId: i.id } }))}
            >
              {t('Take the offer back')}
            </button>
          </li>
        ))}
      </ul>
      <Form onSubmit={invite} className="card flex flex-wrap items-end gap-3">
        <h2 className="w-full text-lg font-bold">{t('Ask somebody to come')}</h2>
        <label className="flex min-w-60 flex-1 flex-col gap-1 text-sm text-soft">
          {t('E-mail address')}
          <input className="field text-base" name="email" type="email" required maxLength={200} autoComplete="off" />
        </label>
        <label className="flex flex-col gap-1 text-sm text-soft">
          {t('What they will do')}
          <select className="field text-base" name="role">
            {ROLES.map(([role, words]) => (
              <option key={role} value={role}>
                {t(words)}
              </option>
            ))}
          </select>
        </label>
        <button className="button-main">{t('Make the offer')}</button>
        {made && (
          <p role="status" className="w-full break-words">
            {t('The way in for {email}, good for a week, lies under Post too:', { email: { own: made.email } })}{' '}
            <b data-testid="invite-link">{made.address}</b>
          </p>
        )}
      </Form>
    </>
  );
}

function RoleChoice({ label, value, onChange }: { label: string; value: Role; onChange(role: Role): void }) {
  const { t } = useLanguage();
  return (
    <select className="field text-base" aria-label={label} value={value} onChange={(e) => onChange(e.target.value as Role)}>
      {ROLES.map(([role, words]) => (
        <option key={role} value={role}>
          {t(words)}
        </option>
      ))}
    </select>
  );
}

/** An account is gone for good: the one press that can't be undone asks for a second. */
function Dismiss({ name, onDismiss }: { name: string; onDismiss(): void }) {
  const { t } = useLanguage();
  const [sure, setSure] = useState(false);
  return sure ? (
    <span className="flex gap-2">
      <button className="button" onClick={onDismiss}>
        {t('Delete {name}’s account', { name })}
      </button>
      <button className="button" onClick={() => setSure(false)}>
        {t('Keep')}
      </button>
    </span>
  ) : (
    <button className="button" onClick={() => setSure(true)}>
      {t('Leaves the studio…')}
    </button>
  );
}
