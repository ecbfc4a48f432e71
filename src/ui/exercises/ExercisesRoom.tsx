'use client';
import { Plus, Upload } from 'lucide-react';
import { useMemo, useRef, useState } from 'react';
import { SHELF } from '../../core/exercise/shelf';
import type { Model } from '../../core/exercise/model';
import type { Exercise } from '../../core/exercise/types';
import { ForCoaches } from '../kit/may-change';
import { Notice } from '../kit/Notice';
import { STRAND_WORDS } from '../kit/words-of-work';
import { ANYTHING, filtered } from '../plan/filter';
import { ShelfFilter } from '../plan/ShelfFilter';
import { ExerciseCard } from './ExerciseCard';
import { ExerciseEditor } from './ExerciseEditor';
import { emptyExercise } from '../../core/exercise/tune';
import { importFile, variantOf } from './make';
import { ask } from '../../sync/ask';
import { useLanguage } from '../language/language';
import type { Said } from '../../core/words/said';
import { saidOf } from '../../core/words/said-error';

/** The shelf: every exercise there is, ours and the studio's own; looked at, heard, varied, written, shared. */
export function ExercisesRoom({ own: given, models }: { own: Exercise[]; models: Model[] }) {
  const { t } = useLanguage();
  const [own, setOwn] = useState(given);
  const [filter, setFilter] = useState(ANYTHING);
  const [shown, setShown] = useState<string>(SHELF[0].id);
  const [editing, setEditing] = useState<Exercise | null>(null);
  const [problem, setProblem] = useState<Said | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const all = useMemo(() => [...own, ...SHELF], [own]);
  const list = useMemo(() => filtered(all, filter), [all, filter]);
  const isOwn = (id: string) => own.some((e) => e.id === id);
  const exercise = list.find((e) => e.id === shown) ?? list[0];

  const doing = async (work: () => Promise<void>) => {
    setProblem(null);
    try {
      await work();
    } catch (error) {
      setProblem(saidOf(error));
    }
  };
  const save = (e: Exercise) =>
    doing(async () => {
      await ask('PUT /api/exercises/[exerciseId]', { params: { exerciseId: e.id }, body: e });
      setOwn((o) => [...o.filter((x) => x.id !== e.id), e].sort((a, b) => a.name.localeCompare(b.name)));
      setEditing(null);
      setFilter(ANYTHING);
      setShown(e.id);
    });
  const remove = (id: string) =>
    doing(async () => {
      await ask('DELETE /api/exercises/[exerciseId]', { params: { exerciseId: id } });
      setOwn((o) => o.filter((e) => e.id !== id));
    });

  return (
    <main className="mx-auto max-w-[1240px] px-4 py-4">
      <div className="mb-3 flex flex-wrap items-center gap-2">
        <h1 className="flex-1 text-2xl font-bold">{t('Exercises')}</h1>
        <input
          ref={file}
          type="file"
          className="sr-only"
          tabIndex={-1}
          aria-label={t('File with an exercise')}
          accept=".json,.mid,.midi,.musicxml,.xml,.mxl"
          onChange={(e) => {
            const chosen = e.target.files?.[0];
            e.target.value = '';
            if (chosen) void doing(async () => setEditing(await importFile(chosen)));
          }}
        />
        <ForCoaches>
          <button
            className="button"
            onClick={() => file.current?.click()}
            title={t('An exercise shared as JSON, or a tune as MIDI or MusicXML')}
          >
            <Upload aria-hidden size={18} /> {t('From a file')}
          </button>
          <button className="button" onClick={() => setEditing(emptyExercise(crypto.randomUUID()))}>
            <Plus aria-hidden size={18} /> {t('Write one')}
          </button>
        </ForCoaches>
      </div>
      {problem && <Notice>{t(problem)}</Notice>}
      <div className="grid gap-4 lg:grid-cols-[20rem_1fr]">
        <section aria-label={t('Shelf')} className="flex flex-col gap-2 lg:h-[38rem]">
          <ShelfFilter filter={filter} onChange={setFilter} />
          <p className="text-sm text-soft" aria-live="polite">
            {t('{n} of {of}', { n: list.length, of: all.length })}
          </p>
          <ul className="flex max-h-72 flex-col gap-1 overflow-y-auto pr-1 lg:max-h-none lg:flex-1 lg:basis-0">
            {list.map((e) => (
              <li key={e.id}>
                <button
                  className={`min-h-11 w-full rounded-lg border px-3 py-1 text-left leading-tight ${exercise?.id === e.id && !editing ? 'border-accent bg-card' : 'border-line'}`}
                  aria-current={exercise?.id === e.id && !editing}
                  onClick={() => {
                    setEditing(null);
                    setShown(e.id);
                  }}
                >
                  <span className="block text-sm font-semibold">{t(e.name)}</span>
                  <span className="block text-xs text-soft">
                    {t('{strand}, grade {grade}', { strand: STRAND_WORDS[e.strand], grade: e.grade })}
                    {isOwn(e.id) ? t(' · your own') : ''}
                  </span>
                </button>
              </li>
            ))}
          </ul>
        </section>
        {editing ? (
          <ExerciseEditor key={editing.id} exercise={editing} shelf={all} onSave={save} onCancel={() => setEditing(null)} />
        ) : exercise ? (
          <ExerciseCard
            key={exercise.id}
            models={models}
            exercise={exercise}
            shelf={all}
            own={isOwn(exercise.id)}
            onVariant={() => setEditing(variantOf(exercise))}
            onEdit={() => setEditing(exercise)}
            onRemove={() => remove(exercise.id)}
          />
        ) : (
          <p className="text-soft">{t('Nothing on the shelf is like that. Look for less, or write one.')}</p>
        )}
      </div>
    </main>
  );
}
