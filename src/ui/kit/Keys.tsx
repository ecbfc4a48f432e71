'use client';
import { Keyboard, Printer } from 'lucide-react';
import { useState } from 'react';
import { keysOfPage, Shortcut, useShortcuts } from './useShortcuts';
import { Window } from './Window';
import { useLanguage } from '../language/language';

import { Said, said, texts } from '../../core/words/said';

const NAMES: Record<string, string> = texts({ ' ': 'Space', ArrowLeft: '←', ArrowRight: '→', ArrowUp: '↑', ArrowDown: '↓', Escape: 'Esc' });

const nameOf = ({ key, command }: Shortcut): Said =>
  command ? said('Ctrl {key}', { key: NAMES[key] ?? key.toUpperCase() }) : (NAMES[key] ?? key.toUpperCase());

/** A room's keys: they work while this is shown, and “?” or the button lists them with those of its parts. */
export function Keys({ shortcuts, repeats }: { shortcuts: readonly Shortcut[]; repeats?: boolean }) {
  const { t } = useLanguage();
  const [open, setOpen] = useState<Shortcut[] | null>(null);
  const show = () => setOpen(keysOfPage().filter((s) => s.key !== '?'));
  // While the list is open, only what closes it works (Esc is the dialog's own).
  useShortcuts(open ? [] : [...shortcuts, { key: '?', says: said('shows these keys'), act: show }], repeats);
  return (
    <>
      <button className="button px-3" title="?" aria-label={t('Keys of this page')} aria-keyshortcuts="?" onClick={show}>
        <Keyboard aria-hidden size={18} />
      </button>
      {open && (
        <Window
          title={t('Keys of this page')}
          width="max-w-md"
          onClose={() => setOpen(null)}
          foot={
            <button className="button" onClick={() => print()}>
              <Printer aria-hidden size={18} /> {t('On paper')}
            </button>
          }
        >
          <p className="hidden print:block">{document.title}</p>
          <dl className="grid grid-cols-[7rem_1fr] gap-x-4 gap-y-1">
            {open.map((s) => (
              <div key={`${s.command} ${s.key}`} className="contents">
                <dt>
                  <kbd className="inline-block font-sans min-w-9 rounded-md border border-line bg-paper px-2 text-center font-semibold">
                    {t(nameOf(s))}
                  </kbd>
                </dt>
                <dd>{t(s.says)}</dd>
              </div>
            ))}
          </dl>
        </Window>
      )}
    </>
  );
}
