'use client';
import { ListMusic, Music, Plus } from 'lucide-react';
import { Link } from '../kit/Link';
import { useState } from 'react';
import type { Exercise } from '../../core/exercise/types';
import { restReason } from '../../core/lesson/course';
import { Sung, tally } from '../../core/lesson/record';
import type { Course } from '../../core/lesson/types';
import { putIn } from '../../core/plan/arrange';
import { SONG_LINE } from '../../core/plan/plan';
import { Notice } from '../kit/Notice';
import { KeptNote } from '../outbox/KeptNote';
import type { usePlanning } from '../plan/usePlanning';
import { SideBySide } from './SideBySide';
import { addressOf, ask } from '../../sync/ask';
import { useLanguage } from '../language/language';
import type { Said } from '../../core/words/said';
import { saidOf } from '../../core/words/said-error';

interface Props {
  singer: { id: string; name: string };
  lesson: { id: string; name: string; note: string; nextTime: string };
  course: Course;
  sung: readonly Sung[];
  planning: ReturnType<typeof usePlanning>;
  takes: React.ReactNode;
  onPlay: (takeId: string) => void;
  onBack: () => void;
  onChoose: () => void;
  /** Sing the tune that was played last; null where none was. */
  onTune: (() => void) | null;
  children?: React.ReactNode;
}

/** The end of a lesson: what was sung and how it went, what of it goes into the week, and a word for the record and for next time. */
export function LessonOver({ singer, lesson, course, sung, planning, takes, onPlay, onBack, onChoose, onTune, children }: Props) {
  const { t } = useLanguage();
  const [problem, setProblem] = useState<Said | null>(null);
  const left = course.steps.filter((s) => course.skipped[s.id]);
  const path = addressOf('PUT /api/lessons/[lessonId]', { lessonId: lesson.id });

  const intoTheWeek = async (exercise: Exercise, sound: string) => {
    const { p, items, setItems } = planning;
    setProblem(null);
    const own = p && !p.find(exercise.id);
    const next = p && putIn(exercise, items, p, { sound, instead: own && exercise.family === 'phrase' ? SONG_LINE : undefined });
    if (!next) return setProblem(t('No key of {name} stays inside what the map knows of this voice.', { name: exercise.name }));
    try {
      // What isn't on the shelf yet (a phrase of a song, a tune that was played) is kept there as the studio's own.
      if (own) await ask('PUT /api/exercises/[exerciseId]', { params: { exerciseId: exercise.id }, body: exercise });
      setItems(next);
    } catch (error) {
      setProblem(saidOf(error));
    }
  };

  return (
    <div className="flex max-w-3xl flex-col gap-4">
      <h2 className="text-[40px] leading-tight font-bold">
        {course.steps.length === 0 ? t('What is sung today?') : t('That was the lesson')}
      </h2>
      {restReason(course.health) && <p className="font-semibold">{t(restReason(course.health) ?? '')}</p>}
      {left.length > 0 && <p>{t('Left out: {names}.', { names: { all: left.map((s) => s.name), as: 'comma' } })}</p>}
      {children}
      {sung.length > 0 && (
        <section aria-label={t('What was sung')} className="card flex flex-col gap-4">
          {sung.map((s) => {
            const exercise = course.steps.find((step) => step.exercise?.id === s.exerciseId)?.exercise;
            const best = [...s.sounds].sort((a, b) => tally(b.keys.values()).yes - tally(a.keys.values()).yes)[0];
            const inWeek = planning.items.some((it) => it.exerciseId === s.exerciseId);
            return (
              <div key={s.exerciseId} className="flex flex-wrap items-end justify-between gap-2">
                <SideBySide sung={s} onPlay={onPlay} />
                {exercise &&
                  (inWeek ? (
                    <span className="text-soft">{t('is in the week')}</span>
                  ) : (
                    <button
                      className="button"
                      aria-label={t('{name} on {sound} into the week', { name: s.name, sound: best.sound })}
                      onClick={() => void intoTheWeek(exercise, best.sound)}
                    >
                      <Plus aria-hidden size={18} /> {t('Into the week, on “{sound}”', { sound: best.sound })}
                    </button>
                  ))}
              </div>
            );
          })}
        </section>
      )}
      {problem && <Notice>{t(problem)}</Notice>}
      {takes}
      <KeptNote label={t('A word for the record')} method="PUT" path={path} stored={lesson.note} maxLength={4000} className="min-h-24" />
      <KeptNote
        label={t('For next time: what was agreed, and stands on top of the next lesson')}
        method="PUT"
        path={path}
        field="nextTime"
        stored={lesson.nextTime}
        maxLength={2000}
      />
      <div className="flex flex-wrap gap-2">
        <Link className="button-main" href={`/singers/${singer.id}/plan`}>
          {t('See the week')}
        </Link>
        <Link className="button" href={`/singers/${singer.id}/map`}>
          {t('See the map')}
        </Link>
        <button className="button" onClick={onChoose}>
          <ListMusic aria-hidden size={18} /> {t('Sing something else')}
        </button>
        {onTune && (
          <button className="button" title="L" onClick={onTune}>
            <Music aria-hidden size={18} /> {t('Sing what I played')}
          </button>
        )}
        {course.steps.length > 0 && (
          <button className="button" onClick={onBack}>
            {t('Back into the lesson')}
          </button>
        )}
      </div>
    </div>
  );
}
