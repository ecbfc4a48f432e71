'use client';
import { ArrowDown, ArrowLeft, ArrowRight, ArrowUp, CopyPlus, Trash2 } from 'lucide-react';
import { KeyboardEvent, useState } from 'react';
import type { NoteEdit } from '../../core/song/edit';
import { barAt, Song } from '../../core/song/types';
import { barName } from '../../core/song/words';
import { SongStaff } from '../staff/SongStaff';
import { useLanguage } from '../language/language';

/** What each key does to the note that is worked on; with Shift an octave. */
const KEYS: Record<string, (octave: boolean) => NoteEdit> = {
  ArrowUp: (octave) => ({ does: 'move', semitones: octave ? 12 : 1 }),
  ArrowDown: (octave) => ({ does: 'move', semitones: octave ? -12 : -1 }),
  '+': () => ({ does: 'stretch', by: 2 }),
  '-': () => ({ does: 'stretch', by: 0.5 }),
  Delete: () => ({ does: 'remove' }),
  Enter: () => ({ does: 'repeat' }),
};

/** The song on its staff, note by note: pressed or walked to, moved, made longer or shorter, repeated, taken out. */
export function StaffEditor({
  song,
  onEdit,
}: {
  /** As it is drawn: keys may be quicker than that. */
  song: Song;
  onEdit: (note: number, edit: NoteEdit) => void;
}) {
  const { note: named, t } = useLanguage();
  const [at, setAt] = useState(0);
  const selected = Math.min(at, song.notes.length - 1);
  const note = song.notes[selected];
  const edit = (done: NoteEdit) => {
    onEdit(at, done);
    if (done.does === 'repeat') setAt(at + 1);
  };
  const walk = (by: number) => setAt(Math.min(song.notes.length - 1, Math.max(0, selected + by)));
  const press = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (event.key === 'ArrowLeft' || event.key === 'ArrowRight') walk(event.key === 'ArrowLeft' ? -1 : 1);
    else if (Object.hasOwn(KEYS, event.key)) edit(KEYS[event.key](event.shiftKey));
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const button = (words: string, Icon: typeof ArrowUp | null, act: () => void, sign?: string) => (
    <button type="button" className="button-small" aria-label={words} title={words} onClick={act}>
      {Icon ? <Icon aria-hidden size={16} /> : sign}
    </button>
  );
  return (
    <div>
      <div
        role="group"
        tabIndex={0}
        aria-label={t('The staff: arrows walk and move the note, plus and minus its length, Enter repeats it, Delete takes it out')}
        className="rounded-lg focus-visible:outline-2 focus-visible:outline-accent"
        onKeyDown={press}
      >
        <SongStaff song={song} selected={selected} onSelect={setAt} />
      </div>
      <div className="flex flex-wrap items-center gap-1 text-sm">
        <span className="mr-2 min-w-48" aria-live="polite" data-testid="staff-note">
          {t(barName(song, barAt(song, note.start)))}: <b>{named(note.midi, song.fifths < 0)}</b>,{' '}
          {t('{n, plural, one {# crotchet} other {# crotchets}}', { n: Math.round(note.beats * 1000) / 1000 })}
          {note.words && t(' on “{words}”', { words: note.words })}
        </span>
        {button(t('The note before'), ArrowLeft, () => walk(-1))}
        {button(t('The next note'), ArrowRight, () => walk(1))}
        {button(t('A semitone higher'), ArrowUp, () => edit({ does: 'move', semitones: 1 }))}
        {button(t('A semitone lower'), ArrowDown, () => edit({ does: 'move', semitones: -1 }))}
        {button(t('Half as long'), null, () => edit({ does: 'stretch', by: 0.5 }), '÷2')}
        {button(t('Twice as long'), null, () => edit({ does: 'stretch', by: 2 }), '×2')}
        {button(t('Once more after it'), CopyPlus, () => edit({ does: 'repeat' }))}
        {button(t('Take the note out'), Trash2, () => edit({ does: 'remove' }))}
      </div>
    </div>
  );
}
