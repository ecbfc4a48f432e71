'use client';
import { useDroppable } from '@dnd-kit/core';
import { SortableContext, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { GripVertical, TriangleAlert, X } from 'lucide-react';
import { notesInWords } from '../../core/exercise/keys';
import { dayMinutes } from '../../core/plan/dose';
import type { Conflict, Planning } from '../../core/plan/check';
import { PART_WORDS } from '../../core/plan/text';
import { PlanItem } from '../../core/plan/types';
import { weekFrom } from './days';
import { useLanguage } from '../language/language';

interface Props {
  items: PlanItem[];
  p: Planning;
  startsOn: string;
  conflicts: Conflict[];
  selected: string | null;
  onSelect: (id: string) => void;
  onChange: (items: PlanItem[]) => void;
}

/** The week: a row an exercise in the order sung, a column a day, minutes of each day at the foot. */
export function WeekBoard({ items, p, startsOn, conflicts, selected, onSelect, onChange }: Props) {
  const { language, t } = useLanguage();
  const week = weekFrom(startsOn, language);
  const { setNodeRef } = useDroppable({ id: 'week' });
  const edit = (id: string, part: Partial<PlanItem>) => onChange(items.map((it) => (it.exerciseId === id ? { ...it, ...part } : it)));
  const move = (i: number, by: number) => {
    const to = Math.min(items.length - 1, Math.max(0, i + by));
    const next = [...items];
    next.splice(to, 0, ...next.splice(i, 1));
    if (to !== i) onChange(next);
  };
  return (
    <div ref={setNodeRef} className="flex min-w-0 flex-col">
      <div className="flex items-end gap-1 pr-10 pb-1 text-center text-xs font-bold text-soft max-sm:pl-7" aria-hidden>
        <span className="flex-1 max-sm:hidden" />
        {week.map((d, i) => (
          <span key={d.key} className={`w-7 ${i > 0 && d.monday ? 'border-l border-line' : ''}`} title={d.long}>
            {d.short}
          </span>
        ))}
        <span className="w-16">{t('min × day')}</span>
      </div>
      <SortableContext items={items.map((it) => it.exerciseId)} strategy={verticalListSortingStrategy}>
        <ol aria-label={t('The week')} className="flex min-h-24 flex-col gap-1">
          {items.map((item, i) => (
            <Row
              key={item.exerciseId}
              item={item}
              name={p.find(item.exerciseId)?.name ?? 'An exercise that is gone'}
              week={week}
              conflicts={conflicts.filter((c) => c.exerciseId === item.exerciseId)}
              selected={selected === item.exerciseId}
              onSelect={() => onSelect(item.exerciseId)}
              onEdit={(part) => edit(item.exerciseId, part)}
              onMove={(by) => move(i, by)}
              onRemove={() => onChange(items.filter((_, j) => j !== i))}
            />
          ))}
        </ol>
      </SortableContext>
      {items.length === 0 && (
        <p className="rounded-lg border-2 border-dashed border-line p-6 text-center text-soft">
          {t('Drag an exercise here, or press its + on the shelf.')}
        </p>
      )}
      <div className="mt-1 flex items-start gap-1 pr-10 text-center text-xs max-sm:flex-wrap max-sm:pl-7">
        <span className="flex-1 text-right text-soft max-sm:basis-full max-sm:text-left">
          {t('minutes a day, of {minutesADay}', { minutesADay: p.minutesADay })}
        </span>
        {week.map((d, i) => {
          const minutes = dayMinutes(items, i);
          const over = minutes > p.minutesADay;
          return (
            <span key={d.key} className="w-7" title={t('{long}: {minutes} minutes', { long: d.long, minutes })}>
              <span className="flex h-8 items-end justify-center" aria-hidden>
                <span
                  className={`w-4 rounded-t ${over ? 'bg-band' : 'bg-accent'}`}
                  style={{ height: `${Math.min(100, (100 * minutes) / Math.max(p.minutesADay, minutes, 1))}%`, opacity: over ? 1 : 0.55 }}
                />
              </span>
              <span className={`block ${over ? 'font-bold' : ''}`}>{Math.round(minutes)}</span>
            </span>
          );
        })}
        <span className="w-16" />
      </div>
    </div>
  );
}

function Row({
  item,
  name,
  week,
  conflicts,
  selected,
  onSelect,
  onEdit,
  onMove,
  onRemove,
}: {
  item: PlanItem;
  name: string;
  week: ReturnType<typeof weekFrom>;
  conflicts: Conflict[];
  selected: boolean;
  onSelect: () => void;
  onEdit: (part: Partial<PlanItem>) => void;
  onMove: (by: number) => void;
  onRemove: () => void;
}) {
  const { t } = useLanguage();
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id: item.exerciseId,
  });
  const toggle = (day: number) =>
    onEdit({ days: item.days.includes(day) ? item.days.filter((d) => d !== day) : [...item.days, day].sort((a, b) => a - b) });
  const onKey = (event: React.KeyboardEvent) => {
    const day = Number(event.key) - 1;
    if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) onMove(event.key === 'ArrowUp' ? -1 : 1);
    else if (event.key === 'Delete' || event.key === 'Backspace') onRemove();
    else if (day >= 0 && day < week.length && !event.ctrlKey && !event.metaKey) toggle(day);
    else return;
    event.preventDefault();
  };
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Transform.toString(transform), transition }}
      className={`flex items-center gap-1 rounded-lg border bg-card max-sm:flex-wrap ${selected ? 'border-accent' : 'border-line'} ${isDragging ? 'z-10 opacity-70' : ''}`}
      data-testid="item"
    >
      <button
        ref={setActivatorNodeRef}
        className="grid min-h-11 w-6 cursor-grab touch-none place-items-center text-soft"
        {...attributes}
        {...listeners}
        aria-label={t('Move {name}', { name })}
        title={t('Drag; or press Space, then the arrows')}
      >
        <GripVertical aria-hidden size={16} />
      </button>
      <button
        className="min-h-11 min-w-0 flex-1 py-0.5 text-left leading-tight max-sm:basis-2/3"
        aria-current={selected}
        onClick={onSelect}
        onKeyDown={onKey}
        title={t('Enter shows it; 1 to 7 switch its days; Alt and the arrows move it; Delete takes it out')}
      >
        <span className="flex items-center gap-1 text-sm font-semibold">
          {conflicts.length > 0 && <TriangleAlert aria-hidden size={15} className="shrink-0 text-band" />}
          <span>{t(name)}</span>
        </span>
        <span className="block text-xs text-soft">
          {conflicts.length > 0
            ? t(conflicts[0].says)
            : t('{part} · “{sound}” · {keys}', { part: PART_WORDS[item.part], sound: item.sound, keys: notesInWords(item.keys) })}
        </span>
      </button>
      <span role="group" aria-label={t('Days of {name}', { name })} className="flex gap-1 max-sm:order-1 max-sm:pl-7">
        {week.map((d, i) => {
          const on = item.days.includes(i);
          return (
            <button
              key={d.key}
              tabIndex={-1}
              aria-pressed={on}
              aria-label={t('{name} on {long}', { name, long: d.long })}
              title={d.long}
              onClick={() => toggle(i)}
              className={`min-h-11 w-7 rounded-md border ${on ? 'border-accent text-accent' : 'border-line text-soft'}`}
            >
              {on ? '●' : '·'}
            </button>
          );
        })}
      </span>
      <span className="w-16 text-center text-sm tabular-nums max-sm:order-1">
        {t('{minutes} × {times}', { minutes: item.minutes, times: item.timesADay })}
      </span>
      <button className="grid min-h-11 w-9 place-items-center text-soft" aria-label={t('Take {name} out', { name })} onClick={onRemove}>
        <X aria-hidden size={16} />
      </button>
    </li>
  );
}
