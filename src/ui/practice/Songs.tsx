import { Music } from 'lucide-react';
import { saidKey } from '../../core/song/keys';
import type { Said } from '../../core/words/said';
import type { Song } from '../../core/song/types';
import type { Way } from '../../core/song/ways';
import { useLanguage } from '../language/language';

/** A song in the key that the coach chose, and how its high phrases are taken. */
export interface MySong {
  id: string;
  song: Song;
  semitones: number;
  ways: Record<string, Way>;
  note: string;
}

/** The singer's songs, each in its key; where they rest today, why. */
export function Songs({ songs, rest, onChoose }: { songs: readonly MySong[]; rest: Said | null; onChoose: (id: string) => void }) {
  const { t } = useLanguage();
  if (songs.length === 0) return null;
  return (
    <details>
      <summary className="min-h-11 cursor-pointer content-center font-semibold">{t('Songs')}</summary>
      {rest && <p className="mb-1">{t(rest)}</p>}
      <div className="flex flex-col gap-1">
        {songs.map(({ id, song, semitones }) => (
          <button
            key={id}
            className="button min-h-12 justify-start disabled:opacity-60"
            disabled={rest !== null}
            onClick={() => onChoose(id)}
          >
            <Music aria-hidden size={18} />
            <span className="flex-1 text-left">{song.title}</span>
            <span className="text-sm font-normal text-soft">{t('in {key}', { key: saidKey(song, semitones) })}</span>
          </button>
        ))}
      </div>
    </details>
  );
}
