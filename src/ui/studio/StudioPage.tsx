'use client';
import { differenceInCalendarDays } from 'date-fns';
import { Pencil, UserPlus } from 'lucide-react';
import { Link } from '../kit/Link';
import { useDeferredValue, useMemo, useState } from 'react';
import type { HealthAnswers } from '../../core/lesson/types';
import type { VoiceSummary } from '../../core/map/types';
import type { PractisedInShort } from '../../core/practice/log';
import type { Entry } from '../../core/practice/types';
import { VoiceTypeId, voiceType } from '../../core/plan/voice-types';
import type { SingerRecord } from '../../contract/answers';
import { saidOf } from '../../core/words/said-error';
import { ask } from '../../sync/ask';
import { Choice } from '../kit/Choice';
import { Notice } from '../kit/Notice';
import { ForCoaches, useMayChange } from '../kit/may-change';
import { useInTwoParts } from '../kit/useInTwoParts';
import { FINDING_WORDS } from '../kit/words';
import { LyingLabels, LyingLadder } from '../ladder/LyingLadder';
import { toldInWords } from '../practice/words';
import { News } from '../progress/News';
import { EditSinger } from './EditSinger';
import { FirstSteps } from './FirstSteps';
import { type Speaker, useLanguage } from '../language/language';

import { Said, said, texts } from '../../core/words/said';

interface Row {
  id: string;
  name: string;
  part: string;
  voiceType: VoiceTypeId;
  archivedAt: Date | null;
  lastHeard: Date | null;
  pending: boolean;
  summary: VoiceSummary;
  health: HealthAnswers | null;
  knownHealth: string;
  practised: PractisedInShort;
  /** A week was assigned. */
  hasWeek: boolean;
  told: Entry['what'] | null;
  /** The singer's own words that wait for an answer. */
  asks: { word: string | null; name: string } | null;
}

/** A voice in training is listened to again after about this long (common practice: every two to three weeks). */
const DUE_DAYS = 21;

/** More than a screen shows before it is scrolled. */
const FIRST_ROWS = 12;
/** So many names stand in the line of who needs a word. */
const NAMED = 6;

type Sort = 'heard' | 'due' | 'name' | 'voice';
const SORTS: readonly (readonly [Sort, string])[] = texts([
  ['heard', 'last heard first'],
  ['due', 'longest unheard first'],
  ['name', 'by name'],
  ['voice', 'by voice'],
]);

const heardAt = (s: Row) => (s.lastHeard ? new Date(s.lastHeard).getTime() : 0);
const VOICES = ['soprano', 'mezzo', 'contralto', 'tenor', 'baritone', 'bass'];
const ORDER: Record<Sort, (a: Row, b: Row) => number> = {
  heard: (a, b) => Number(Boolean(b.told)) - Number(Boolean(a.told)) || heardAt(b) - heardAt(a),
  due: (a, b) => heardAt(a) - heardAt(b),
  name: (a, b) => a.name.localeCompare(b.name),
  voice: (a, b) => VOICES.indexOf(a.voiceType) - VOICES.indexOf(b.voiceType) || a.name.localeCompare(b.name),
};

/** So many days with work and nothing done, and it is time for a word. */
const SILENT_DAYS = 3;

/** What the map says in short. */
function foundIn({ lastHeard, pending, summary }: Row): Said {
  if (!lastHeard) return said('Not heard yet');
  if (pending) return said('Being listened to');
  return summary.findings.length
    ? said('{findings}', { findings: { all: summary.findings.map((f) => FINDING_WORDS[f]), as: 'comma' } })
    : said('Nothing stands out yet');
}

/** What was practised, against the week that was assigned where there is one. */
function practiceWords({ week, days, last }: PractisedInShort, dateOf: Speaker['dateOf']): Said {
  if (week) return said('kept {done} of {of, plural, one {# day} other {# days}}', { done: week.done, of: week.of });
  return days > 0 ? said('practised {days} of 7 days', { days }) : said('practised {date}', { date: dateOf(last!) });
}

/** Of a singer's words so many letters are shown. */
const SHOWN_WORD = 60;

/** Why somebody needs a word today, the most urgent first; null: nobody's hurry. */
function wordFor({ told, asks, practised: { week } }: Row): Said | null {
  const written = asks?.word ?? '';
  const word = { own: written.length > SHOWN_WORD ? `${written.slice(0, SHOWN_WORD).trimEnd()} …` : written };
  const name = asks?.name ?? '';
  if (told && asks)
    return written
      ? said('told of trouble and writes “{word}”', { word })
      : said('told of trouble and spoke to you after “{name}”', { name });
  if (told) return said('told of trouble');
  if (asks) return written ? said('writes “{word}”', { word }) : said('spoke to you after “{name}”', { name });
  if (week && week.done === 0 && week.of >= SILENT_DAYS) return said('has not begun this week');
  return null;
}

/** What the coach should know before listening: trouble reported last time, or health told at intake. */
function troubleOf({ health, knownHealth, told }: Row): Said | null {
  if (told) return said('practising: {told}', { told: toldInWords(told) ?? '' });
  if (health?.pain) return said('pain last time');
  if (health?.hoarse) return said('hoarse last time');
  if (health?.ill) return said('ill last time');
  return knownHealth ? said('{health}', { health: { own: knownHealth } }) : null;
}

/** Everyone in the studio, each voice drawn on one shared keyboard: who is due, who reported trouble. `now` is the server's clock. */
export function StudioPage({ singers, now }: { singers: Row[]; now: number }) {
  const { dateOf, note, t } = useLanguage();
  const mayChange = useMayChange();
  const [words, setWords] = useState('');
  const [sort, setSort] = useState<Sort>('heard');
  const [archived, setArchived] = useState(false);
  const [editing, setEditing] = useState<SingerRecord | 'new' | null>(null);
  const [problem, setProblem] = useState<Said | null>(null);
  const edit = (singerId: string) => {
    setProblem(null);
    ask('GET /api/singers/[singerId]', { params: { singerId } }).then(setEditing, (error: unknown) => setProblem(saidOf(error)));
  };
  const asked = useDeferredValue(words.trim().toLowerCase());
  const rows = useInTwoParts(FIRST_ROWS);
  const present = singers.filter((s) => (s.archivedAt !== null) === archived);
  const due = (s: Row) => !s.lastHeard || differenceInCalendarDays(now, s.lastHeard) >= DUE_DAYS;
  const shown = useMemo(
    () =>
      singers
        .filter((s) => (s.archivedAt !== null) === archived)
        .filter((s) => `${s.name} ${s.part} ${t(voiceType(s.voiceType).name)}`.toLowerCase().includes(asked))
        .sort(ORDER[sort]),
    [singers, asked, sort, archived, t],
  );
  const waiting = present.filter(due).length;
  const needing = archived
    ? []
    : present.flatMap((s) => {
        const why = wordFor(s);
        return why ? [{ s, why }] : [];
      });
  const troubled = present.filter(troubleOf).length;

  return (
    <main className="mx-auto max-w-[1240px] px-4 py-4">
      <div className="mb-3 flex flex-wrap items-end gap-4">
        <div>
          <h1 className="text-2xl font-bold">{archived ? t('Put away') : t('Your singers')}</h1>
          <p className="text-soft" role="status">
            {t('{n, plural, one {# singer} other {# singers}}', { n: present.length })}
            {!archived && waiting > 0 && t(', {waiting} due to be heard', { waiting })}
            {!archived && troubled > 0 && t(', {troubled} with trouble to ask about', { troubled })}
          </p>
        </div>
        <div className="ml-auto flex flex-wrap items-end gap-2">
          <label className="flex flex-col gap-1 text-sm text-soft">
            {t('Find')}
            <input
              className="field w-44 text-base"
              type="search"
              value={words}
              onChange={(e) => setWords(e.target.value)}
              placeholder={t('name or part')}
            />
          </label>
          <Choice label={t('Order')} value={sort} options={SORTS} onChange={setSort} />
          {!archived && present.length > 1 && (
            <Link className="button" href="/together">
              {t('Several together')}
            </Link>
          )}
          {(archived || singers.some((s) => s.archivedAt)) && (
            <button className="button" onClick={() => setArchived(!archived)}>
              {archived ? t('Back to your singers') : t('Put away')}
            </button>
          )}
          <ForCoaches>
            <button className="button-main" onClick={() => setEditing('new')}>
              <UserPlus aria-hidden size={18} /> {t('Add a singer')}
            </button>
          </ForCoaches>
        </div>
      </div>
      {problem && <Notice>{t(problem)}</Notice>}
      {needing.length > 0 && (
        <p className="card mb-3" data-testid="needing">
          {t('A word today:')}{' '}
          {needing.slice(0, NAMED).map(({ s, why }, i) => (
            <span key={s.id}>
              {i > 0 && ', '}
              <Link href={`/singers/${s.id}/progress`} className="font-semibold underline">
                {s.name}
              </Link>{' '}
              {t(why)}
            </span>
          ))}
          {needing.length > NAMED && t(' and {n} more', { n: needing.length - NAMED })}.
        </p>
      )}
      <ForCoaches>
        <FirstSteps singers={singers} onAdd={() => setEditing('new')} />
      </ForCoaches>
      {singers.length === 0 ? (
        !mayChange && <p className="card text-lg">{t('Nobody is here yet.')}</p>
      ) : shown.length === 0 ? (
        <p className="card text-lg">{t('Nobody here goes by “{words}”.', { words })}</p>
      ) : (
        <div className="card relative overflow-x-auto p-0">
          {/* On a phone a row is a card: columns would run out of the page. */}
          <table className="w-full max-sm:block">
            <thead className="text-left text-sm text-soft max-sm:sr-only">
              <tr className="border-b border-line">
                <th className="px-4 py-2 font-normal">{t('Singer')}</th>
                <th className="px-2 py-2 font-normal">
                  <LyingLabels />
                </th>
                <th className="px-2 py-2 font-normal">{t('Changes near')}</th>
                <th className="px-2 py-2 font-normal">{t('What happens there')}</th>
                <th className="px-2 py-2 font-normal">{t('Last heard')}</th>
                <th className="px-4 py-2">
                  <span className="sr-only">{t('Next')}</span>
                </th>
              </tr>
            </thead>
            <tbody className="max-sm:block">
              {shown.slice(0, rows).map((s) => (
                <tr
                  key={s.id}
                  className="border-b border-line last:border-0 [contain-intrinsic-size:auto_70px] [content-visibility:auto] max-sm:flex max-sm:flex-wrap max-sm:items-center max-sm:gap-x-3 max-sm:gap-y-1 max-sm:px-4 max-sm:py-3 max-sm:[&>td]:p-0"
                >
                  <td className="px-4 py-3 max-sm:w-full">
                    <Link href={`/singers/${s.id}/map`} className="text-lg font-bold hover:underline">
                      {s.name}
                    </Link>
                    <div className="text-sm text-soft">{[t(voiceType(s.voiceType).name), s.part].filter(Boolean).join(' · ')}</div>
                  </td>
                  <td className="px-2 py-3">
                    <LyingLadder map={s.summary} />
                    <span className="sr-only">
                      {s.summary.extreme
                        ? t('{low} to {high}', {
                            low: { note: s.summary.extreme.low.midi },
                            high: { note: s.summary.extreme.high.midi },
                          })
                        : t('not heard yet')}
                    </span>
                  </td>
                  <td className="px-2 py-3 font-bold">
                    {s.summary.passaggi.map((p) => note(p.midi)).join(', ') || '–'}
                    {s.summary.passaggi.some((p) => p.impression) && (
                      <div className="text-sm font-normal text-soft">{t('first impression')}</div>
                    )}
                  </td>
                  <td className="px-2 py-3 max-sm:w-full">
                    {t(foundIn(s))}
                    {troubleOf(s) && <div className="text-sm font-semibold text-warn">{t(troubleOf(s)!)}</div>}
                  </td>
                  <td className="px-2 py-3 whitespace-nowrap">
                    {s.lastHeard ? dateOf(s.lastHeard) : t('Never')}
                    {due(s) && <div className="text-sm font-semibold">{t('due')}</div>}
                    {s.practised.last && (
                      <Link href={`/singers/${s.id}/progress`} className="block text-sm text-soft underline">
                        {t(practiceWords(s.practised, dateOf))}
                      </Link>
                    )}
                  </td>
                  <td className="px-4 py-3 text-right max-sm:ml-auto">
                    <ForCoaches>
                      <span className="flex justify-end gap-1">
                        <button
                          className="button px-3"
                          aria-label={t('About {name}', { name: s.name })}
                          title={t('About {name}', { name: s.name })}
                          onClick={() => edit(s.id)}
                        >
                          <Pencil aria-hidden size={18} />
                        </button>
                        <Link
                          href={`/singers/${s.id}/listen`}

                          className="button"
                          aria-label={t('Listen to {name}', { name: s.name })}
                        >
                          {t('Listen')}
                        </Link>
                      </span>
                    </ForCoaches>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      <News />
      {editing && <EditSinger singer={editing === 'new' ? undefined : editing} onClose={() => setEditing(null)} />}
    </main>
  );
}
