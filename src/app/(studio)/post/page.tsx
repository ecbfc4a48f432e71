import { viewMessages } from '@/server/links';
import { dateTimeOf } from '@/ui/kit/words';

export const metadata = { title: 'Post' };

/** What the studio has to send: until a mail server is set, copied from here by hand. */
export default async function Page() {
  const messages = await viewMessages();
  return (
    <main className="mx-auto max-w-[1000px] px-4 py-4">
      <h1 className="text-2xl font-bold">Post</h1>
      <p className="mb-3 text-soft">
        Messages to your singers. No mail server is set: copy a message and send it the way you talk to them.
      </p>
      {messages.length === 0 && <p className="card text-lg">Nothing yet. A practice sheet has a button that sends the practice page.</p>}
      <ul className="flex flex-col gap-3">
        {messages.map((m) => (
          <li key={m.id} className="card" data-testid="message">
            <p className="text-sm text-soft">
              {dateTimeOf(m.madeAt)} to {m.recipient}
            </p>
            <h2 className="font-bold">{m.subject}</h2>
            <p className="break-words whitespace-pre-line">{m.body}</p>
          </li>
        ))}
      </ul>
    </main>
  );
}
