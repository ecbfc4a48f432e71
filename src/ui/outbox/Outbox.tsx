'use client';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useState, useSyncExternalStore } from 'react';
import { actAs } from '../../sync/account';
import { fileOf, forgetKept, KeptTake, keptTakes, letGo, othersTakes, unended, updateKept } from '../../sync/kept-takes';
import { NOTHING_WAITS } from '../../sync/lane';
import { takesLane } from '../../sync/takes';
import { heardLately, KeptWord, onHeard, othersWords, refusedWords, sayAgain, takeBack, wordsLane } from '../../sync/words';
import { useLanguage } from '../language/language';

import { texts } from '../../core/words/said';

/** What a word is about, by where it goes. */
const ABOUT: [RegExp, string][] = texts([
  [/\/marks\//, 'A mark on a take'],
  [/\/plan$/, 'A change of a plan'],
  [/^\/api\/lessons\//, 'A lesson’s course or note'],
  [/^\/api\/takes\//, 'A note on a take'],
]);
const ENTRY = texts('An entry');
const aboutOf = ({ path }: KeptWord) => ABOUT.find(([where]) => where.test(path))?.[1] ?? ENTRY;

interface Aside {
  takes: KeptTake[];
  words: KeptWord[];
  /** Things that other accounts left here: none of ours, and not shown. */
  others: number;
}
const NOTHING: Aside = { takes: [], words: [], others: 0 };

/** Takes and words that this browser still holds: sent by themselves where they can be, offered where the coach must say. */
export function Outbox({ coachId }: { coachId: string }) {
  const { dateTimeOf, t } = useLanguage();
  actAs(`coach:${coachId}`);
  const router = useRouter();
  const takes = useSyncExternalStore(takesLane.watch, takesLane.state, () => NOTHING_WAITS);
  const words = useSyncExternalStore(wordsLane.watch, wordsLane.state, () => NOTHING_WAITS);
  const [aside, setAside] = useState<Aside>(NOTHING);
  /** The ids of takes that a page was still at when this one looked, as one word. */
  const [underWay, setUnderWay] = useState('');

  const look = useCallback(async () => {
    const refused = (await keptTakes()).filter((t) => t.refused);
    const { cutOff, underWay } = await unended();
    setUnderWay(underWay.map((take) => take.id).join(' '));
    setAside({
      takes: [...cutOff, ...refused],
      words: refusedWords(),
      others: (await othersTakes()) + othersWords(),
    });
  }, []);
  useEffect(() => {
    const send = () => {
      void takesLane.flush().then(look, () => {});
      void wordsLane.flush().then(look, () => {});
    };
    // What is on the page was drawn before the server heard this; and what is gone back to, before whatever happened since.
    const refresh = () => router.refresh();
    const unhear = onHeard((word, refused) => {
      if (refused) void look();
      if (!word.quiet) refresh();
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
  useEffect(() => {
    const left = new AbortController();
    for (const id of underWay.split(' ').filter(Boolean)) void letGo(id, left.signal).then(look, () => {});
    return () => left.abort();
  }, [underWay, look]);

  const keep = async (take: KeptTake) => {
    await updateKept(take.id, { state: 'ready', refused: undefined });
    await takesLane.flush();
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

  if (takes.waiting === 0 && !words.trouble && aside.takes.length + aside.words.length + aside.others === 0) return null;
  return (
    <aside aria-label={t('Kept in this browser')} className="no-print border-b border-line bg-card">
      <div className="mx-auto flex max-w-[1240px] flex-col gap-2 px-4 py-2">
        {takes.waiting > 0 && (
          <p role="status">
            {t('{n, plural, one {One take is} other {# takes are}} safe in this browser and not on the server yet.', { n: takes.waiting })}{' '}
            {takes.trouble ? t('{trouble} It is tried again by itself.', { trouble: takes.trouble }) : t('On the way …')}
          </p>
        )}
        {words.trouble && (
          <p role="status">
            {t('{n, plural, one {One entry of yours is} other {# entries of yours are}} safe in this browser and not on the server yet.', {
              n: words.waiting,
            })}{' '}
            {t('{trouble} It is tried again by itself.', { trouble: words.trouble })}
          </p>
        )}
        {aside.takes.map((take) => (
          <div key={take.id} className="flex flex-wrap items-center gap-2">
            <p className="flex-1">
              {take.refused
                ? t('A take of {singer} ({when}) was not accepted: {why}', {
                    singer: { own: take.singerName },
                    when: dateTimeOf(take.recordedAt),
                    why: take.refused,
                  })
                : t('A take of {singer} ({when}) was cut off after {seconds, number, ::.0} s. What was sung until then is here.', {
                    singer: { own: take.singerName },
                    when: dateTimeOf(take.recordedAt),
                    seconds: take.samples / take.sampleRate,
                  })}
            </p>
            <button className="button" onClick={() => void keep(take)}>
              {take.refused ? t('Send it again') : t('Keep the take')}
            </button>
            <button className="button" onClick={() => void asFile(take)}>
              {t('Keep as a file')}
            </button>
            <button className="button" onClick={() => void discard(take)}>
              {t('Discard')}
            </button>
          </div>
        ))}
        {aside.words.map((w) => (
          <div key={w.id} className="flex flex-wrap items-center gap-2">
            <p role="alert" className="flex-1">
              {t('{what} was not accepted: {why}', { what: aboutOf(w), why: w.refused ?? '' })}
            </p>
            <button className="button" onClick={() => (sayAgain(w.id), void look())}>
              {t('Send it again')}
            </button>
            <button className="button" onClick={() => (takeBack(w.id), void look())}>
              {t('Discard')}
            </button>
          </div>
        ))}
        {aside.others > 0 && (
          <p className="text-soft">
            {t(
              '{n, plural, one {Something of another account waits} other {# things of another account wait}} in this browser. It goes to the server when that account signs in here again.',
              { n: aside.others },
            )}
          </p>
        )}
      </div>
    </aside>
  );
}
