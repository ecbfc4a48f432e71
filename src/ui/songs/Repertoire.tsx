'use client';
import { Said, said } from '../../core/words/said';
import { Mic, Plus } from 'lucide-react';
import { Link } from '../kit/Link';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import type { Chosen } from '../../core/format/song';
import { keysFor, octaveFor, rangeFit, saidKey } from '../../core/song/keys';
import { BarOutcome, recordOf } from '../../core/song/outcome';
import type { Song } from '../../core/song/types';
import { setlistFor } from '../../core/song/setlist';
import type { SongVoice } from '../../core/song/voice';
import { SongsNow, waits } from '../../core/song/waits';
import { keyBecause, keyInWords, songCautions } from '../../core/song/words';
import type { VoiceTypeId } from '../../core/plan/voice-types';
import type { TimbreAxis } from '../../core/take/timbre';
import { ForCoaches } from '../kit/may-change';
import { SongEditor } from './SongEditor';
import type { SongLine } from './SongsRoom';
import { SungIn } from './SungIn';
import { LEVEL_WORDS } from './words-of-songs';
import { ask } from '../../sync/ask';
import { useLanguage } from '../language/language';

interface Props {
  view: {
    singer: { id: string; name: string; voiceType: VoiceTypeId; axis: TimbreAxis | null };
    voice: SongVoice | null;
    now: SongsNow;
    own: { id: string; song: Song; note: string; chosen: Chosen }[];
    others: SongLine[];
    takes: { songId: string; recordedAt: Date; bars: BarOutcome[] }[];
  };
}

/** A singer's songs: each in its key, with what is risky in it, and what came true; and the studio's others. */
export function Repertoire({ view: { singer, voice, now, own, others, takes } }: Props) {
  const { t } = useLanguage();
  const router = useRouter();
  const [making, setMaking] = useState<'singing' | Song | null>(null);
  const record = recordOf(takes.flatMap((t) => t.bars));
  // Of the others only the titles are here: whether anything new may begin.
  const newWaits = waits('', null, false, now);
  const save = async (song: Song, note: string) => {
    const id = crypto.randomUUID();
    await ask('PUT /api/songs/[songId]', { params: { songId: id }, body: { song, note } });
    router.push(`/singers/${singer.id}/songs/${id}`);
  };
  return (
    <div className="flex flex-col gap-4">
      <ForCoaches>
        <div className="flex flex-wrap gap-2">
          <button className="button" aria-expanded={making !== null} onClick={() => setMaking(making ? null : 'singing')}>
            <Mic aria-hidden size={18} /> {t('Sing one in')}
          </button>
          <Link className="button" href="/songs">
            <Plus aria-hidden size={18} /> {t('From a file, or written')}
          </Link>
        </div>
        {making === 'singing' && <SungIn singer={singer} onSung={setMaking} />}
        {making && making !== 'singing' && <SongEditor song={making} onSave={save} onCancel={() => setMaking(null)} />}
      </ForCoaches>
      {own.length === 0 && (
        <p className="card max-w-2xl text-lg">
          {others.length === 0
            ? t('There are no songs in the studio yet.')
            : t('Open one of the studio’s songs: it is laid on {name}’s map, and becomes {name}’s once a key is chosen.', {
                name: singer.name,
              })}
        </p>
      )}
      <ul className="grid gap-3 lg:grid-cols-2">
        {own.map((s) => (
          <li key={s.id}>
            <OwnSong singerId={singer.id} {...s} voice={voice} now={now} takes={takes.filter((take) => take.songId === s.id)} />
          </li>
        ))}
      </ul>
      {voice && own.length > 1 && <ForAShow own={own} voice={voice} />}
      {record.risky.sung + record.safe.sung > 0 && (
        <p>
          {t(
            'What was predicted and came true, over {takes, plural, one {# take} other {# takes}}: of {risky} bars called risky {broke} broke; of {safe} called safe {held} held.',
            {
              takes: takes.length,
              risky: record.risky.sung,
              broke: record.risky.broke,
              safe: record.safe.sung,
              held: record.safe.sung - record.safe.broke,
            },
          )}
        </p>
      )}
      {others.length > 0 && (
        <section aria-label={t('The studio’s other songs')}>
          <h2 className="mb-2 text-lg font-bold">{t('The studio’s other songs')}</h2>
          {newWaits && <p className="mb-2">{t(newWaits)}</p>}
          <ul className="grid gap-2 sm:grid-cols-2 lg:grid-cols-3">
            {others.map((s) => (
              <li key={s.id}>
                <Link href={`/singers/${singer.id}/songs/${s.id}`} className="card block p-3 hover:border-accent">
                  <span className="block font-semibold">{s.title}</span>
                  <span className="block text-sm text-soft">
                    {[s.style, t('{low} to {high}', { low: { note: s.lowest }, high: { note: s.highest } }), voice && t(fitWords(s, voice))]
                      .filter(Boolean)
                      .join(' · ')}
                  </span>
                </Link>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}

/** Whether a song fits a voice, by its range alone. */
function fitWords({ lowest, highest }: SongLine, voice: SongVoice): Said {
  const by = rangeFit(lowest, highest, voice);
  if (by === null) return said('too wide for this voice');
  if (by === 0) return said('fits as written');
  return by > 0
    ? said('fits {n, plural, one {# semitone} other {# semitones}} higher', { n: by })
    : said('fits {n, plural, one {# semitone} other {# semitones}} lower', { n: -by });
}

function OwnSong({
  singerId,
  id,
  song,
  chosen,
  voice,
  now,
  takes,
}: {
  singerId: string;
  id: string;
  song: Song;
  chosen: Chosen;
  voice: SongVoice | null;
  now: SongsNow;
  takes: { recordedAt: Date; bars: BarOutcome[] }[];
}) {
  const { dateOf, t } = useLanguage();
  const keys = useMemo(() => (voice ? keysFor(song, voice) : []), [song, voice]);
  const key = keys.find((k) => k.semitones === chosen.semitones) ?? keys[0];
  const newest = takes[0];
  const wait = waits(song.title, key ?? null, takes.length > 0, now);
  return (
    <Link href={`/singers/${singerId}/songs/${id}`} className="card block hover:border-accent">
      <span className="flex flex-wrap justify-between gap-x-3 text-lg font-bold">
        {song.title}
        {key && voice && (
          <span className="font-normal">
            {t('{key}', { key: saidKey(song, key.semitones) })}, {t(keyInWords(key, octaveFor(song, voice)))} · {t(LEVEL_WORDS[key.level])}
          </span>
        )}
      </span>
      {key && voice && (
        <span className="block text-soft">
          {t(keyBecause(key, keys, song, voice))} {t(songCautions(key, key, voice)[0] ?? '')}
        </span>
      )}
      {wait && <span className="block font-semibold">{t(wait)}</span>}
      <span className="block text-sm text-soft">
        {newest
          ? t('Last sung {date}: {broke} of {of} bars broke.', {
              date: dateOf(newest.recordedAt),
              broke: newest.bars.filter((b) => b.broke).length,
              of: newest.bars.filter((b) => b.sung).length,
            })
          : t('Not sung for Wendel yet.')}
      </span>
    </Link>
  );
}

/** The singer's songs as an evening: in what order, what each costs, and where to rest. */
function ForAShow({ own, voice }: { own: Props['view']['own']; voice: SongVoice }) {
  const { t } = useLanguage();
  const set = useMemo(() => {
    const songs = own.map(({ id, song, chosen }) => {
      const keys = keysFor(song, voice);
      return { id, song, key: keys.find((k) => k.semitones === chosen.semitones) ?? keys[0] };
    });
    return setlistFor(songs, voice).map((place) => ({ ...place, ...songs.find((s) => s.id === place.id)! }));
  }, [own, voice]);
  return (
    <details className="card">
      <summary className="cursor-pointer font-semibold">{t('As a show: order, load and rests')}</summary>
      <table className="mt-2 w-full text-left text-sm">
        <thead className="text-soft">
          <tr>
            <th className="py-1 font-normal">{t('Song')}</th>
            <th className="pr-3 font-normal">{t('Key')}</th>
            <th className="pr-3 font-normal">{t('Sung')}</th>
            <th className="pr-3 font-normal">{t('Load so far')}</th>
            <th className="font-normal">{t('Then rest')}</th>
          </tr>
        </thead>
        <tbody>
          {set.map((p) => (
            <tr key={p.id} className="border-t border-line">
              <th scope="row" className="py-1 font-semibold">
                {p.song.title}
                {p.heavy && <span className="font-normal text-soft">{t('· heavy')}</span>}
              </th>
              <td>{t('{key}', { key: saidKey(p.song, p.key.semitones) })}</td>
              <td>{Math.round(p.seconds)} s</td>
              <td>{Math.round(100 * p.soFar)} %</td>
              <td>{p.restMinutes ? t('{restMinutes} min', { restMinutes: p.restMinutes }) : ''}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-2 text-sm text-soft">
        {t(
          'The lightest first, the heavier ones apart, a light one last; as long in silence as it was sung, twice as long after a heavy one.',
        )}
      </p>
    </details>
  );
}
