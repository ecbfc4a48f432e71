'use client';
import { Plus, Upload } from 'lucide-react';
import { Link } from '../kit/Link';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import type { SongFile } from '../../core/format/song-musicxml';
import type { Song } from '../../core/song/types';
import { ForCoaches } from '../kit/may-change';
import { Notice } from '../kit/Notice';
import { readSongFile } from './read-file';
import { SongEditor } from './SongEditor';
import { ask } from '../../sync/ask';
import { useLanguage } from '../language/language';
import type { Said } from '../../core/words/said';
import { saidOf } from '../../core/words/said-error';

export interface SongLine {
  id: string;
  title: string;
  style: string;
  bars: number;
  lowest: number;
  highest: number;
  singers: number;
}

/** The studio's songs: brought in from files, or written. */
export function SongsRoom({ songs }: { songs: SongLine[] }) {
  const { t } = useLanguage();
  const router = useRouter();
  const file = useRef<HTMLInputElement>(null);
  const [problem, setProblem] = useState<Said | null>(null);
  const [editing, setEditing] = useState<Song | 'new' | null>(null);
  const [came, setCame] = useState<{ from: File; read: SongFile } | null>(null);
  const [reading, setReading] = useState(false);

  const bring = async (from: File, part?: string) => {
    setProblem(null);
    setReading(true);
    try {
      const read = await readSongFile(from, part);
      setCame({ from, read });
      setEditing(read.song);
    } catch (error) {
      setProblem(saidOf(error));
    } finally {
      setReading(false);
    }
  };
  const save = async (song: Song, note: string) => {
    const id = crypto.randomUUID();
    await ask('PUT /api/songs/[songId]', { params: { songId: id }, body: { song, note } });
    setEditing(null);
    setCame(null);
    router.push(`/songs/${id}`);
    router.refresh();
  };

  return (
    <main
      className="mx-auto max-w-[1240px] px-4 py-4"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        const dropped = e.dataTransfer.files[0];
        if (dropped) void bring(dropped);
      }}
    >
      <div className="mb-3 flex flex-wrap items-center gap-2">
        <h1 className="flex-1 text-2xl font-bold">{t('Songs')}</h1>
        <input
          ref={file}
          type="file"
          className="sr-only"
          tabIndex={-1}
          aria-label={t('File with a song')}
          accept=".mid,.midi,.musicxml,.xml,.mxl"
          onChange={(e) => {
            const chosen = e.target.files?.[0];
            e.target.value = '';
            if (chosen) void bring(chosen);
          }}
        />
        <ForCoaches>
          <button
            className="button"
            onClick={() => file.current?.click()}
            disabled={reading}
            title={t('MusicXML (also compressed) or MIDI')}
          >
            <Upload aria-hidden size={18} /> {reading ? t('Reading …') : t('From a file')}
          </button>
          <button className="button" onClick={() => (setCame(null), setEditing('new'))}>
            <Plus aria-hidden size={18} /> {t('Write a song')}
          </button>
        </ForCoaches>
      </div>
      {problem && <Notice>{t(problem)}</Notice>}
      {editing && (
        <div className="mb-4 flex flex-col gap-2">
          {came && came.read.parts.length > 1 && (
            <label className="flex flex-wrap items-center gap-2">
              <span>{t('The melody is in')}</span>
              <select
                className="field"
                value={came.read.part}
                aria-label={t('The part with the melody')}
                onChange={(e) => void bring(came.from, e.target.value)}
              >
                {came.read.parts
                  .filter((p) => p.notes > 0)
                  .map((p) => (
                    <option key={p.id} value={p.id}>
                      {t('{part}: {n, plural, one {# note} other {# notes}}', { part: { own: p.name || p.id }, n: p.notes })}
                      {p.words ? t(', with words') : ''}
                      {p.chords ? t(', more than one at once') : ''}
                    </option>
                  ))}
              </select>
            </label>
          )}
          <SongEditor
            key={came ? `${came.from.name} ${came.read.part}` : 'new'}
            song={editing === 'new' ? null : editing}
            onSave={save}
            onCancel={() => (setEditing(null), setCame(null))}
          />
        </div>
      )}
      {songs.length === 0 && !editing ? (
        <div className="card max-w-2xl text-lg">
          <p>
            {t(
              'Lessons are for songs. Bring one in as MusicXML or MIDI (drop the file here), or write its melody: Wendel lays it on each singer’s map, ranks its keys, and finds the bars to work on.',
            )}
          </p>
        </div>
      ) : (
        <ul className="grid gap-2 sm:grid-cols-2 lg:grid-cols-3">
          {songs.map((s) => (
            <li key={s.id}>
              <Link href={`/songs/${s.id}`} className="card block hover:border-accent">
                <span className="block text-lg font-bold">{s.title}</span>
                <span className="block text-soft">
                  {[
                    s.style,
                    t('{n, plural, one {# bar} other {# bars}}', { n: s.bars }),
                    t('{low} to {high}', { low: { note: s.lowest }, high: { note: s.highest } }),
                  ]
                    .filter(Boolean)
                    .join(' · ')}
                </span>
                <span className="block text-sm text-soft">
                  {s.singers === 0 ? t('nobody’s yet') : t('sung by {singers}', { singers: s.singers })}
                </span>
              </Link>
            </li>
          ))}
        </ul>
      )}
    </main>
  );
}
