'use client';
import { closestCenter, DndContext, DragEndEvent, KeyboardSensor, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { arrayMove, SortableContext, sortableKeyboardCoordinates, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { GripVertical, X } from 'lucide-react';
import { useId } from 'react';
import { ownId } from '../../core/lesson/course';
import { STEPS } from '../../core/lesson/protocols';
import type { LessonStep } from '../../core/lesson/types';
import { VOWELS } from '../listen/what-to-sing';
import { useLanguage } from '../language/language';

/** The steps of a lesson: dragged, or moved by keys (Space to pick up, arrows to move); each with its vowel, pace and length. */
export function ProtocolSteps({ steps, onChange }: { steps: LessonStep[]; onChange: (steps: LessonStep[]) => void }) {
  const { t } = useLanguage();
  const dnd = useId();
  const sensors = useSensors(useSensor(PointerSensor), useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }));
  const moved = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    const at = (id: unknown) => steps.findIndex((s) => s.id === id);
    onChange(arrayMove(steps, at(active.id), at(over.id)));
  };
  return (
    <>
      <DndContext id={dnd} sensors={sensors} collisionDetection={closestCenter} onDragEnd={moved}>
        <SortableContext items={steps} strategy={verticalListSortingStrategy}>
          <ol aria-label={t('Steps')} className="flex flex-col gap-2">
            {steps.map((step) => (
              <Row
                key={step.id}
                step={step}
                onChange={(next) => onChange(steps.map((s) => (s.id === step.id ? next : s)))}
                onRemove={() => onChange(steps.filter((s) => s.id !== step.id))}
              />
            ))}
          </ol>
        </SortableContext>
      </DndContext>
      <label className="flex flex-col gap-1 text-sm text-soft">
        {t('Add a step')}
        <select
          className="field text-base"
          value=""
          onChange={(e) => e.target.value && onChange([...steps, { ...STEPS[e.target.value], id: ownId(e.target.value, steps) }])}
        >
          <option value="">{t('choose …')}</option>
          {Object.values(STEPS).map((s) => (
            <option key={s.id} value={s.id}>
              {t(s.name)}
            </option>
          ))}
        </select>
      </label>
    </>
  );
}

function Row({ step, onChange, onRemove }: { step: LessonStep; onChange: (step: LessonStep) => void; onRemove: () => void }) {
  const { t } = useLanguage();
  const { attributes, listeners, setNodeRef, transform, transition } = useSortable({ id: step.id });
  const number = (value: string, least: number, most: number) => Math.min(most, Math.max(least, Math.round(Number(value)) || least));
  const small = 'field w-20 px-2';
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Transform.toString(transform), transition }}
      className="card flex flex-wrap items-end gap-3 p-3"
      data-testid="step"
    >
      <button
        className="button-small min-h-11 min-w-11 cursor-grab self-center"
        aria-label={t('Move {name}', { name: step.name })}
        {...attributes}
        {...listeners}
      >
        <GripVertical aria-hidden size={18} />
      </button>
      <span className="min-w-40 flex-1 self-center font-bold">{t(step.name)}</span>
      {step.vowel && (
        <label className="flex flex-col text-sm text-soft">
          {t('Vowel')}
          <select className={`${small} text-ink`} value={step.vowel} onChange={(e) => onChange({ ...step, vowel: e.target.value })}>
            {VOWELS.map((v) => (
              <option key={v}>{v}</option>
            ))}
          </select>
        </label>
      )}
      {step.degrees && (
        <label className="flex flex-col text-sm text-soft">
          {t('Tempo')}
          <input
            className={`${small} text-ink`}
            type="number"
            min={40}
            max={200}
            value={step.tempo}
            onChange={(e) => onChange({ ...step, tempo: number(e.target.value, 40, 200) })}
          />
        </label>
      )}
      {step.keys && !step.colours ? (
        <label className="flex flex-col text-sm text-soft">
          {t('Keys')}
          <select
            className="field px-2 text-ink"
            value={String(step.keys.until)}
            onChange={(e) =>
              onChange({ ...step, keys: { ...step.keys!, until: e.target.value === 'stop' ? 'stop' : Number(e.target.value) } })
            }
          >
            <option value="stop">{t('until the voice says stop')}</option>
            {[1, 2, 3, 4, 5, 6, 8, 10, 12].map((n) => (
              <option key={n} value={n}>
                {n}
              </option>
            ))}
          </select>
        </label>
      ) : (
        !step.colours && (
          <label className="flex flex-col text-sm text-soft">
            {t('Times')}
            <input
              className={`${small} text-ink`}
              type="number"
              min={1}
              max={12}
              value={step.times}
              onChange={(e) => onChange({ ...step, times: number(e.target.value, 1, 12) })}
            />
          </label>
        )
      )}
      <button
        className="button-small min-h-11 min-w-11 self-center"
        aria-label={t('Take out {name}', { name: step.name })}
        onClick={onRemove}
      >
        <X aria-hidden size={18} />
      </button>
    </li>
  );
}
