'use client';
import { Notice } from '../kit/Notice';
import { useAttempt } from './useAttempt';
import { ask } from '../../sync/ask';
import { useLanguage } from '../language/language';

interface Message {
  id: string;
  recipient: string;
  address: string | null;
  subject: string;
  body: string;
  problem: string | null;
  madeAt: Date;
  sentAt: Date | null;
}

/** What the studio has to send: by its mail server, or copied from here by hand. */
export function PostRoom({ mailSet, messages }: { mailSet: boolean; messages: Message[] }) {
  const { dateTimeOf, t } = useLanguage();
  const { problem, attempt } = useAttempt();
  const waiting = mailSet && messages.some((m) => m.address && !m.sentAt);
  return (
    <main className="mx-auto max-w-[1000px] px-4 py-4">
      <h1 className="text-2xl font-bold">{t('Post')}</h1>
      <p className="mb-3 text-soft">
        {mailSet
          ? t('What has an address goes out by your mail server; the rest you hand over yourself.')
          : t('No mail server is set: copy a message and send it the way you talk to people.')}
      </p>
      {problem && <Notice>{t(problem)}</Notice>}
      {waiting && (
        <button className="button mb-3" onClick={() => void attempt(() => ask('POST /api/post'))}>
          {t('Send what waits')}
        </button>
      )}
      {messages.length === 0 && (
        <p className="card text-lg">{t('Nothing yet. A practice sheet has a button that sends the practice page.')}</p>
      )}
      <ul className="flex flex-col gap-3">
        {messages.map((m) => (
          <li key={m.id} className="card" data-testid="message">
            <p className="text-sm text-soft">
              {t('{date} to {recipient}', { date: dateTimeOf(m.madeAt), recipient: { own: m.recipient } })}
              {m.sentAt && t('; the mail server took it {date}', { date: dateTimeOf(m.sentAt) })}
            </p>
            <h2 className="font-bold">{m.subject}</h2>
            <p className="break-words whitespace-pre-line">{m.body || t('It held a key, so its words are not kept here.')}</p>
            {m.problem && (
              <p className="mt-1 font-semibold text-warn">{t('The mail server would not take it: {problem}', { problem: m.problem })}</p>
            )}
          </li>
        ))}
      </ul>
    </main>
  );
}
