'use client';
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { Plus, SlidersHorizontal, X } from 'lucide-react';
import { MATERIAL_WORDS, MATERIALS } from '../../core/exercise/types';
import { SCHOOLS, SchoolId } from '../../core/map/schools';
import { inPhase, type Terms } from '../../core/plan/request';
import type { Phase } from '../../core/plan/types';
import { KINDS, strawName } from '../../core/straw/choose';
import { isSameStraw } from '../../core/straw/flow';
import { POPOVER } from '../kit/popover';
import { dayKey } from './days';
import { useLanguage } from '../language/language';

const MINUTES = [5, 10, 15, 20, 25, 30, 45, 60];
const SELECT = 'field min-h-11 min-w-0 px-2';

/** What the plan is made from besides the map: minutes, phase, school, and what is at hand. */
export function TermsBar({
  terms,
  phases,
  phase,
  school,
  onTerms,
  onSchool,
}: {
  terms: Terms;
  phases: readonly Phase[];
  /** The phase the singer is in, 0 the first. */
  phase: number;
  school: SchoolId;
  onTerms: (terms: Terms) => void;
  onSchool: (school: SchoolId) => void;
}) {
  const { t } = useLanguage();
  return (
    <div className="flex flex-wrap items-end gap-2">
      <label className="flex flex-col text-xs text-soft">
        {t('Minutes a day')}
        <select className={SELECT} value={terms.minutesADay} onChange={(e) => onTerms({ ...terms, minutesADay: Number(e.target.value) })}>
          {[...new Set([...MINUTES, terms.minutesADay])]
            .sort((a, b) => a - b)
            .map((m) => (
              <option key={m}>{m}</option>
            ))}
        </select>
      </label>
      <label className="flex flex-col text-xs text-soft">
        {t('Phase')}
        <select className={SELECT} value={phase} onChange={(e) => onTerms(inPhase(terms, phases, Number(e.target.value)))}>
          {phases.map((ph, i) => (
            <option key={ph.id} value={i}>
              {t('{n}. {name} ({least}–{most} weeks)', { n: i + 1, name: ph.name, least: ph.weeks[0], most: ph.weeks[1] })}
            </option>
          ))}
        </select>
      </label>
      <label className="flex min-w-0 flex-col text-xs text-soft">
        {t('Taught as')}
        <select className={`${SELECT} max-w-56`} value={school} onChange={(e) => onSchool(e.target.value as SchoolId)}>
          {SCHOOLS.map((s) => (
            <option key={s.id} value={s.id}>
              {t(s.name)}
            </option>
          ))}
        </select>
      </label>
      <Popover>
        <PopoverButton className="button px-3">
          <SlidersHorizontal aria-hidden size={18} /> {t('At hand')}
        </PopoverButton>
        <PopoverPanel anchor="bottom start" className={POPOVER}>
          <AtHand terms={terms} onTerms={onTerms} />
        </PopoverPanel>
      </Popover>
    </div>
  );
}

function AtHand({ terms, onTerms }: { terms: Terms; onTerms: (terms: Terms) => void }) {
  const { t } = useLanguage();
  const change = (i: number, count: number) =>
    onTerms({ ...terms, straws: terms.straws.map((s, j) => (j === i ? { ...s, count } : s)).filter((s) => s.count > 0) });
  return (
    <div className="flex flex-col gap-2">
      {MATERIALS.map((m) => (
        <label key={m} className="flex min-h-9 items-center gap-2">
          <input
            type="checkbox"
            className="size-5"
            checked={terms.materials.includes(m)}
            onChange={(e) =>
              onTerms({ ...terms, materials: e.target.checked ? [...terms.materials, m] : terms.materials.filter((x) => x !== m) })
            }
          />
          {t(MATERIAL_WORDS[m])}
        </label>
      ))}
      <label className="flex flex-col gap-1 text-sm">
        {t('Belting, minutes a week at most (empty: no limit)')}
        <input
          className="field"
          type="number"
          min={0}
          max={120}
          value={terms.beltMinutes ?? ''}
          onChange={({ target: { value } }) =>
            onTerms({ ...terms, beltMinutes: value === '' ? undefined : Math.min(120, Math.max(0, Math.round(Number(value)))) })
          }
        />
      </label>
      <label className="flex min-h-9 items-start gap-2 text-sm">
        <input
          type="checkbox"
          className="mt-0.5 size-5 shrink-0"
          checked={terms.trial !== undefined}
          onChange={(e) =>
            onTerms({ ...terms, trial: e.target.checked ? { id: crypto.randomUUID(), begun: dayKey(new Date()) } : undefined })
          }
        />
        {t('A trial of one on the phone: what straw and humming do to this voice’s leap, five minutes a day for 18 days or 36')}
      </label>
      <p className="font-semibold">{t('The singer’s own straws')}</p>
      <ul className="flex flex-col gap-1">
        {terms.straws.map((straw, i) => (
          <li key={t(strawName(straw))} className="flex items-center gap-1 text-sm">
            <span className="flex-1">
              {straw.count} × {t(strawName(straw))}
            </span>
            <button
              className="button-small"
              aria-label={t('One more {straw}', { straw: strawName(straw) })}
              onClick={() => change(i, straw.count + 1)}
            >
              <Plus aria-hidden size={16} />
            </button>
            <button
              className="button-small"
              aria-label={t('One {straw} less', { straw: strawName(straw) })}
              onClick={() => change(i, straw.count - 1)}
            >
              <X aria-hidden size={16} />
            </button>
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap gap-1">
        {KINDS.filter((k) => !terms.straws.some((s) => isSameStraw(s, k))).map((k) => (
          <button
            key={k.id}
            className="button-small min-h-11"
            onClick={() => onTerms({ ...terms, straws: [...terms.straws, { diameterMm: k.diameterMm, lengthMm: k.lengthMm, count: 1 }] })}
          >
            <Plus aria-hidden size={16} /> {t(k.name)}
          </button>
        ))}
      </div>
      <p className="text-sm text-soft">{t('Straw work then says which to take: a comfortable one, narrower as the straw grade rises.')}</p>
    </div>
  );
}
