'use client';
import { Play, Square } from 'lucide-react';
import { Link } from '../kit/Link';
import { useTakePlayer } from '../../audio/take-player';
import { BarOutcome, Heard, recordOf } from '../../core/song/outcome';
import type { Song } from '../../core/song/types';
import { namesFlats } from '../../core/song/written';
import { barName, breakInWords, UNTOLD } from '../../core/song/words';
import { LEVEL_WORDS } from './words-of-songs';
import { useLanguage } from '../language/language';

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
  const { dateTimeOf, t } = useLanguage();
  const { playing, play, stop } = useTakePlayer();
  if (takes.length === 0) return null;
  const record = recordOf(all);
  return (
    <section aria-label={t('Takes of this song')} className="card flex flex-col gap-2">
      <h2 className="text-lg font-bold">{t('What came true')}</h2>
      <ul className="flex flex-col gap-1">
        {takes.map((take) => {
          const bars = take.heard?.outcome?.bars ?? [];
          const broke = bars.filter((b) => b.broke);
          const untold = bars.filter((b) => b.untold);
          const sung = bars.filter((b) => b.sung).length;
          return (
            <li key={take.takeId} className={`rounded-lg border px-2 py-1 ${take.takeId === shown ? 'border-accent' : 'border-line'}`}>
              <div className="flex flex-wrap items-center gap-2">
                <button
                  className="min-w-0 flex-1 text-left font-semibold hover:underline"
                  aria-pressed={take.takeId === shown}
                  onClick={() => onShow(take.takeId === shown ? null : take.takeId)}
                >
                  {dateTimeOf(take.recordedAt)}
                </button>
                {shown && take.takeId !== shown && take.heard?.outcome && take.heard.outcome.notes.length > 0 && (
                  <button
                    className={`button px-3 ${take.takeId === beside ? 'border-accent' : ''}`}
                    aria-pressed={take.takeId === beside}
                    aria-label={t('Lay the take of {when} beside the one that is shown', { when: dateTimeOf(take.recordedAt) })}
                    onClick={() => onBeside(take.takeId === beside ? null : take.takeId)}
                  >
                    {t('Beside')}
                  </button>
                )}
                {!take.silent && (
                  <button
                    className="button px-3"
                    aria-label={
                      playing?.takeId === take.takeId ? t('Stop') : t('Play the take of {when}', { when: dateTimeOf(take.recordedAt) })
                    }
                    onClick={() => (playing?.takeId === take.takeId ? stop() : play(take.takeId, 0))}
                  >
                    {playing?.takeId === take.takeId ? <Square aria-hidden size={16} /> : <Play aria-hidden size={16} />}
                  </button>
                )}
                <Link className="button px-3" href={`/singers/${singerId}/takes/${take.takeId}`}>
                  {t('Review')}
                </Link>
              </div>
              <p className="text-sm text-soft">
                {take.heard === null
                  ? t('being listened to …')
                  : take.heard.outcome === null
                    ? t('not this song, or too little of it')
                    : t(
                        untold.length
                          ? '{sung} bars, {broke} broke, {untold} not told, {percent} % in tune'
                          : '{sung} bars, {broke} broke, {percent} % in tune',
                        { sung, broke: broke.length, untold: untold.length, percent: Math.round(100 * inTune(bars)) },
                      )}
              </p>
              {take.takeId === shown && (
                <ul className="mt-1 text-sm">
                  {broke.length === 0 && sung > untold.length && <li>{t('Nothing broke that can be told.')}</li>}
                  {broke.map((b) => (
                    <li key={b.bar}>
                      <button
                        className="text-left hover:underline"
                        onClick={() => play(take.takeId, Math.max(0, b.broke!.timeS - 1), b.broke!.timeS + 1.5)}
                      >
                        {t('{bar}, called {called}: {what}', {
                          bar: barName(song, b.bar),
                          called: LEVEL_WORDS[b.called],
                          what: breakInWords(b.broke!, namesFlats(song, take.heard!.outcome!.semitones)),
                        })}
                      </button>
                    </li>
                  ))}
                  {untold.map((b) => (
                    <li key={b.bar} className="text-soft">
                      {t('{bar}, called {called}: {what}', { bar: barName(song, b.bar), called: LEVEL_WORDS[b.called], what: UNTOLD })}
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
          {t('In all songs so far: of {risky} bars called risky {broke} broke; of {safe} called safe {held} held.', {
            risky: record.risky.sung,
            broke: record.risky.broke,
            safe: record.safe.sung,
            held: record.safe.sung - record.safe.broke,
          })}
        </p>
      )}
    </section>
  );
}
