'use client';
import { useState } from 'react';
import type { BroughtIn } from '../../contract/answers';
import { addressOf, fetchAnswer } from '../../sync/ask';
import { useLanguage } from '../language/language';

import { texts } from '../../core/words/said';

const WORDS: Record<string, string> = texts({
  singer: 'singers',
  lesson: 'lessons',
  protocol: 'lessons of your own',
  exercise: 'exercises of your own',
  template: 'sets kept by name',
  pin: 'pinned values',
  take: 'takes',
  analysis: 'findings',
  mark: 'marks',
  assignment: 'weeks of practice',
  practice: 'lines of practice',
});

/** The whole studio as a file, and a file into the studio: looked through first, changed only on a second word. */
export function BundleInOut({ attempt }: { attempt<T>(work: () => Promise<T>): Promise<T | undefined> }) {
  const { t } = useLanguage();
  const [file, setFile] = useState<File | null>(null);
  const [seen, setSeen] = useState<{ found: BroughtIn; done: boolean } | null>(null);
  const [busy, setBusy] = useState(false);

  const send = async (chosen: File, done: boolean) => {
    setBusy(true);
    const found = await attempt(() =>
      fetchAnswer<BroughtIn>(addressOf('POST /api/bundle', {}) + (done ? '' : '?dry'), { method: 'POST', body: chosen }),
    );
    setBusy(false);
    setSeen(found ? { found, done } : null);
  };

  return (
    <section aria-labelledby="bundle">
      <h2 id="bundle" className="text-lg font-bold">
        {t('The whole studio as a file')}
      </h2>
      <p className="text-soft">
        {t(
          'Every singer, take, recording, lesson, plan and line of practice in one ZIP file that other programs can read too. Accounts and links are not in it. Bringing one in adds what is missing here and leaves what is here as it is.',
        )}
      </p>
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <a className="button" href={addressOf('GET /api/bundle', {})} download>
          {t('Take the studio out')}
        </a>
        <label className="button cursor-pointer focus-within:outline-2 focus-within:outline-accent">
          {t('Bring one in…')}
          <input
            type="file"
            accept=".zip,application/zip"
            className="sr-only"
            disabled={busy}
            onChange={(e) => {
              const chosen = e.target.files?.[0];
              e.target.value = '';
              if (!chosen) return;
              setFile(chosen);
              setSeen(null);
              void send(chosen, false);
            }}
          />
        </label>
        {busy && <span role="status">{t('Reading {name}…', { name: { own: file?.name ?? '' } })}</span>}
      </div>
      {seen && (
        <div className="card mt-2" role="status" data-testid="brought-in">
          <p className="font-semibold">
            {seen.done
              ? t('{name} was brought in:', { name: { own: file!.name } })
              : t('{name} would bring:', { name: { own: file!.name } })}
          </p>
          <ul className="list-disc pl-5">
            {seen.found.tables.map((table) => (
              <li key={table.name}>
                {table.fresh} {t(WORDS[table.name] ?? table.name)}
                {table.known > 0 && t(', {known} are here already', { known: table.known })}
              </li>
            ))}
            <li>{t('{recordings} recordings', { recordings: seen.found.recordings })}</li>
            {seen.found.settings && (
              <li>{t('the studio’s name, school and how long recordings are kept, since nobody is in this one yet')}</li>
            )}
          </ul>
          {!seen.done && (
            <div className="mt-2 flex gap-2">
              <button className="button-main" disabled={busy} onClick={() => void send(file!, true)}>
                {t('Bring it in')}
              </button>
              <button className="button" onClick={() => setSeen(null)}>
                {t('Leave it')}
              </button>
            </div>
          )}
        </div>
      )}
    </section>
  );
}
