import {
  closestCenter,
  CollisionDetection,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  pointerWithin,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { ArrowLeft, ArrowRight, GripVertical } from 'lucide-react';
import { useId } from 'react';
import type { RoadDate } from '../../core/plan/dates';
import { dayLater } from '../../core/plan/days';
import { RoadWeek } from '../../core/plan/road';
import { DAYS_A_WEEK, isWork } from '../../core/plan/types';
import { said, type Said, type SaidValue } from '../../core/words/said';
import { dateName } from './date-words';
import { useMayChange } from '../kit/may-change';
import { useLanguage } from '../language/language';

/** The hand has moved so far before a card goes with it. */
const DRAG_PX = 6;

/** The week under the hand; by keyboard, or between the cards, the nearest. */
const weekUnder: CollisionDetection = (args) => {
  const within = pointerWithin(args);
  return within.length > 0 ? within : closestCenter(args);
};

/** What of the road is taken to another week: where a phase begins, or a date. */
const PHASE = 'phase';
const DATE = 'date';

/**
 * The weeks one after another. Where a phase begins, and each date, has a grip by which it is dragged to another week, and arrows that move
 * it there.
 */
export function RoadWeeks({
  weeks,
  label,
  name,
  dates,
  onShift,
  onDate,
}: {
  weeks: readonly RoadWeek[];
  label: string;
  name: (id: string) => string;
  dates: readonly RoadDate[];
  onShift: (begins: number, to: number) => void;
  /** A date, by its place among them, goes so many weeks on. */
  onDate: (index: number, weeks: number) => void;
}) {
  const id = useId();
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: DRAG_PX } }), useSensor(KeyboardSensor));
  const mayChange = useMayChange();
  return (
    <DndContext
      id={id}
      sensors={sensors}
      collisionDetection={weekUnder}
      onDragEnd={({ active, over }) => {
        const { kind, week, index } = active.data.current as Moved;
        const to = Number(over?.id ?? week);
        if (to === week) return;
        if (kind === PHASE) onShift(week, to);
        else onDate(index, to - week);
      }}
    >
      <ol className="grid grid-cols-1 gap-2 sm:grid-cols-2 print:grid-cols-2 print:gap-1" aria-label={label} data-testid="road">
        {weeks.map((w, i) => (
          <Week
            key={w.number}
            week={w}
            name={name}
            begins={i > 0 && weeks[i - 1].phase.id !== w.phase.id}
            dates={dates.map((date, index) => ({ date, index })).filter(({ date }) => inWeek(date.day, w.startsOn))}
            onShift={mayChange ? (by) => onShift(w.number, w.number + by) : null}
            onDate={mayChange ? onDate : null}
          />
        ))}
      </ol>
    </DndContext>
  );
}

interface Moved {
  kind: typeof PHASE | typeof DATE;
  /** The week it is in, and a date's place among the dates. */
  week: number;
  index: number;
}

const inWeek = (day: string, startsOn: string) => day >= startsOn && day < dayLater(startsOn, DAYS_A_WEEK);

function Week({
  week: w,
  name,
  begins,
  dates,
  onShift,
  onDate,
}: {
  week: RoadWeek;
  name: (id: string) => string;
  /** Whether a phase begins in it. */
  begins: boolean;
  /** The dates that lie in it. */
  dates: { date: RoadDate; index: number }[];
  onShift: ((by: 1 | -1) => void) | null;
  onDate: ((index: number, weeks: number) => void) | null;
}) {
  const { dateOf, t } = useLanguage();
  const work = w.items.filter(isWork).map((it) => name(it.exerciseId));
  const { setNodeRef, isOver } = useDroppable({ id: w.number });
  return (
    <li ref={setNodeRef} className="min-w-0 print:break-inside-avoid">
      <div className={`relative h-full rounded-lg border bg-card p-2 print:p-1 ${isOver ? 'border-accent' : 'border-line'}`}>
        <p className="flex items-baseline gap-2">
          <b>{t('Week {number}', { number: w.number })}</b>
          <span className="flex-1 text-soft">
            {dateOf(w.startsOn)} · {t(w.phase.name)}
          </span>
          <span title={t('Share of the minutes agreed')}>{Math.round(w.load * 100)} %</span>
        </p>
        {begins && onShift && (
          <Movable
            moved={{ kind: PHASE, week: w.number, index: 0 }}
            says={said('{name} begins', { name: w.phase.name })}
            grip={said('{name} begins in week {number}: drag it to another', { name: w.phase.name, number: w.number })}
            name={w.phase.name}
            onMove={onShift}
          />
        )}
        {onDate &&
          dates.map(({ date, index }) => (
            <Movable
              key={index}
              moved={{ kind: DATE, week: w.number, index }}
              says={said('{day} {name}', { name: dateName(date), day: { own: dateOf(date.day) } })}
              grip={said('{name} is in week {number}: drag it to another', { name: dateName(date), number: w.number })}
              name={dateName(date)}
              onMove={(by) => onDate(index, by)}
            />
          ))}
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
          <p key={d.day + t(d.because)}>
            <b>{dateOf(d.day)}</b> {t(d.because)}
          </p>
        ))}
      </div>
    </li>
  );
}

/** Something of a week with its grip and its arrows. */
function Movable({
  moved,
  says,
  grip,
  name,
  onMove,
}: {
  moved: Moved;
  says: Said;
  grip: Said;
  name: SaidValue;
  onMove: (by: 1 | -1) => void;
}) {
  const { t } = useLanguage();
  const { setNodeRef, attributes, listeners, transform } = useDraggable({ id: `${moved.kind} ${moved.week} ${moved.index}`, data: moved });
  const style = transform ? { transform: `translate(${transform.x}px, ${transform.y}px)`, zIndex: 1 } : undefined;
  return (
    <p className="flex items-center gap-1 print:hidden">
      <button
        ref={setNodeRef}
        style={style}
        className={`button-small relative min-w-0 cursor-grab touch-none ${transform ? 'border-accent' : ''}`}
        aria-label={t(grip)}
        {...attributes}
        {...listeners}
      >
        <GripVertical aria-hidden size={16} className="shrink-0" /> <span className="text-left">{t(says)}</span>
      </button>
      <button className="button-small" aria-label={t('{name} a week earlier', { name })} onClick={() => onMove(-1)}>
        <ArrowLeft aria-hidden size={16} />
      </button>
      <button className="button-small" aria-label={t('{name} a week later', { name })} onClick={() => onMove(1)}>
        <ArrowRight aria-hidden size={16} />
      </button>
    </p>
  );
}
