'use client';
import { useLanguage } from '../language/language';
import { said, texts } from '../../core/words/said';

/** What the tables are called among people. */
const WHAT: Record<string, string> = texts({
  singer: 'a singer’s record',
  lesson: 'a lesson',
  protocol: 'a lesson of the studio’s own',
  exercise: 'an exercise',
  template: 'a set kept by name',
  song: 'a song',
  model: 'a voice to imitate',
  spoken_word: 'a spoken word',
  ear_answer: 'what was heard blind',
  repertoire: 'a song of a singer’s',
  pin: 'a pinned value of a map',
  take: 'a take',
  mark: 'a mark on a take',
  assignment: 'a week of practice',
  link: 'the way to a practice page',
  practice: 'a line of practice',
  studio: 'the studio’s settings',
  page: 'the practice page',
  bundle: 'the whole studio as a file',
  invitation: 'an invitation',
  account: '',
});

const DEEDS: Record<string, string> = texts({
  added: 'added {what}',
  changed: 'changed {what}',
  deleted: 'deleted {what}',
  sent: 'sent {what}',
  took: 'took {what}',
  'took out': 'took {what}',
  'took back': 'took {what} back',
  'brought in': 'brought {what} in',
  opened: 'opened {what}',
});

/** What needs other words than its own. */
const DID: Record<string, string> = texts({
  looked: 'looked at the records',
  invited: 'invited somebody',
  'signed in': 'signed in',
  'could not sign in': 'could not sign in',
  'signed out': 'signed out',
  joined: 'joined the studio',
  'was made': 'was given another part',
  'was taken out': 'was taken out of the studio',
  'changed the password': 'changed the password',
  'asked for a new password': 'asked for a new password',
  'set a new password': 'set a new password',
  'offered a new password': 'offered a new password',
});

interface Line {
  id: string;
  at: Date;
  actor: string;
  /** The address of the actor's account; null: it is gone, or there never was one. */
  email: string | null;
  did: string;
  what: string;
  columns: string[] | null;
  detail: string | null;
  singer: string | null;
}

/** Who looked at whom and who changed what, newest first. */
export function AuditLog({ lines }: { lines: Line[] }) {
  const { dateTimeOf, t } = useLanguage();
  return (
    <>
      <h1 className="text-2xl font-bold">{t('Who did what')}</h1>
      <p className="text-soft">
        {t(
          'Looks at a singer’s records are noted once a day and person; every change is noted where it happens and can’t be taken out here. When a singer is deleted it stays who did something and when, and no longer about whom.',
        )}
      </p>
      <div className="overflow-x-auto">
        <table className="w-full text-left tabular-nums">
          <thead>
            <tr className="border-b border-line text-sm text-soft">
              <th className="py-1 pr-4">{t('When')}</th>
              <th className="py-1 pr-4">{t('Who')}</th>
              <th className="py-1 pr-4">{t('What')}</th>
              <th className="py-1">{t('About')}</th>
            </tr>
          </thead>
          <tbody>
            {lines.map((l) => (
              <tr key={l.id} className="border-b border-line">
                <td className="py-1 pr-4 whitespace-nowrap">{dateTimeOf(l.at)}</td>
                <td className="py-1 pr-4">
                  {l.email ? l.actor : t(l.actor)}
                  {l.email && <span className="block text-sm text-soft">{l.email}</span>}
                </td>
                <td className="py-1 pr-4">
                  {t(DID[l.did] ?? said(DEEDS[l.did] ?? l.did, { what: WHAT[l.what] ?? l.what }))}
                  {l.columns && <span className="text-soft"> ({l.columns.map((c) => c.replaceAll('_', ' ')).join(', ')})</span>}
                  {l.detail && <span className="text-soft"> ({l.detail})</span>}
                </td>
                <td className="py-1">{l.singer ?? ''}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}
