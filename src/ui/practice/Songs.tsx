import { Music } from 'lucide-react';
import { keyNameOf } from '../../core/song/keys';
import type { Song } from '../../core/song/types';
import type { Way } from '../../core/song/ways';

/** A song in the key that the coach chose, and how its high phrases are taken. */
export interface MySong {
  id: string;
  song: Song;
  semitones: number;
  ways: Record<string, Way>;
  note: string;
}

/** The singer's songs, each in its key; where they rest today, why. */
export function Songs({ songs, rest, onChoose }: { songs: readonly MySong[]; rest: string | null; onChoose: (id: string) => void }) {
  if (songs.length === 0) return null;
  return (
    <details>
      <summary className="min-h-11 cursor-pointer content-center font-semibold">Songs</summary>
      {rest && <p className="mb-1">{rest}</p>}
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
            <span className="text-sm font-normal text-soft">in {keyNameOf(song.fifths, semitones)}</span>
          </button>
        ))}
      </div>
    </details>
  );
}
