'use client';
import { FileText } from 'lucide-react';
import { useState } from 'react';
import type { Chapter } from '../../core/practice/chapters';
import { DayLog } from '../../core/practice/log';
import { DayMeasures } from '../../core/practice/measures';
import { download, fileName } from '../kit/download';
import { reportPdf } from './report-pdf';
import { useLanguage } from '../language/language';

/** One page to give away: with a word of the coach's own. */
export function Report({
  name,
  days,
  measured,
  chapters,
  now,
}: {
  name: string;
  days: DayLog[];
  measured: DayMeasures[];
  chapters: Chapter[];
  now: number;
}) {
  const language = useLanguage();
  const { t } = language;
  const [word, setWord] = useState('');
  return (
    <form
      className="flex flex-wrap items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        void reportPdf({ name, days, measured, chapters, now, word }, language).then((pdf) =>
          download(fileName(`${name} report`, 'pdf'), pdf),
        );
      }}
    >
      <label className="flex min-w-0 flex-1 flex-col text-sm text-soft">
        {t('A word for the report (optional)')}
        <input className="field text-base" value={word} maxLength={600} onChange={(e) => setWord(e.target.value)} />
      </label>
      <button className="button">
        <FileText aria-hidden size={18} /> {t('Report (PDF)')}
      </button>
    </form>
  );
}
