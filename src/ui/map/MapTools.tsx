'use client';
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { Download, Printer } from 'lucide-react';
import { RefObject, useState } from 'react';
import type { VoiceMap } from '../../core/map/types';
import { Notice } from '../kit/Notice';
import { download } from '../kit/download';
import { csvOf, pdfOf, pictureOf, pngOf } from './export-map';
import { useLanguage } from '../language/language';
import type { Said } from '../../core/words/said';
import { saidOf } from '../../core/words/said-error';

/** Print the map, or take it out as a picture or as figures. */
export function MapTools({ name, map, figure }: { name: string; map: VoiceMap; figure: RefObject<HTMLElement | null> }) {
  const language = useLanguage();
  const { t } = language;
  const [problem, setProblem] = useState<Said | null>(null);
  const file = `${name.toLowerCase().replace(/[^a-z0-9]+/g, '-')}-voice`;
  const picture = () => pictureOf(figure.current!, t('{name}: the voice', { name: { own: name } }));
  const ways: [string, () => void | Promise<void>][] = [
    [t('Picture for a page (PNG)'), async () => download(`${file}.png`, await pngOf(picture()))],
    [t('Page to send (PDF)'), async () => download(`${file}.pdf`, await pdfOf(picture(), map, language))],
    [t('Drawing (SVG)'), () => download(`${file}.svg`, picture().svg, 'image/svg+xml')],
    [t('Table (CSV)'), () => download(`${file}.csv`, csvOf(map, language), 'text/csv')],
    [t('All figures (JSON)'), () => download(`${file}.json`, JSON.stringify(map, null, 2), 'application/json')],
  ];
  return (
    <div className="no-print flex flex-wrap items-center gap-2">
      <button className="button" onClick={() => print()}>
        <Printer aria-hidden size={18} /> {t('Print')}
      </button>
      <Menu>
        <MenuButton className="button">
          <Download aria-hidden size={18} /> {t('Take out')}
        </MenuButton>
        <MenuItems anchor="bottom start" className="z-10 flex flex-col rounded-lg border border-line bg-card p-1 shadow-lg">
          {ways.map(([words, work]) => (
            <MenuItem key={words}>
              <button
                className="min-h-11 rounded-md px-3 text-left data-focus:bg-paper"
                onClick={() =>
                  void Promise.resolve()
                    .then(work)
                    .catch((error: unknown) => setProblem(saidOf(error)))
                }
              >
                {t(words)}
              </button>
            </MenuItem>
          ))}
        </MenuItems>
      </Menu>
      {problem && <Notice>{t(problem)}</Notice>}
    </div>
  );
}
