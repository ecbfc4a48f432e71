'use client';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useState, useSyncExternalStore } from 'react';
import { cutOff, fileOf, forgetKept, KeptTake, keptTakes, updateKept } from '../../audio/kept';
import { flushOutbox, outboxState, OutboxState, watchOutbox } from '../../audio/outbox';
import { dateTimeOf } from '../kit/dates';
import { heardLately, onHeard, sendWords, watchWords, wordsState } from './words';

const NOTHING: OutboxState = { waiting: 0, trouble: null };

/** Takes and words that this browser still holds: sent by themselves where they can be, offered where the coach must say. */
export function Outbox() {
  const router = useRouter();
  const { waiting, trouble } = useSyncExternalStore(watchOutbox, outboxState, () => NOTHING);
  const words = useSyncExternalStore(watchWords, wordsState, () => NOTHING);
  const [stranded, setStranded] = useState<KeptTake[]>([]);
  const [refused, setRefused] = useState<string | null>(null);

  const look = useCallback(async () => {
    const refused = (await keptTakes()).filter((t) => t.refused);
    setStranded([...(await cutOff()), ...refused]);
  }, []);
  useEffect(() => {
    const send = () => {
      void flushOutbox().then(look, () => {});
      void sendWords();
    };
    // What is on the page was drawn before the server heard this; and what is gone back to, before whatever happened since.
    const refresh = () => router.refresh();
    const unhear = onHeard((_, refused) => {
      setRefused(refused);
      refresh();
    });
    if (heardLately()) refresh();
    send();
    addEventListener('online', send);
    addEventListener('popstate', refresh);
    return () => {
      unhear();
      removeEventListener('online', send);
      removeEventListener('popstate', refresh);
    };
  }, [look, router]);

  const keep = async (take: KeptTake) => {
    await updateKept(take.id, { state: 'ready', refused: undefined });
    await flushOutbox();
    await look();
  };
  const discard = async (take: KeptTake) => {
    await forgetKept(take.id);
    await look();
  };
  const asFile = async (take: KeptTake) => {
    const url = URL.createObjectURL(new Blob([await fileOf(take)], { type: 'audio/wav' }));
    Object.assign(document.createElement('a'), { href: url, download: `take-${take.recordedAt.slice(0, 16)}.wav` }).click();
    URL.revokeObjectURL(url);
  };

  if (waiting === 0 && stranded.length === 0 && !words.trouble && !refused) return null;
  return (
    <aside aria-label="Kept in this browser" className="no-print border-b border-line bg-card">
      <div className="mx-auto flex max-w-[1240px] flex-col gap-2 px-4 py-2">
        {waiting > 0 && (
          <p role="status">
            {waiting === 1 ? 'One take is' : `${waiting} takes are`} safe in this browser and not on the server yet.{' '}
            {trouble ? `${trouble} It is tried again by itself.` : 'On the way …'}
          </p>
        )}
        {words.trouble && (
          <p role="status">
            {words.waiting === 1 ? 'One entry of yours is' : `${words.waiting} entries of yours are`} safe in this browser and not on the
            server yet. {words.trouble} It is tried again by itself.
          </p>
        )}
        {refused && <p role="alert">An entry of yours was not accepted: {refused}</p>}
        {stranded.map((t) => (
          <div key={t.id} className="flex flex-wrap items-center gap-2">
            <p className="flex-1">
              {t.refused
                ? `A take of ${t.singerName} (${dateTimeOf(t.recordedAt)}) was not accepted: ${t.refused}`
                : `A take of ${t.singerName} (${dateTimeOf(t.recordedAt)}) was cut off after ${(t.samples / t.sampleRate).toFixed(1)} s. What was sung until then is here.`}
            </p>
            <button className="button" onClick={() => void keep(t)}>
              {t.refused ? 'Send it again' : 'Keep the take'}
            </button>
            <button className="button" onClick={() => void asFile(t)}>
              Keep as a file
            </button>
            <button className="button" onClick={() => void discard(t)}>
              Discard
            </button>
          </div>
        ))}
      </div>
    </aside>
  );
}
