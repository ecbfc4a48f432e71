'use client';
import Link from 'next/link';
import type { Course } from '../../core/lesson/types';
import { KeptNote } from '../outbox/KeptNote';

/** The end of a lesson: what was made, a word for the record, and the way to the map. */
export function LessonOver({
  singer,
  lesson,
  course,
  takes,
  onBack,
  children,
}: {
  singer: { id: string; name: string };
  lesson: { id: string; name: string; note: string };
  course: Course;
  takes: React.ReactNode;
  onBack: () => void;
  children?: React.ReactNode;
}) {
  const left = course.steps.filter((s) => course.skipped[s.id]);
  return (
    <div className="flex max-w-3xl flex-col gap-4">
      <h2 className="text-[40px] leading-tight font-bold">That was the lesson</h2>
      {left.length > 0 && <p>Left out: {left.map((s) => s.name).join(', ')}.</p>}
      {children}
      {takes}
      <KeptNote
        label="A word for the record"
        method="PUT"
        path={`/api/lessons/${lesson.id}`}
        stored={lesson.note}
        maxLength={4000}
        className="min-h-24"
      />
      <div className="flex gap-2">
        <Link className="button-main" href={`/singers/${singer.id}/map`}>
          See the map
        </Link>
        <button className="button" onClick={onBack}>
          Back into the lesson
        </button>
      </div>
    </div>
  );
}
