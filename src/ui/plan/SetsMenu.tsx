'use client';
import { said, SaidValue, texts, Said } from '../../core/words/said';
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { Layers, Trash2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { fitted } from '../../core/plan/arrange';
import { compare } from '../../core/plan/edits';
import type { Planning } from '../../core/plan/check';
import { occasionSets } from '../../core/plan/occasions';
import type { PlanItem } from '../../core/plan/types';
import { DifferenceList } from './DifferenceList';
import { POPOVER } from '../kit/popover';
import { ask } from '../../sync/ask';
import { useLanguage } from '../language/language';
import { saidOf } from '../../core/words/said-error';

interface Named {
  id: string;
  name: string;
  items: PlanItem[];
}

const GONE = texts('an exercise that is gone');

interface Props {
  items: PlanItem[];
  p: Planning;
  templates: Named[];
  others: { id: string; singer: string }[];
  assigned: { id: string; createdAt: Date; items: PlanItem[] }[];
  onItems: (items: PlanItem[], said: string) => void;
  onProblem: (problem: Said) => void;
}

/** Sets from elsewhere: kept ones, another singer's, an earlier week's; each fitted to this voice, or laid beside it. */
export function SetsMenu({ items, p, templates, others, assigned, onItems, onProblem }: Props) {
  const { dateOf, t } = useLanguage();
  const [kept, setKept] = useState(templates);
  const [name, setName] = useState('');
  const [beside, setBeside] = useState('');
  const nameOf = (id: string) => p.find(id)?.name ?? GONE;
  const take = (from: PlanItem[], whose: SaidValue) => {
    const { items: here, without } = fitted(from, p);
    onItems(
      here,
      without.length
        ? t('{whose}, in this voice’s keys; without {names}, which doesn’t fit.', {
            whose,
            names: { all: without.map(nameOf), as: 'comma' },
          })
        : t('{whose}, in this voice’s keys.', { whose }),
    );
  };
  const doing = async (work: () => Promise<void>) => {
    try {
      await work();
    } catch (error) {
      onProblem(saidOf(error));
    }
  };
  const occasions = useMemo(() => occasionSets(p), [p]);
  const earlier = assigned.find((a) => a.id === beside);
  return (
    <Popover>
      <PopoverButton className="button px-3">
        <Layers aria-hidden size={18} /> {t('Sets')}
      </PopoverButton>
      <PopoverPanel anchor="bottom end" className={POPOVER}>
        <div className="flex flex-col gap-3">
          <form
            className="flex gap-1"
            onSubmit={(e) => {
              e.preventDefault();
              void doing(async () => {
                const made = { id: crypto.randomUUID(), name: name.trim(), items };
                await ask('PUT /api/templates/[templateId]', { params: { templateId: made.id }, body: made });
                setKept([...kept, made]);
                setName('');
              });
            }}
          >
            <input
              className="field min-w-0 flex-1"
              placeholder={t('Keep this set as …')}
              aria-label={t('Name to keep this set under')}
              value={name}
              maxLength={80}
              onChange={(e) => setName(e.target.value)}
            />
            <button className="button px-3" disabled={!name.trim() || items.length === 0}>
              {t('Keep')}
            </button>
          </form>
          {kept.length > 0 && (
            <ul aria-label={t('Kept sets')} className="flex flex-col gap-1">
              {kept.map((set) => (
                <li key={set.id} className="flex gap-1">
                  <button className="button min-w-0 flex-1 justify-start px-3" onClick={() => take(set.items, { own: set.name })}>
                    <span className="truncate">{set.name}</span>
                  </button>
                  <button
                    className="button px-3"
                    aria-label={t('Throw {name} away', { name: { own: set.name } })}
                    onClick={() =>
                      void doing(async () => {
                        await ask('DELETE /api/templates/[templateId]', { params: { templateId: set.id } });
                        setKept(kept.filter((x) => x.id !== set.id));
                      })
                    }
                  >
                    <Trash2 aria-hidden size={16} />
                  </button>
                </li>
              ))}
            </ul>
          )}
          <label className="flex flex-col text-sm text-soft">
            {t('A warm-up, or a set for an occasion')}
            <select
              className="field"
              value=""
              onChange={(e) => {
                const set = occasions.find((s) => s.id === e.target.value);
                if (set) onItems(set.items, t('{name}: {says}', { name: set.name, says: set.says }));
              }}
            >
              <option value="">{t('choose …')}</option>
              {occasions.map((s) => (
                <option key={s.id} value={s.id}>
                  {t('{name} ({minutes} min)', { name: s.name, minutes: s.minutes })}
                </option>
              ))}
            </select>
          </label>
          {others.length > 0 && (
            <label className="flex flex-col text-sm text-soft">
              {t('Copy another singer’s newest week')}
              <select
                className="field"
                value=""
                onChange={(e) => {
                  const other = others.find((o) => o.id === e.target.value);
                  if (other)
                    void doing(async () => {
                      const got = await ask('GET /api/assignments/[assignmentId]', { params: { assignmentId: other.id } });
                      take(got.items, said('{singer}’s week', { singer: { own: other.singer } }));
                    });
                }}
              >
                <option value="">{t('choose …')}</option>
                {others.map((o) => (
                  <option key={o.id} value={o.id}>
                    {o.singer}
                  </option>
                ))}
              </select>
            </label>
          )}
          {assigned.length > 0 && (
            <label className="flex flex-col text-sm text-soft">
              {t('Lay an earlier week beside this one')}
              <select className="field" value={beside} onChange={(e) => setBeside(e.target.value)}>
                <option value="">{t('choose …')}</option>
                {assigned.map((a) => (
                  <option key={a.id} value={a.id}>
                    {t('{createdAt}: {length} exercises', { createdAt: dateOf(a.createdAt), length: a.items.length })}
                  </option>
                ))}
              </select>
            </label>
          )}
          {earlier && <DifferenceList differences={compare(earlier.items, items)} before={earlier.items} after={items} name={nameOf} />}
        </div>
      </PopoverPanel>
    </Popover>
  );
}
