'use client';
import type { Said } from '../../core/words/said';
import { useDraggable } from '@dnd-kit/core';
import { GripVertical, Plus } from 'lucide-react';
import { useMemo, useState } from 'react';
import type { Exercise } from '../../core/exercise/types';
import { blocked, Planning } from '../../core/plan/check';
import { STRAND_WORDS, weightWords } from '../kit/words-of-work';
import { useInTwoParts } from '../kit/useInTwoParts';
import { ANYTHING, filtered } from './filter';
import { ShelfFilter } from './ShelfFilter';
import { useLanguage } from '../language/language';

/** More than are seen of the list before it scrolls. */
const FIRST_CARDS = 12;

/** The shelf beside the week: what is looked for, what suits this voice first; taken by drag, or by its button. */
export function ShelfPanel({ p, taken, onAdd }: { p: Planning; taken: ReadonlySet<string>; onAdd: (exercise: Exercise) => void }) {
  const { t } = useLanguage();
  const [filter, setFilter] = useState(ANYTHING);
  const cards = useInTwoParts(FIRST_CARDS);
  const shown = useMemo(
    () =>
      filtered(p.shelf, filter)
        .filter((e) => !taken.has(e.id))
        .map((e) => ({ e, block: blocked(e, p) }))
        .sort((a, b) => Number(Boolean(a.block)) - Number(Boolean(b.block)) || a.e.grade - b.e.grade),
    [p, filter, taken],
  );
  return (
    <section aria-label={t('Shelf')} className="flex min-h-0 flex-1 flex-col gap-2">
      <ShelfFilter filter={filter} onChange={setFilter} />
      <p className="text-sm text-soft" aria-live="polite">
        {t('{n, plural, one {# exercise} other {# exercises}}', { n: shown.length })}
      </p>
      {/* A list that scrolls must be reachable by keyboard: its buttons are. */}
      <ul className="flex max-h-[30rem] min-h-0 flex-col gap-1 overflow-y-auto pr-1 lg:max-h-none lg:flex-1 lg:basis-0">
        {shown.slice(0, cards).map(({ e, block }) => (
          <Card key={e.id} exercise={e} why={block?.says ?? null} onAdd={() => onAdd(e)} />
        ))}
      </ul>
    </section>
  );
}

function Card({ exercise, why, onAdd }: { exercise: Exercise; why: Said | null; onAdd: () => void }) {
  const { t } = useLanguage();
  const { attributes, listeners, setNodeRef, isDragging } = useDraggable({ id: `shelf:${exercise.id}` });
  return (
    <li
      ref={setNodeRef}
      className={`flex items-center gap-1 rounded-lg border border-line bg-card py-0.5 pr-0.5 ${isDragging ? 'opacity-40' : ''}`}
      title={t(why ?? exercise.purpose)}
      data-testid="shelf-card"
    >
      <span
        className="grid min-h-11 w-6 cursor-grab touch-none place-items-center text-soft"
        {...listeners}
        {...attributes}
        role="presentation"
        tabIndex={-1}
        aria-hidden
      >
        <GripVertical size={16} />
      </span>
      <span className="min-w-0 flex-1 leading-tight">
        <span className={`block text-sm font-semibold ${why ? 'text-soft' : ''}`}>{t(exercise.name)}</span>
        <span className="block text-xs text-soft">
          {why
            ? t(why)
            : [`${t(STRAND_WORDS[exercise.strand])} ${exercise.grade}`, exercise.weight && t(weightWords(exercise.weight))]
                .filter(Boolean)
                .join(' · ')}
        </span>
      </span>
      <button className="button-small min-h-11 min-w-11" aria-label={t('Add {name}', { name: exercise.name })} onClick={onAdd}>
        <Plus aria-hidden size={18} />
      </button>
    </li>
  );
}
