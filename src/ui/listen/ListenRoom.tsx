'use client';
import { Link } from '../kit/Link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { beginCourse } from '../../core/lesson/course';
import type { Protocol, VoiceAnchors } from '../../core/lesson/types';
import type { VoiceMap } from '../../core/map/types';
import { Notice } from '../kit/Notice';
import { FreeTake, Listened } from './FreeTake';
import { ask } from '../../sync/ask';
import { useLanguage } from '../language/language';
import type { Said } from '../../core/words/said';
import { saidOf } from '../../core/words/said-error';

interface LessonLine {
  id: string;
  name: string;
  note: string;
  nextTime: string;
  startedAt: Date;
  endedAt: Date | null;
  takes: number;
}

/** Where listening starts: a guided lesson, one left unfinished, or a single take of anything. */
export function ListenRoom({
  singer,
  map,
  voice,
  protocols,
  lessons,
}: {
  singer: Listened;
  map: VoiceMap;
  voice: VoiceAnchors;
  protocols: Protocol[];
  lessons: LessonLine[];
}) {
  const { dateOf, dateTimeOf, t } = useLanguage();
  const router = useRouter();
  const [problem, setProblem] = useState<Said | null>(null);
  const begin = async (protocol: Protocol) => {
    const id = crypto.randomUUID();
    try {
      await ask('POST /api/lessons', { body: { id, singerId: singer.id, name: protocol.name, course: beginCourse(protocol, voice) } });
      router.push(`/singers/${singer.id}/lessons/${id}`);
    } catch (error) {
      setProblem(saidOf(error));
    }
  };
  const open = lessons.find((l) => !l.endedAt);
  const agreed = lessons.find((l) => l.nextTime);
  return (
    <div className="flex flex-col gap-3">
      {agreed && (
        <p className="text-soft">
          {t('Agreed on {date}:', { date: dateOf(agreed.startedAt) })} <span className="text-ink">{agreed.nextTime}</span>
        </p>
      )}
      <section aria-label={t('Lessons')} className="flex flex-wrap items-center gap-2">
        {protocols.map((p) => (
          <button key={p.id} className="button" title={t(p.purpose)} onClick={() => void begin(p)}>
            {t(p.name)}
          </button>
        ))}
        {open && (
          <Link className="button" href={`/singers/${singer.id}/lessons/${open.id}`}>
            {t('Go on with “{lesson}” of {startedAt}', { lesson: open.name, startedAt: dateTimeOf(open.startedAt) })}
          </Link>
        )}
        <Link className="ml-auto min-h-11 content-center text-soft underline" href="/lessons">
          {t('Make a lesson of your own')}
        </Link>
      </section>
      {problem && <Notice>{t(problem)}</Notice>}
      <FreeTake singer={singer} map={map} />
      {lessons.length > 0 && (
        <details className="card">
          <summary className="cursor-pointer font-semibold">
            {t('{n, plural, one {# lesson} other {# lessons}} so far', { n: lessons.length })}
          </summary>
          <ul className="mt-2">
            {lessons.map((l) => (
              <li key={l.id} className="border-b border-line py-2 last:border-0">
                <Link className="font-semibold hover:underline" href={`/singers/${singer.id}/lessons/${l.id}`}>
                  {t(l.name)}
                </Link>{' '}
                <span className="text-soft">
                  {dateTimeOf(l.startedAt)} · {t('{n, plural, one {# take} other {# takes}}', { n: l.takes })}
                  {l.endedAt ? '' : t(' · not finished')}
                </span>
                {l.note && <p>{l.note}</p>}
              </li>
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}
