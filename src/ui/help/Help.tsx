'use client';
import { CircleHelp } from 'lucide-react';
import { Link } from '../kit/Link';
import { usePathname } from 'next/navigation';
import { useState } from 'react';
import { Window } from '../kit/Window';
import { findHelp, helpAt, HelpPage } from './pages';
import { useLanguage } from '../language/language';

/** The help of the page one is on, and a search through the help of all. */
export function Help({ className }: { className: string }) {
  const { t } = useLanguage();
  const path = usePathname();
  const [open, setOpen] = useState(false);
  const [words, setWords] = useState('');
  const [chosen, setChosen] = useState<HelpPage | null>(null);
  const here = helpAt(path);
  const shown = chosen ?? here;
  const found = findHelp(words, t);
  const close = () => {
    setOpen(false);
    setWords('');
    setChosen(null);
  };
  return (
    <>
      <button className={`flex items-center gap-2 ${className}`} onClick={() => setOpen(true)}>
        <CircleHelp aria-hidden size={18} /> {t('Help')}
      </button>
      {open && (
        <Window
          title={words.trim() || !shown ? t('Help') : t('Help: {name}', { name: shown.name })}
          onClose={close}
          foot={
            chosen &&
            chosen !== here &&
            !chosen.at.includes('[') && (
              <Link className="button" href={chosen.at} onClick={close}>
                {t('Go there')}
              </Link>
            )
          }
        >
          <label className="flex flex-col gap-1 text-sm text-soft">
            {t('What are you looking for?')}
            <input className="field text-base text-ink" type="search" autoFocus value={words} onChange={(e) => setWords(e.target.value)} />
          </label>
          {words.trim() ? (
            <Found
              pages={found}
              onChoose={(page) => {
                setChosen(page);
                setWords('');
              }}
            />
          ) : (
            shown && <OnePage page={shown} />
          )}
        </Window>
      )}
    </>
  );
}

function OnePage({ page: { shows, press } }: { page: HelpPage }) {
  const { t } = useLanguage();
  return (
    <div className="flex flex-col gap-3">
      {shows.map((text) => (
        <p key={text}>{t(text)}</p>
      ))}
      {press.length > 0 && (
        <dl className="grid gap-x-4 gap-y-1 sm:grid-cols-[11rem_1fr]">
          {press.map(([what, then]) => (
            <div key={what} className="contents">
              <dt className="font-semibold">{t(what)}</dt>
              <dd className="max-sm:mb-2">{t(then)}</dd>
            </div>
          ))}
        </dl>
      )}
    </div>
  );
}

function Found({ pages, onChoose }: { pages: HelpPage[]; onChoose(page: HelpPage): void }) {
  const { t } = useLanguage();
  if (pages.length === 0) return <p>{t('Nothing here speaks of that. A word less finds more.')}</p>;
  return (
    <ul className="flex flex-col gap-1">
      {pages.map((page) => (
        <li key={page.at}>
          <button className="w-full rounded-lg px-3 py-2 text-left hover:bg-paper" onClick={() => onChoose(page)}>
            <span className="font-semibold">{t(page.name)}</span>
            <span className="block text-sm text-soft">{t(page.shows[0]).split('. ')[0]}</span>
          </button>
        </li>
      ))}
    </ul>
  );
}
