'use client';
import { asKey } from '../../core/music/scale';
import { Pause, Play, Plus, Redo2, Repeat, Snail, Undo2 } from 'lucide-react';
import dynamic from 'next/dynamic';
import { useCallback, useMemo, useState } from 'react';
import { useTakePlayer } from '../../audio/take-player';
import type { CoachMark, VoiceMap } from '../../core/map/types';
import { markOn } from '../../core/map/votes';
import type { VoiceTypeId } from '../../core/plan/voice-types';
import type { OtherTake } from '../../contract/answers';
import { directionAt, passageAt } from '../../core/take/at-note';
import { Change, changesOf } from '../../core/take/changes';
import type { PatternSung, TakeFindings, Task, Trace } from '../../core/take/types';
import { Keys } from '../kit/Keys';
import { ForCoaches, useMayChange } from '../kit/may-change';
import type { Shortcut } from '../kit/useShortcuts';
import { TASK_WORDS } from '../kit/words';
import { useLadderScale } from '../ladder/useLadderScale';
import { KeptNote } from '../outbox/KeptNote';
import { TakePicture } from '../take/TakePicture';
import { SingerMark } from '../kit/Shapes';
import { Blind, BlindListen } from './BlindListen';
import { ChangeList } from './ChangeList';
import { Compare } from './Compare';
import { useMarks } from './useMarks';
import { addressOf, ask } from '../../sync/ask';
import { useLanguage } from '../language/language';

import { inCents, said, texts } from '../../core/words/said';

// The charts are fetched only when they are looked at.
const HowMeasured = dynamic(() => import('./HowMeasured').then((m) => m.HowMeasured), { ssr: false });

interface Props {
  singer: { id: string; name: string; voiceType: VoiceTypeId };
  map: VoiceMap;
  view: {
    take: { id: string; task: Task; vowel: string; source: string; durationS: number; recordedAt: Date; note: string };
    analysis: { engine: string; findings: TakeFindings | null; trace: Trace | null; error: string | null } | null;
    marks: CoachMark[];
  };
  atS: number;
  /** Other takes of the singer, newest first. */
  others: OtherTake[];
  /** Whose takes can lie beside it. */
  singers: { id: string; name: string }[];
}

const NOTHING: Change[] = [];
const HEIGHT = 520;
/** Heard on each side of a note, seconds. */
const AT_NOTE_S = 0.6;
const SOURCE_WORDS: Record<string, string> = texts({ microphone: 'microphone', file: 'from a file', simulated: 'simulated singer' });

/** One take heard again: the machine's findings and the coach's word on each, side by side on the ladder. */
export function ReviewRoom({ singer, map, view: { take, analysis, marks: stored }, atS, others, singers }: Props) {
  const { dateTimeOf, decimal, rich, t } = useLanguage();
  const findings = analysis?.findings ?? null;
  const trace = analysis?.trace ?? null;
  const heard = useMemo(() => (findings ? changesOf(findings) : []), [findings]);
  const mayChange = useMayChange();
  const [blind, setBlind] = useState<Blind>('off');
  const changes = blind === 'listening' ? NOTHING : heard;
  const { marks, set, undo, redo } = useMarks(take.id, stored);
  const { playing, play, stop, slow, setSlow, loop, setLoop } = useTakePlayer();
  const [beside, setBeside] = useState('');
  const [ghost, setGhost] = useState<Trace | null>(null);
  const [measured, setMeasured] = useState(false);
  const [selected, setSelected] = useState(() =>
    Math.max(
      0,
      changes.findIndex((c) => Math.abs(c.timeS - atS) < 0.3),
    ),
  );
  const [cursorS, setCursorS] = useState(atS);
  const scale = useLadderScale(map, singer.voiceType, HEIGHT, findings?.range ?? null);

  const nowS = playing?.atS ?? cursorS;
  const playFrom = useCallback(
    (fromS: number, toS?: number) => {
      setCursorS(fromS);
      play(take.id, fromS, toS);
    },
    [play, take.id],
  );
  const select = useCallback(
    (index: number) => {
      if (!changes[index]) return;
      setSelected(index);
      playFrom(changes[index].timeS - 1, changes[index].timeS + 1);
    },
    [changes, playFrom],
  );

  /** The coach's word on a change: it keeps its mark's id, so that changing one's mind is one mark. */
  const say = useCallback(
    (change: Change, verdict: CoachMark['verdict'] | null, midi = change.midi) => {
      const id = markOn(change, marks)?.id ?? crypto.randomUUID();
      set(id, verdict ? { id, timeS: change.timeS, midi, direction: change.direction, verdict, by: 'coach' } : undefined);
    },
    [marks, set],
  );
  const move = useCallback(
    (change: Change, by: number) => say(change, 'move', Math.round(markOn(change, marks)?.midi ?? change.midi) + by),
    [marks, say],
  );

  const addHere = useCallback(
    (by: CoachMark['by']) => {
      if (!trace) return;
      const at = Math.round(nowS / trace.hopS);
      const midi = trace.midi[at];
      if (!(midi > 0)) return;
      const before = trace.midi[Math.max(0, at - 20)] || midi;
      const id = crypto.randomUUID();
      set(id, { id, timeS: nowS, midi: Math.round(midi), direction: midi >= before ? 'up' : 'down', verdict: 'add', by });
    },
    [nowS, set, trace],
  );

  const [noNote, setNoNote] = useState<string | null>(null);
  /** One after the other where each is on the note under the cursor, going the same way. */
  const bothAtNote = () => {
    const at = trace && Math.round(trace.midi[Math.round(nowS / trace.hopS)]);
    if (!trace || !at || !ghost) return setNoNote(t('Put the cursor on a note that is sung, then hear both at it.'));
    const direction = directionAt(trace, nowS);
    const there = passageAt(ghost, at, direction);
    if (!there) return setNoNote(t('The other take never is on {note}.', { note: { note: at } }));
    setNoNote(null);
    const middle = (there.fromS + there.toS) / 2;
    play(take.id, nowS - AT_NOTE_S, nowS + AT_NOTE_S, () => play(beside, middle - AT_NOTE_S, middle + AT_NOTE_S));
  };

  const change = changes[selected];
  const marking: Shortcut[] = [
    { key: 'a', says: said('right: it is as the machine says'), act: change && (() => say(change, 'accept')) },
    { key: 'x', says: said('there is nothing'), act: change && (() => say(change, 'reject')) },
    { key: 'ArrowUp', says: said('moves the change up a semitone'), act: change && (() => move(change, 1)) },
    { key: 'ArrowDown', says: said('moves it down'), act: change && (() => move(change, -1)) },
    { key: 'm', says: said('you hear a change here'), act: () => addHere('coach') },
    { key: 'n', says: said('the singer feels one here'), act: () => addHere('singer') },
    { key: 'z', command: true, says: said('takes your last word back'), act: undo },
    { key: 'y', command: true, says: said('and says it again'), act: redo },
  ];
  const shortcuts: Shortcut[] = [
    { key: ' ', says: said('plays and pauses'), act: () => (playing ? stop() : playFrom(cursorS)) },
    { key: 'j', says: said('goes on to the next change'), act: () => select(selected + 1) },
    { key: 'k', says: said('goes back to the one before'), act: () => select(selected - 1) },
    { key: 'l', says: said('plays it again and again'), act: () => setLoop(!loop) },
    { key: 'h', says: said('plays at half speed'), act: () => setSlow(!slow) },
    { key: '1', says: said('plays this take from here'), act: () => playFrom(nowS) },
    { key: '2', says: said('plays the one beside it from here'), act: beside ? () => play(beside, nowS) : undefined },
    { key: '3', says: said('plays both where each is on the note under the cursor'), act: beside ? bothAtNote : undefined },
    ...(mayChange ? marking : []),
  ];

  return (
    <div className="grid gap-4 lg:grid-cols-[1fr_24rem]">
      <section aria-label={t('The take beside the ladder')} className="flex flex-col gap-3">
        {trace ? (
          <TakePicture
            scale={scale}
            map={map}
            findings={findings}
            trace={trace}
            changes={changes}
            marks={marks}
            selected={changes[selected]}
            playheadS={nowS}
            onSelect={(c) => select(changes.indexOf(c))}
            onPlay={playFrom}
            ghost={ghost}
          />
        ) : (
          <p className="card">{analysis?.error ?? t('This take is still being listened to. Reload the page in a moment.')}</p>
        )}
        <div className="flex flex-wrap items-center gap-2">
          <button
            className="button-main"
            onClick={() => (playing ? stop() : playFrom(nowS >= take.durationS - 0.1 ? 0 : nowS))}
            title={t('Space')}
          >
            {playing ? <Pause aria-hidden size={18} /> : <Play aria-hidden size={18} />} {playing ? t('Pause') : t('Play')}
          </button>
          <ForCoaches>
            <button className="button" onClick={() => addHere('coach')} title={t('M: at the line, while it plays or stands')}>
              <Plus aria-hidden size={18} /> {t('I hear it')}
            </button>
            <button className="button" onClick={() => addHere('singer')} title={t('N: what the singer says, at the line')}>
              <Plus aria-hidden size={18} /> {t('Singer feels it')}
            </button>
            <button className="button px-3" onClick={() => undo?.()} disabled={!undo} title={t('Ctrl+Z')} aria-label={t('Undo')}>
              <Undo2 aria-hidden size={18} />
            </button>
            <button className="button px-3" onClick={() => redo?.()} disabled={!redo} title={t('Ctrl+Y')} aria-label={t('Redo')}>
              <Redo2 aria-hidden size={18} />
            </button>
          </ForCoaches>
          <button
            className={`button ${loop ? 'border-accent text-accent' : ''}`}
            aria-pressed={loop}
            title="L"
            onClick={() => setLoop(!loop)}
          >
            <Repeat aria-hidden size={18} /> {t('Loop')}
          </button>
          <button
            className={`button ${slow ? 'border-accent text-accent' : ''}`}
            aria-pressed={slow}
            title="H"
            onClick={() => setSlow(!slow)}
          >
            <Snail aria-hidden size={18} /> {t('Half speed')}
          </button>
          <Keys shortcuts={shortcuts} repeats />
        </div>
        <div className="flex flex-wrap items-end justify-between gap-2">
          <Compare
            singerId={singer.id}
            singers={singers}
            others={others}
            chosen={beside}
            onChoose={(id) => {
              setBeside(id);
              setGhost(null);
              if (id)
                void ask('GET /api/takes/[takeId]', { params: { takeId: id } }).then(
                  (other) => setGhost(other.analysis?.trace ?? null),
                  () => setBeside(''),
                );
            }}
            onPlay={(which) => (which === 'A' ? playFrom(nowS) : play(beside, nowS))}
            onNote={bothAtNote}
          />
          {noNote && <p role="status">{noNote}</p>}
          <ForCoaches>
            <BlindListen
              state={blind}
              marks={marks.filter((m) => m.by === 'coach' && m.verdict === 'add')}
              changes={heard}
              onState={setBlind}
            />
          </ForCoaches>
        </div>
      </section>

      <aside className="flex flex-col gap-3">
        <div>
          <h2 className="text-xl font-bold">
            {t(TASK_WORDS[take.task])}
            {take.vowel && take.task !== 'speech' ? t(' on “{vowel}”', { vowel: take.vowel }) : ''}
          </h2>
          <p className="text-sm text-soft">
            {dateTimeOf(take.recordedAt)} · {decimal(take.durationS, 1)} s · {t(SOURCE_WORDS[take.source])}
          </p>
        </div>
        {findings?.quality.reasons.map((r) => (
          <p key={t(r)} className="font-semibold">
            {t(r)}
          </p>
        ))}
        {findings?.range && (
          <p>
            {rich(
              'Reaches from <b>{low}</b> to <b>{high}</b>.',
              { low: { note: findings.range.lowestMidi }, high: { note: findings.range.highestMidi } },
              { b: (inside) => <b>{inside}</b> },
            )}
          </p>
        )}
        <p className="flex gap-4 text-sm text-soft" aria-hidden="true">
          <span className="flex items-center gap-1">
            <svg width={18} height={18}>
              <circle cx={9} cy={9} r={6} fill="none" stroke="var(--band)" strokeWidth={3} />
            </svg>
            {t('the machine')}
          </span>
          <span className="flex items-center gap-1">
            <svg width={18} height={18}>
              <path d="M9 1L17 9L9 17L1 9Z" fill="var(--coach)" />
            </svg>
            {t('you')}
          </span>
          <span className="flex items-center gap-1">
            <svg width={18} height={18}>
              <SingerMark x={9} y={9} size={6} />
            </svg>
            {t('the singer')}
          </span>
        </p>
        {findings?.quality.usable && heard.length === 0 && (
          <p className="card">
            {t('No change was found in this take.')} {mayChange && t('If you hear one, stop there and press M.')}
          </p>
        )}
        <ChangeList
          changes={changes}
          marks={marks}
          selected={selected}
          onSelect={select}
          onSay={say}
          onMove={move}
          onTakeBack={(id) => set(id, undefined)}
        />
        {changes[selected] && (
          <details className="card" onToggle={(e) => setMeasured(e.currentTarget.open)}>
            <summary className="cursor-pointer font-semibold">
              {t('How the change at {note} was measured', { note: { note: changes[selected].midi } })}
            </summary>
            {measured && <HowMeasured takeId={take.id} change={changes[selected]} />}
          </details>
        )}
        <KeptNote
          label={t('A word on this take')}
          method="PATCH"
          path={addressOf('PATCH /api/takes/[takeId]', { takeId: take.id })}
          stored={take.note}
          maxLength={2000}
        />
        {findings && findings.notes.length > 0 && (
          <details className="card">
            <summary className="cursor-pointer font-semibold">
              {t('{n} notes sung', { n: findings.notes.length })}
              {findings.pattern &&
                t(': {name}, in {keys}', {
                  name: findings.pattern.name,
                  keys: {
                    all: findings.pattern.keys.map((k) => said('{note}', { note: asKey(k.tonicMidi) })),
                    as: 'comma',
                  },
                })}
            </summary>
            {findings.pattern && <PatternGaps pattern={findings.pattern} />}
            <table className="mt-2 w-full text-sm">
              <thead className="text-left text-soft">
                <tr>
                  <th className="font-normal">{t('Note')}</th>
                  <th className="font-normal">{t('From')}</th>
                  <th className="font-normal">{t('Held')}</th>
                  <th className="font-normal">{t('Vibrato')}</th>
                  <th className="font-normal">{t('Drift')}</th>
                  <th className="font-normal">{t('Unrest')}</th>
                </tr>
              </thead>
              <tbody>
                {findings.notes.map((n) => (
                  <tr key={n.startS}>
                    <td>{t(inCents(n.midi + n.cents / 100))}</td>
                    <td>{decimal(n.startS, 2)} s</td>
                    <td>{decimal(n.endS - n.startS, 2)} s</td>
                    <td>
                      {n.vibrato
                        ? t('{rate, number, ::.0} a second, ±{cents} ¢', {
                            rate: n.vibrato.rateHz,
                            cents: n.vibrato.cents.toFixed(0),
                          })
                        : t('none')}
                    </td>
                    <td>{decimal(n.driftCents, 0)} ¢</td>
                    <td>{decimal(n.unrestCents, 0)} ¢</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </details>
        )}
      </aside>
    </div>
  );
}

/** What of the pattern was not sung, and what was sung beside it. */
function PatternGaps({ pattern }: { pattern: PatternSung }) {
  const { t } = useLanguage();
  const missing = pattern.keys.flatMap((k) =>
    k.notes.filter((n) => n.note === null).map((n) => t('{degree} in {key}', { degree: n.degree, key: asKey(k.tonicMidi) })),
  );
  const extra = pattern.keys.reduce((s, k) => s + k.extra.length, 0);
  if (missing.length === 0 && extra === 0) return null;
  return (
    <p className="mt-1 text-sm">
      {missing.length > 0 && t('Left out: degree {degrees}. ', { degrees: missing.join(', ') })}
      {extra > 0 && t('{n, plural, one {# note} other {# notes}} beside the pattern.', { n: extra })}
    </p>
  );
}
