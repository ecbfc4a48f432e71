'use client';
import { useState } from 'react';
import { ELSEWHERE, elsewhereInWords } from '../../core/practice/elsewhere';
import { Elsewhere, ELSEWHERE_IDS, ElsewhereId, Entry } from '../../core/practice/types';
import { WhenAndHowLong } from './WhenAndHowLong';
import { useLanguage } from '../language/language';

const MINUTES = [15, 30, 45, 60, 90, 120, 180, 240, 360];

/** Rehearsal, choir, a show, teaching: what else the voice did on a day, told by the singer. */
export function SangElsewhere({
  today,
  told,
  onTell,
}: {
  today: string;
  /** What was told of today and yesterday. */
  told: readonly (Entry & { what: Elsewhere })[];
  onTell: (what: Elsewhere, day: string) => void;
}) {
  const { t } = useLanguage();
  const [where, setWhere] = useState<ElsewhereId>('rehearsal');
  const [minutes, setMinutes] = useState(60);
  const [day, setDay] = useState(today);
  return (
    <details>
      <summary className="min-h-11 cursor-pointer content-center font-semibold">{t('Sang elsewhere?')}</summary>
      {told.length > 0 && (
        <ul aria-label={t('Told of today and yesterday')} className="mb-2 flex flex-col gap-1">
          {told.map(({ id, day: of, what }) => (
            <li key={id} className="flex items-center gap-2">
              <span className="flex-1">
                {of === today ? t('Today') : t('Yesterday')}: {t(elsewhereInWords(what))}
              </span>
              <button
                className="button-small min-h-11"
                aria-label={t('Told by mistake: {what}', { what: elsewhereInWords(what) })}
                onClick={() => onTell({ ...what, minutes: 0, instead: id }, of)}
              >
                {t('By mistake')}
              </button>
            </li>
          ))}
        </ul>
      )}
      <form
        aria-label={t('Sang elsewhere')}
        className="flex flex-col gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          onTell({ kind: 'elsewhere', where, minutes }, day);
        }}
      >
        <label className="flex flex-col text-sm text-soft">
          {t('What')}
          <select className="field text-base" value={where} onChange={(e) => setWhere(e.target.value as ElsewhereId)}>
            {ELSEWHERE_IDS.map((id) => (
              <option key={id} value={id}>
                {t(ELSEWHERE[id].name)}
              </option>
            ))}
          </select>
        </label>
        <WhenAndHowLong choices={MINUTES} minutes={minutes} onMinutes={setMinutes} day={day} today={today} onDay={setDay} />
        <button className="button">{t('Tell it')}</button>
      </form>
    </details>
  );
}
