'use client';
import { FileMusic, Pencil, Play, Printer, Square, Trash2 } from 'lucide-react';
import { Link } from '../kit/Link';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { useFollowAlong } from '../../audio/follow-along';
import { saidKey } from '../../core/song/keys';
import { songInTime } from '../../core/song/in-time';
import { phrasesOf } from '../../core/song/phrases';
import type { Song } from '../../core/song/types';
import { ForCoaches } from '../kit/may-change';
import { Notice } from '../kit/Notice';
import { PAPER_WIDTH, SongStaff } from '../staff/SongStaff';
import { SongEditor } from './SongEditor';
import { downloadSongMidi, downloadSongMusicXml } from './song-files';
import { LEVEL_WORDS } from './words-of-songs';
import type { SongSinger } from '../../contract/answers';
import type { Fit } from '../../core/song/fit';
import { fitAll } from './fits';
import { ask } from '../../sync/ask';
import { useLanguage } from '../language/language';
import type { Said } from '../../core/words/said';
import { saidOf } from '../../core/words/said-error';

/** A song of the studio: its sheet, and whom it fits in which key. */
export function StudioSong({ row }: { row: { id: string; song: Song; note: string } }) {
  const { t } = useLanguage();
  const { id, song, note } = row;
  const router = useRouter();
  const along = useFollowAlong();
  const [editing, setEditing] = useState(false);
  const [sure, setSure] = useState(false);
  const [singers, setSingers] = useState<SongSinger[] | null>(null);
  const [fits, setFits] = useState<ReadonlyMap<string, Fit>>(new Map());
  const [problem, setProblem] = useState<Said | null>(null);
  useEffect(() => {
    let leave = () => {};
    let current = true;
    ask('GET /api/songs/[songId]/singers', { params: { songId: id } }).then(
      (found) => {
        if (!current) return;
        setSingers(found);
        setFits(new Map());
        leave = fitAll({ song, voices: found }, ({ singerId, fit }) => setFits((all) => new Map(all).set(singerId, fit)), setProblem);
      },
      (error: unknown) => current && setProblem(saidOf(error)),
    );
    return () => {
      current = false;
      leave();
    };
  }, [id, song]);
  const doing = async (work: () => Promise<void>) => {
    setProblem(null);
    try {
      await work();
    } catch (error) {
      setProblem(saidOf(error));
    }
  };
  return (
    <main className="mx-auto max-w-[1240px] px-4 py-4">
      <div className="mb-3 flex flex-wrap items-center gap-2">
        <h1 className="min-w-72 flex-1 text-2xl font-bold">
          <Link href="/songs" className="font-normal text-soft hover:underline">
            {t('Songs')}
          </Link>{' '}
          / {song.title}
        </h1>
        <span className="no-print flex flex-wrap gap-1">
          <button
            className="button px-3"
            onClick={() => (along.sounding ? along.stop() : void along.play('song', songInTime(song, phrasesOf(song))))}
          >
            {along.sounding ? <Square aria-hidden size={16} /> : <Play aria-hidden size={16} />} {along.sounding ? t('Stop') : t('Hear it')}
          </button>
          <button className="button px-3" onClick={() => void downloadSongMusicXml(song)}>
            <FileMusic aria-hidden size={16} /> {t('MusicXML')}
          </button>
          <button className="button px-3" onClick={() => void downloadSongMidi(song)}>
            <FileMusic aria-hidden size={16} /> {t('MIDI')}
          </button>
          <button className="button px-3" onClick={() => print()} title={t('On paper or as a PDF')}>
            <Printer aria-hidden size={16} /> {t('Sheet')}
          </button>
          <ForCoaches>
            <button className="button px-3" onClick={() => setEditing(true)}>
              <Pencil aria-hidden size={16} /> {t('Correct')}
            </button>
            <button className="button px-3" onClick={() => setSure(true)}>
              <Trash2 aria-hidden size={16} /> {t('Delete')}
            </button>
          </ForCoaches>
        </span>
      </div>
      {problem && <Notice>{t(problem)}</Notice>}
      {along.problem && <Notice>{t(along.problem)}</Notice>}
      {sure && (
        <Notice
          actions={
            <>
              <button
                className="button"
                onClick={() =>
                  void doing(async () => {
                    await ask('DELETE /api/songs/[songId]', { params: { songId: id } });
                    router.push('/songs');
                    router.refresh();
                  })
                }
              >
                {t('Delete for good')}
              </button>
              <button className="button" onClick={() => setSure(false)}>
                {t('Keep it')}
              </button>
            </>
          }
        >
          {t('The song goes for every singer, with the keys that were chosen and what came true of its takes. The takes themselves stay.')}
        </Notice>
      )}
      {editing ? (
        <SongEditor
          song={song}
          note={note}
          onSave={async (changed, changedNote) => {
            await ask('PUT /api/songs/[songId]', { params: { songId: id }, body: { song: changed, note: changedNote } });
            setEditing(false);
            router.refresh();
          }}
          onCancel={() => setEditing(false)}
        />
      ) : (
        <div className="grid gap-4 lg:grid-cols-[minmax(0,1fr)_24rem]">
          <section aria-label={t('The sheet')} className="card print:border-0">
            <div className="print:hidden">
              <SongStaff song={song} />
            </div>
            <div className="hidden print:block">
              <SongStaff song={song} fixed={PAPER_WIDTH} />
            </div>
            {note && <p className="mt-2 text-soft">{note}</p>}
          </section>
          <section aria-label={t('Whom it fits')} className="no-print flex flex-col gap-2">
            <h2 className="text-lg font-bold">{t('Whom it fits')}</h2>
            {!problem && (singers === null || fits.size < singers.length) && <p className="text-soft">{t('Working it out …')}</p>}
            {singers?.length === 0 && <p className="text-soft">{t('No singer has been heard yet.')}</p>}
            <ul className="flex flex-col gap-1">
              {singers?.map(({ singerId, name, chosen }) => {
                const fit = fits.get(singerId);
                return (
                  <li key={singerId}>
                    <Link href={`/singers/${singerId}/songs/${id}`} className="card block p-3 hover:border-accent">
                      <span className="flex flex-wrap justify-between gap-x-3 font-semibold">
                        {name}
                        <span className="font-normal">
                          {fit &&
                            (fit.fits
                              ? t('{key}, {says} · {level}', {
                                  key: saidKey(song, fit.semitones),
                                  says: fit.says,
                                  level: LEVEL_WORDS[fit.level],
                                })
                              : t('no key fits'))}
                        </span>
                      </span>
                      <span className="block text-sm text-soft">
                        {typeof chosen?.semitones === 'number' && (
                          <b className="text-coach">{t('{key} is chosen.', { key: saidKey(song, chosen.semitones) })}</b>
                        )}{' '}
                        {fit?.because && t(fit?.because)}
                      </span>
                    </Link>
                  </li>
                );
              })}
            </ul>
          </section>
        </div>
      )}
    </main>
  );
}
