'use client';
import { differenceInCalendarDays } from 'date-fns';
import { Pencil, UserPlus } from 'lucide-react';
import Link from 'next/link';
import { startTransition, useDeferredValue, useEffect, useMemo, useState } from 'react';
import type { HealthAnswers } from '../../core/lesson/types';
import type { VoiceSummary } from '../../core/map/types';
import type { PractisedInShort } from '../../core/practice/log';
import type { Entry } from '../../core/practice/types';
import { noteName } from '../../core/music/pitch';
import { VoiceTypeId, voiceType } from '../../core/plan/voice-types';
import { Choice } from '../kit/Choice';
import { ForCoaches, useMayChange } from '../kit/may-change';
import { dateOf } from '../kit/dates';
import { FINDING_WORDS } from '../kit/words';
import { LyingLabels, LyingLadder } from '../ladder/LyingLadder';
import { toldInWords } from '../practice/words';
import { News } from '../progress/News';
import { EditSinger, SingerFields } from './EditSinger';
import { FirstSteps } from './FirstSteps';

interface Row extends SingerFields {
  id: string;
  voiceType: VoiceTypeId;
  archivedAt: Date | null;
  lastHeard: Date | null;
  pending: boolean;
  summary: VoiceSummary;
  health: HealthAnswers | null;
  practised: PractisedInShort;
  /** A week was assigned. */
  hasWeek: boolean;
  told: Entry['what'] | null;
  /** The singer's own words that wait for an answer. */
  asks: string | null;
}

/** A voice in training is listened to again after about this long (common practice: every two to three weeks). */
const DUE_DAYS = 21;

const FIRST_ROWS = 24;
/** So many names stand in the line of who needs a word. */
const NAMED = 6;

type Sort = 'heard' | 'due' | 'name' | 'voice';
const SORTS: readonly (readonly [Sort, string])[] = [
  ['heard', 'last heard first'],
  ['due', 'longest unheard first'],
  ['name', 'by name'],
  ['voice', 'by voice'],
];

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
function foundIn({ lastHeard, pending, summary }: Row): string {
  if (!lastHeard) return 'Not heard yet';
  if (pending) return 'Being listened to';
  return summary.findings.map((f) => FINDING_WORDS[f]).join(', ') || 'Nothing stands out yet';
}

/** What was practised, against the week that was assigned where there is one. */
function practiceWords({ week, days, last }: PractisedInShort): string {
  if (week) return `kept ${week.done} of ${week.of} days`;
  return days > 0 ? `practised ${days} of 7 days` : `practised ${dateOf(last!)}`;
}

/** Of a singer's words so many letters are shown. */
const SHOWN_WORD = 60;

/** Why somebody needs a word today, the most urgent first; null: nobody's hurry. */
function wordFor({ told, asks, practised: { week } }: Row): string | null {
  const words = asks && `writes “${asks.length > SHOWN_WORD ? `${asks.slice(0, SHOWN_WORD).trimEnd()} …` : asks}”`;
  if (told || words) return [told && 'told of trouble', words].filter(Boolean).join(' and ');
  if (week && week.done === 0 && week.of >= SILENT_DAYS) return 'has not begun this week';
  return null;
}

/** What the coach should know before listening: trouble reported last time, or health told at intake. */
function troubleOf({ health, intake, told }: Row): string | null {
  if (told) return `practising: ${toldInWords(told)}`;
  if (health?.pain) return 'pain last time';
  if (health?.hoarse) return 'hoarse last time';
  if (health?.ill) return 'ill last time';
  return intake?.health ? intake.health : null;
}

/** Everyone in the studio, each voice drawn on one shared keyboard: who is due, who reported trouble. `now` is the server's clock. */
export function StudioPage({ singers, now }: { singers: Row[]; now: number }) {
  const mayChange = useMayChange();
  const [words, setWords] = useState('');
  const [sort, setSort] = useState<Sort>('heard');
  const [archived, setArchived] = useState(false);
  const [editing, setEditing] = useState<Row | 'new' | null>(null);
  const asked = useDeferredValue(words.trim().toLowerCase());
  // A long list comes in two parts, so that the first screen is there at once.
  const [rows, setRows] = useState(FIRST_ROWS);
  useEffect(() => startTransition(() => setRows(Infinity)), []);
  const present = singers.filter((s) => (s.archivedAt !== null) === archived);
  const due = (s: Row) => !s.lastHeard || differenceInCalendarDays(now, s.lastHeard) >= DUE_DAYS;
  const shown = useMemo(
    () =>
      singers
        .filter((s) => (s.archivedAt !== null) === archived)
        .filter((s) => `${s.name} ${s.part} ${voiceType(s.voiceType).name}`.toLowerCase().includes(asked))
        .sort(ORDER[sort]),
    [singers, asked, sort, archived],
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
          <h1 className="text-2xl font-bold">{archived ? 'Put away' : 'Your singers'}</h1>
          <p className="text-soft" role="status">
            {present.length} {present.length === 1 ? 'singer' : 'singers'}
            {!archived && waiting > 0 && `, ${waiting} due to be heard`}
            {!archived && troubled > 0 && `, ${troubled} with trouble to ask about`}
          </p>
        </div>
        <div className="ml-auto flex flex-wrap items-end gap-2">
          <label className="flex flex-col gap-1 text-sm text-soft">
            Find
            <input
              className="field w-44 text-base"
              type="search"
              value={words}
              onChange={(e) => setWords(e.target.value)}
              placeholder="name or part"
            />
          </label>
          <Choice label="Order" value={sort} options={SORTS} onChange={setSort} />
          {(archived || singers.some((s) => s.archivedAt)) && (
            <button className="button" onClick={() => setArchived(!archived)}>
              {archived ? 'Back to your singers' : 'Put away'}
            </button>
          )}
          <ForCoaches>
            <button className="button-main" onClick={() => setEditing('new')}>
              <UserPlus aria-hidden size={18} /> Add a singer
            </button>
          </ForCoaches>
        </div>
      </div>
      {needing.length > 0 && (
        <p className="card mb-3" data-testid="needing">
          A word today:{' '}
          {needing.slice(0, NAMED).map(({ s, why }, i) => (
            <span key={s.id}>
              {i > 0 && ', '}
              <Link href={`/singers/${s.id}/progress`} prefetch={false} className="font-semibold underline">
                {s.name}
              </Link>{' '}
              {why}
            </span>
          ))}
          {needing.length > NAMED && ` and ${needing.length - NAMED} more`}.
        </p>
      )}
      <ForCoaches>
        <FirstSteps singers={singers} onAdd={() => setEditing('new')} />
      </ForCoaches>
      {singers.length === 0 ? (
        !mayChange && <p className="card text-lg">Nobody is here yet.</p>
      ) : shown.length === 0 ? (
        <p className="card text-lg">Nobody here goes by “{words}”.</p>
      ) : (
        <div className="card overflow-x-auto p-0">
          <table className="w-full">
            <thead className="text-left text-sm text-soft">
              <tr className="border-b border-line">
                <th className="px-4 py-2 font-normal">Singer</th>
                <th className="px-2 py-2 font-normal">
                  <LyingLabels />
                </th>
                <th className="px-2 py-2 font-normal">Changes near</th>
                <th className="px-2 py-2 font-normal">What happens there</th>
                <th className="px-2 py-2 font-normal">Last heard</th>
                <th className="px-4 py-2">
                  <span className="sr-only">Next</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {shown.slice(0, rows).map((s) => (
                <tr key={s.id} className="border-b border-line last:border-0 [contain-intrinsic-size:auto_70px] [content-visibility:auto]">
                  <td className="px-4 py-3">
                    <Link href={`/singers/${s.id}`} prefetch={false} className="text-lg font-bold hover:underline">
                      {s.name}
                    </Link>
                    <div className="text-sm text-soft">{[voiceType(s.voiceType).name, s.part].filter(Boolean).join(' · ')}</div>
                  </td>
                  <td className="px-2 py-3">
                    <LyingLadder map={s.summary} />
                    <span className="sr-only">
                      {s.summary.extreme
                        ? `${noteName(s.summary.extreme.low.midi)} to ${noteName(s.summary.extreme.high.midi)}`
                        : 'not heard yet'}
                    </span>
                  </td>
                  <td className="px-2 py-3 font-bold">
                    {s.summary.passaggi.map((p) => noteName(p.midi)).join(', ') || '–'}
                    {s.summary.passaggi.some((p) => p.impression) && <div className="text-sm font-normal text-soft">first impression</div>}
                  </td>
                  <td className="px-2 py-3">
                    {foundIn(s)}
                    {troubleOf(s) && <div className="text-sm font-semibold text-warn">{troubleOf(s)}</div>}
                  </td>
                  <td className="px-2 py-3 whitespace-nowrap">
                    {s.lastHeard ? dateOf(s.lastHeard) : 'Never'}
                    {due(s) && <div className="text-sm font-semibold">due</div>}
                    {s.practised.last && (
                      <Link href={`/singers/${s.id}/progress`} prefetch={false} className="block text-sm text-soft underline">
                        {practiceWords(s.practised)}
                      </Link>
                    )}
                  </td>
                  <td className="px-4 py-3 text-right">
                    <ForCoaches>
                      <span className="flex justify-end gap-1">
                        <button
                          className="button px-3"
                          aria-label={`About ${s.name}`}
                          title={`About ${s.name}`}
                          onClick={() => setEditing(s)}
                        >
                          <Pencil aria-hidden size={18} />
                        </button>
                        <Link href={`/singers/${s.id}/listen`} prefetch={false} className="button" aria-label={`Listen to ${s.name}`}>
                          Listen
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
