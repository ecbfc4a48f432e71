import { closestCenter, DndContext, KeyboardSensor, PointerSensor, useDraggable, useDroppable, useSensor, useSensors } from '@dnd-kit/core';
import { ArrowLeft, ArrowRight, GripVertical } from 'lucide-react';
import { useId } from 'react';
import { RoadWeek } from '../../core/plan/road';
import { isWork } from '../../core/plan/types';
import { useMayChange } from '../kit/may-change';
import { useLanguage } from '../language/language';

/** The hand has moved so far before a card goes with it. */
const DRAG_PX = 6;

/** The weeks one after another. Where a phase begins its card is dragged, or moved by its arrows, to the week in which it is to begin. */
export function RoadWeeks({
  weeks,
  label,
  name,
  onShift,
}: {
  weeks: readonly RoadWeek[];
  label: string;
  name: (id: string) => string;
  onShift: (begins: number, to: number) => void;
}) {
  const id = useId();
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: DRAG_PX } }), useSensor(KeyboardSensor));
  const mayChange = useMayChange();
  return (
    <DndContext
      id={id}
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={({ active, over }) => over && over.id !== active.id && onShift(Number(active.id), Number(over.id))}
    >
      <ol className="grid gap-2 sm:grid-cols-2 print:grid-cols-2 print:gap-1" aria-label={label} data-testid="road">
        {weeks.map((w, i) => (
          <Week
            key={w.number}
            week={w}
            name={name}
            begins={i > 0 && weeks[i - 1].phase.id !== w.phase.id}
            onShift={mayChange ? (by) => onShift(w.number, w.number + by) : null}
          />
        ))}
      </ol>
    </DndContext>
  );
}

function Week({
  week: w,
  name,
  begins,
  onShift,
}: {
  week: RoadWeek;
  name: (id: string) => string;
  /** Whether a phase begins in it. */
  begins: boolean;
  onShift: ((by: 1 | -1) => void) | null;
}) {
  const { dateOf, t } = useLanguage();
  const work = w.items.filter(isWork).map((it) => name(it.exerciseId));
  const { setNodeRef: setDrop, isOver } = useDroppable({ id: w.number });
  const {
    setNodeRef: setDrag,
    attributes,
    listeners,
    transform,
    isDragging,
  } = useDraggable({ id: w.number, disabled: !begins || !onShift });
  const style = transform ? { transform: `translate(${transform.x}px, ${transform.y}px)`, zIndex: 1 } : undefined;
  return (
    <li ref={setDrop} className="print:break-inside-avoid">
      <div
        ref={setDrag}
        style={style}
        className={`relative h-full rounded-lg border bg-card p-2 print:p-1 ${isDragging || isOver ? 'border-accent' : 'border-line'}`}
      >
        <p className="flex items-baseline gap-2">
          <b>{t('Week {number}', { number: w.number })}</b>
          <span className="flex-1 text-soft">
            {dateOf(w.startsOn)} · {t(w.phase.name)}
          </span>
          <span title={t('Share of the minutes agreed')}>{Math.round(w.load * 100)} %</span>
        </p>
        {begins && onShift && (
          <p className="flex items-center gap-1 print:hidden">
            <button
              className="button-small cursor-grab touch-none"
              aria-label={t('{name} begins in week {number}: drag it to another', { name: w.phase.name, number: w.number })}
              {...attributes}
              {...listeners}
            >
              <GripVertical aria-hidden size={16} /> {t('{name} begins', { name: w.phase.name })}
            </button>
            <button className="button-small" aria-label={t('{name} a week earlier', { name: w.phase.name })} onClick={() => onShift(-1)}>
              <ArrowLeft aria-hidden size={16} />
            </button>
            <button className="button-small" aria-label={t('{name} a week later', { name: w.phase.name })} onClick={() => onShift(1)}>
              <ArrowRight aria-hidden size={16} />
            </button>
          </p>
        )}
        <div className="my-1 h-1.5 rounded bg-line print:hidden" aria-hidden>
          <div className="h-1.5 rounded bg-accent" style={{ width: `${w.load * 100}%` }} />
        </div>
        <p>{work.map((name) => t(name)).join(', ')}</p>
        {w.comesIn.length > 0 && <p className="text-soft">{t('New: {names}', { names: w.comesIn.map(name).join(', ') })}</p>}
        {w.songs.map((s) => (
          <p key={s.titles.join()} data-testid="road-songs">
            <b>{s.titles.join(', ')}</b>: {t(s.says)}
          </p>
        ))}
        {(w.test || w.listening) && (
          <p className="text-soft">{[w.test && t('Test'), w.listening && t('Listen again')].filter(Boolean).join(' · ')}</p>
        )}
        {w.because.map((why) => (
          <p key={t(why)} className="text-soft">
            {t(why)}
          </p>
        ))}
        {w.days.map((d) => (
          <p key={d.day + d.because}>
            <b>{dateOf(d.day)}</b> {t(d.because)}
          </p>
        ))}
      </div>
    </li>
  );
}
