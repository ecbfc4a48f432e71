'use client';
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { Download, Printer } from 'lucide-react';
import { useState } from 'react';
import { mixdown } from '../../audio/mixdown';
import { type Accompaniment, followAlong } from '../../core/exercise/follow-along';
import { ChooseAccompaniment } from '../exercises/ChooseAccompaniment';
import { download, fileName } from '../kit/download';
import { downloadMidi, downloadMusicXml } from '../kit/notes-files';
import { ForCoaches } from '../kit/may-change';
import { POPOVER } from '../kit/popover';
import { useStored } from '../kit/useStored';
import { downloadCalendar } from './calendar';
import type { SheetView } from './view';
import { SendPage } from './SendPage';
import { sheetPdf } from './sheet-pdf';
import { useLanguage } from '../language/language';
import type { Said } from '../../core/words/said';
import { saidOf } from '../../core/words/said-error';

/** What a sheet can be taken away as: paper, a page to send, sound, a calendar, notes. */
export function SheetTools({
  view,
  items,
  onLink,
}: {
  view: SheetView;
  items: SheetView['items'];
  onLink: (address: string | null) => void;
}) {
  const language = useLanguage();
  const { t } = language;
  const [busy, setBusy] = useState('');
  const [problem, setProblem] = useState<Said | null>(null);
  const [accompaniment, setAccompaniment] = useStored<Accompaniment>('wendel-accompaniment', 'notes');
  const { assignment, singer } = view;
  const named = (ending: string) => fileName(`${singer.name} ${assignment.startsOn}`, ending);

  const sound = async () => {
    const follow = followAlong(
      items.map(({ item, exercise }) => ({ exercise, keys: item.keys, tempo: item.tempo, minutes: item.minutes })),
      accompaniment,
    );
    download(named('wav'), await mixdown(follow));
  };
  const calendar = () => downloadCalendar({ ...assignment, items: view.items }, singer.name, location.href, language);
  const makes: [string, string, () => unknown][] = [
    ['pdf', t('Page to send (PDF)'), async () => download(named('pdf'), await sheetPdf(view, items, language))],
    ['wav', t('Sound to sing along with (WAV)'), sound],
    ['ics', t('Sessions for a calendar (ICS)'), calendar],
    [
      'mid',
      t('Notes to play (MIDI, one file an exercise)'),
      () => Promise.all(items.map(({ item, exercise }) => downloadMidi(exercise, item.keys, item.tempo))),
    ],
    [
      'xml',
      t('Notes to print (MusicXML, one file an exercise)'),
      () =>
        Promise.all(
          items.map(({ item, exercise }) =>
            downloadMusicXml(exercise, { keys: item.keys, tempo: item.tempo, sound: item.sound, voice: singer.voiceType }),
          ),
        ),
    ],
  ];
  const make = async (what: string, work: () => unknown) => {
    setBusy(what);
    setProblem(null);
    try {
      await work();
    } catch (error) {
      setProblem(saidOf(error));
    }
    setBusy('');
  };
  return (
    <>
      <Popover>
        <PopoverButton className="button">
          <Download aria-hidden size={18} /> {t('Take along')}
        </PopoverButton>
        <PopoverPanel anchor="bottom end" className={POPOVER}>
          <ul className="flex flex-col gap-1">
            {makes.map(([what, words, work]) => (
              <li key={what}>
                <button
                  className="button w-full justify-start text-left"
                  aria-disabled={busy !== ''}
                  onClick={() => busy === '' && void make(what, work)}
                >
                  {busy === what ? t('One moment …') : t(words)}
                </button>
              </li>
            ))}
          </ul>
          <ChooseAccompaniment chosen={accompaniment} onChoose={setAccompaniment} />
          {problem && <p role="alert">{t(problem)}</p>}
        </PopoverPanel>
      </Popover>
      <button className="button" onClick={() => window.print()}>
        <Printer aria-hidden size={18} /> {t('Print')}
      </button>
      <ForCoaches>
        <SendPage singer={singer} onLink={onLink} />
      </ForCoaches>
    </>
  );
}
