'use client';
import { useDeferredValue, useMemo, useRef, useState } from 'react';
import { SongShape } from '../../core/format/song';
import { edited, NoteEdit } from '../../core/song/edit';
import { typedSong } from '../../core/song/typed';
import { typedText } from '../../core/song/typed-text';
import type { Song } from '../../core/song/types';
import { Choice } from '../kit/Choice';
import { Notice } from '../kit/Notice';
import { StaffEditor } from './StaffEditor';
import { useLanguage } from '../language/language';

import { Said, said, texts } from '../../core/words/said';
import { saidOf } from '../../core/words/said-error';

const METERS = ['4/4', '3/4', '2/4', '6/8', '2/2', '3/8', '9/8', '12/8', '5/4'] as const;
type Meter = (typeof METERS)[number];
const SIGNATURES = [-6, -5, -4, -3, -2, -1, 0, 1, 2, 3, 4, 5, 6].map((n): [string, Said] => [
  String(n),
  n === 0
    ? said('no sharps or flats')
    : n > 0
      ? said('{n, plural, one {# sharp} other {# sharps}}', { n })
      : said('{n, plural, one {# flat} other {# flats}}', { n: -n }),
]);
const LANGUAGES = texts([
  ['', 'not said'],
  ['en', 'English'],
  ['de', 'German'],
  ['it', 'Italian'],
  ['fr', 'French'],
  ['es', 'Spanish'],
]);

/** A song written, or corrected, note by note: as text, and on its staff. */
export function SongEditor({
  song,
  note: givenNote = '',
  onSave,
  onCancel,
}: {
  /** Null: a new one. */
  song: Song | null;
  note?: string;
  onSave: (song: Song, note: string) => Promise<void>;
  onCancel: () => void;
}) {
  const { t } = useLanguage();
  const given = useMemo(() => (song ? typedText(song) : null), [song]);
  const [title, setTitle] = useState(given?.title ?? '');
  const [style, setStyle] = useState(given?.style ?? '');
  const [language, setLanguage] = useState(given?.language ?? '');
  const [tempo, setTempo] = useState(String(given?.tempo ?? 90));
  const [meter, setMeter] = useState<Meter>((given && (`${given.meter[0]}/${given.meter[1]}` as Meter)) || '4/4');
  const [fifths, setFifths] = useState(String(given?.fifths ?? 0));
  const [upbeat, setUpbeat] = useState(String(given?.upbeat ?? 0));
  const [melody, setMelody] = useState(given?.melody ?? '');
  const [words, setWords] = useState(given?.words ?? '');
  const [note, setNote] = useState(givenNote);
  const [problem, setProblem] = useState<Said | null>(null);
  const [busy, setBusy] = useState(false);
  const typed = useDeferredValue(
    useMemo(
      () => ({
        title,
        style,
        language,
        tempo: Number(tempo),
        meter: meter.split('/').map(Number) as [number, number],
        fifths: Number(fifths),
        upbeat: Number(upbeat),
        melody,
        words,
      }),
      [title, style, language, tempo, meter, fifths, upbeat, melody, words],
    ),
  );
  const read = useMemo((): { song: Song } | { problem: Said } => {
    if (!typed.melody.trim()) return { problem: '' };
    try {
      const made = typedSong({ ...typed, title: typed.title || t('Untitled') });
      const parsed = SongShape.safeParse(made);
      return parsed.success
        ? { song: parsed.data }
        : { problem: `${parsed.error.issues[0].path.join('.')}: ${parsed.error.issues[0].message}` };
    } catch (error) {
      return { problem: saidOf(error) };
    }
  }, [typed, t]);
  /** What is drawn lags behind quick keys: a note is changed in what was typed last. */
  const newest = useRef({ melody, words });
  const type = (text: { melody?: string; words?: string }) => {
    newest.current = { ...newest.current, ...text };
    setMelody(newest.current.melody);
    setWords(newest.current.words);
  };
  const edit = (note: number, change: NoteEdit) => {
    let now: Song;
    try {
      now = typedSong({ ...typed, title: typed.title || t('Untitled'), ...newest.current });
    } catch {
      // What is being typed can't be read just now: it says so itself.
      return;
    }
    const text = typedText(edited(now, Math.min(note, now.notes.length - 1), change));
    type({ melody: text.melody, words: text.words ?? '' });
  };
  /** Nothing of the notes was touched: bars of other lengths and changes of tempo stay as they came. */
  const untouched =
    song !== null &&
    given !== null &&
    melody === given.melody &&
    words === given.words &&
    tempo === String(given.tempo) &&
    meter === `${given.meter[0]}/${given.meter[1]}` &&
    upbeat === String(given.upbeat);
  const save = async () => {
    if (!title.trim()) return setProblem(t('Give the song a title.'));
    if ('problem' in read) return setProblem(read.problem || t('Write at least one note.'));
    setProblem(null);
    setBusy(true);
    try {
      const notes = untouched ? { ...song, title, style, language, fifths: Number(fifths) } : { ...read.song, title };
      await onSave(notes, note);
    } catch (error) {
      setProblem(saidOf(error));
    } finally {
      setBusy(false);
    }
  };
  const field = (label: string, value: string, set: (v: string) => void, more: object = {}) => (
    <label className="flex flex-col gap-1">
      <span className="text-sm text-soft">{label}</span>
      <input className="field" value={value} onChange={(e) => set(e.target.value)} {...more} />
    </label>
  );
  return (
    <form
      className="card flex flex-col gap-3"
      aria-label={t('The song')}
      onSubmit={(e) => {
        e.preventDefault();
        void save();
      }}
    >
      <div className="grid gap-2 sm:grid-cols-2 lg:grid-cols-4">
        {field(t('Title'), title, setTitle, { required: true, maxLength: 160 })}
        {field(t('Style'), style, setStyle, { maxLength: 80 })}
        <Choice label={t('Language of its words')} value={language} options={LANGUAGES} onChange={setLanguage} />
        {field(t('Tempo, crotchets a minute'), tempo, setTempo, { type: 'number', min: 10, max: 500, step: 'any' })}
        <Choice label={t('Meter')} value={meter} options={METERS.map((m) => [m, m] as const)} onChange={setMeter} />
        <Choice label={t('Key signature')} value={fifths} options={SIGNATURES} onChange={setFifths} />
        {field(t('Upbeat, crotchets'), upbeat, setUpbeat, { type: 'number', min: 0, max: 16, step: 'any' })}
      </div>
      <label className="flex flex-col gap-1">
        <span className="text-sm text-soft">
          {t(
            'Notes: C4 a crotchet, Bb3:2 two, C5:0.5 a quaver, r a rest, a comma to breathe, E4~ to slide on, p mf f from there on; bar lines | as you like',
          )}
        </span>
        <textarea
          className="field field-sizing-content min-h-28 font-mono text-sm"
          value={melody}
          onChange={(e) => type({ melody: e.target.value })}
          spellCheck={false}
          aria-invalid={'problem' in read && read.problem !== ''}
        />
      </label>
      <label className="flex flex-col gap-1">
        <span className="text-sm text-soft">
          {t('Words: a syllable a note, he-ron with a hyphen, _ where one is held on; or a vowel (ah)')}
        </span>
        <textarea className="field field-sizing-content min-h-16 text-sm" value={words} onChange={(e) => type({ words: e.target.value })} />
      </label>
      <label className="flex flex-col gap-1">
        <span className="text-sm text-soft">{t('Notes for yourself')}</span>
        <input className="field" value={note} onChange={(e) => setNote(e.target.value)} maxLength={4000} />
      </label>
      {'song' in read ? <StaffEditor song={read.song} onEdit={edit} /> : read.problem && <Notice>{t(read.problem)}</Notice>}
      {song && !untouched && song.bars.some((b) => b.beats !== song.bars[Math.min(1, song.bars.length - 1)].beats) && (
        <p className="text-sm text-soft">{t('Changed by hand, its bars become of one length.')}</p>
      )}
      {problem && <Notice>{t(problem)}</Notice>}
      <div className="flex gap-2">
        <button className="button-main" disabled={busy}>
          {t('Save the song')}
        </button>
        <button type="button" className="button" onClick={onCancel}>
          {t('Cancel')}
        </button>
      </div>
    </form>
  );
}
