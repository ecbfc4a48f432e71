'use client';
import { Play, Square } from 'lucide-react';
import Link from 'next/link';
import { useTakePlayer } from '../../audio/take-player';
import { BarOutcome, Heard, recordOf } from '../../core/song/outcome';
import type { Song } from '../../core/song/types';
import { namesFlats } from '../../core/song/written';
import { barName, breakInWords, UNTOLD } from '../../core/song/words';
import { dateTimeOf } from '../kit/dates';

export interface SongTakeLine {
  takeId: string;
  semitones: number;
  heard: Heard | null;
  recordedAt: Date;
  silent: boolean;
}

/** Share of the notes sung within a quarter-tone of where they were meant. */
const inTune = (bars: readonly BarOutcome[]): number =>
  bars.reduce((sum, b) => sum + b.inTune * b.notes, 0) /
  Math.max(
    1,
    bars.reduce((sum, b) => sum + b.notes, 0),
  );

/** The takes of a song, newest first: what was predicted and what came of it; one is laid over the melody. */
export function SongTakes({
  singerId,
  song,
  takes,
  shown,
  onShow,
  beside,
  onBeside,
  all,
}: {
  singerId: string;
  song: Song;
  takes: readonly SongTakeLine[];
  shown: string | null;
  onShow: (takeId: string | null) => void;
  /** The one that lies beside it. */
  beside: string | null;
  onBeside: (takeId: string | null) => void;
  /** Bars of all this singer's songs ever sung. */
  all: readonly BarOutcome[];
}) {
  const { playing, play, stop } = useTakePlayer();
  if (takes.length === 0) return null;
  const record = recordOf(all);
  return (
    <section aria-label="Takes of this song" className="card flex flex-col gap-2">
      <h2 className="text-lg font-bold">What came true</h2>
      <ul className="flex flex-col gap-1">
        {takes.map((t) => {
          const bars = t.heard?.outcome?.bars ?? [];
          const broke = bars.filter((b) => b.broke);
          const untold = bars.filter((b) => b.untold);
          const sung = bars.filter((b) => b.sung).length;
          return (
            <li key={t.takeId} className={`rounded-lg border px-2 py-1 ${t.takeId === shown ? 'border-accent' : 'border-line'}`}>
              <div className="flex flex-wrap items-center gap-2">
                <button
                  className="min-w-0 flex-1 text-left font-semibold hover:underline"
                  aria-pressed={t.takeId === shown}
                  onClick={() => onShow(t.takeId === shown ? null : t.takeId)}
                >
                  {dateTimeOf(t.recordedAt)}
                </button>
                {shown && t.takeId !== shown && t.heard?.outcome && t.heard.outcome.notes.length > 0 && (
                  <button
                    className={`button px-3 ${t.takeId === beside ? 'border-accent' : ''}`}
                    aria-pressed={t.takeId === beside}
                    aria-label={`Lay the take of ${dateTimeOf(t.recordedAt)} beside the one that is shown`}
                    onClick={() => onBeside(t.takeId === beside ? null : t.takeId)}
                  >
                    Beside
                  </button>
                )}
                {!t.silent && (
                  <button
                    className="button px-3"
                    aria-label={playing?.takeId === t.takeId ? 'Stop' : `Play the take of ${dateTimeOf(t.recordedAt)}`}
                    onClick={() => (playing?.takeId === t.takeId ? stop() : play(t.takeId, 0))}
                  >
                    {playing?.takeId === t.takeId ? <Square aria-hidden size={16} /> : <Play aria-hidden size={16} />}
                  </button>
                )}
                <Link className="button px-3" href={`/singers/${singerId}/takes/${t.takeId}`}>
                  Review
                </Link>
              </div>
              <p className="text-sm text-soft">
                {t.heard === null
                  ? 'being listened to …'
                  : t.heard.outcome === null
                    ? 'not this song, or too little of it'
                    : `${sung} bars, ${broke.length} broke${untold.length ? `, ${untold.length} not told` : ''}, ${Math.round(100 * inTune(bars))} % in tune`}
              </p>
              {t.takeId === shown && (
                <ul className="mt-1 text-sm">
                  {broke.length === 0 && sung > untold.length && <li>Nothing broke that can be told.</li>}
                  {broke.map((b) => (
                    <li key={b.bar}>
                      <button
                        className="text-left hover:underline"
                        onClick={() => play(t.takeId, Math.max(0, b.broke!.timeS - 1), b.broke!.timeS + 1.5)}
                      >
                        {barName(song, b.bar)}, called {b.called}: {breakInWords(b.broke!, namesFlats(song, t.heard!.outcome!.semitones))}
                      </button>
                    </li>
                  ))}
                  {untold.map((b) => (
                    <li key={b.bar} className="text-soft">
                      {barName(song, b.bar)}, called {b.called}: {UNTOLD}
                    </li>
                  ))}
                </ul>
              )}
            </li>
          );
        })}
      </ul>
      {record.risky.sung + record.safe.sung > 0 && (
        <p className="text-sm" data-testid="record">
          In all songs so far: of {record.risky.sung} bars called risky {record.risky.broke} broke; of {record.safe.sung} called safe{' '}
          {record.safe.sung - record.safe.broke} held.
        </p>
      )}
    </section>
  );
}
