'use client';
import Link from 'next/link';
import { useState } from 'react';
import type { Course } from '../../core/lesson/types';
import { sendJson } from '../kit/request';

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
  const [note, setNote] = useState(lesson.note);
  const [said, setSaid] = useState('');
  const save = () =>
    sendJson('PUT', `/api/lessons/${lesson.id}`, { note }).then(
      () => setSaid('Kept.'),
      (error: Error) => setSaid(error.message),
    );
  const left = course.steps.filter((s) => course.skipped[s.id]);
  return (
    <div className="flex max-w-3xl flex-col gap-4">
      <h2 className="text-[40px] leading-tight font-bold">That was the lesson</h2>
      {left.length > 0 && <p>Left out: {left.map((s) => s.name).join(', ')}.</p>}
      {children}
      {takes}
      <label className="flex flex-col gap-1 text-soft">
        A word for the record
        <textarea
          className="field min-h-24 py-2 text-ink"
          value={note}
          maxLength={4000}
          onChange={(e) => setNote(e.target.value)}
          onBlur={() => void save()}
        />
        <span role="status" className="text-sm">
          {said}
        </span>
      </label>
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
