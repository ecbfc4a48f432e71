'use client';
import { Notice } from '../kit/Notice';
import { dateTimeOf } from '../kit/dates';
import { useAttempt } from './useAttempt';
import { ask } from '../../sync/ask';

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
  const { problem, attempt } = useAttempt();
  const waiting = mailSet && messages.some((m) => m.address && !m.sentAt);
  return (
    <main className="mx-auto max-w-[1000px] px-4 py-4">
      <h1 className="text-2xl font-bold">Post</h1>
      <p className="mb-3 text-soft">
        {mailSet
          ? 'What has an address goes out by your mail server; the rest you hand over yourself.'
          : 'No mail server is set: copy a message and send it the way you talk to people.'}
      </p>
      {problem && <Notice>{problem}</Notice>}
      {waiting && (
        <button className="button mb-3" onClick={() => void attempt(() => ask('POST /api/post'))}>
          Send what waits
        </button>
      )}
      {messages.length === 0 && <p className="card text-lg">Nothing yet. A practice sheet has a button that sends the practice page.</p>}
      <ul className="flex flex-col gap-3">
        {messages.map((m) => (
          <li key={m.id} className="card" data-testid="message">
            <p className="text-sm text-soft">
              {dateTimeOf(m.madeAt)} to {m.recipient}
              {m.sentAt && `; the mail server took it ${dateTimeOf(m.sentAt)}`}
            </p>
            <h2 className="font-bold">{m.subject}</h2>
            <p className="break-words whitespace-pre-line">{m.body || 'It held a key, so its words are not kept here.'}</p>
            {m.problem && <p className="mt-1 font-semibold text-warn">The mail server would not take it: {m.problem}</p>}
          </li>
        ))}
      </ul>
    </main>
  );
}
