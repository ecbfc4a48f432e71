'use client';
import { Play, Square } from 'lucide-react';
import { useTakePlayer } from '../../audio/take-player';
import type { PhraseRisk } from '../../core/song/risks';
import { phraseSung, takenAs } from '../../core/song/taken';
import type { Song } from '../../core/song/types';
import type { SongVoice } from '../../core/song/voice';
import type { Way } from '../../core/song/ways';
import { breakInWords } from '../../core/song/words';
import { namesFlats } from '../../core/song/written';
import { VERDICT_WORDS } from '../kit/verdict';
import type { SongTakeLine } from './SongTakes';
import { useLanguage } from '../language/language';

/** Heard from so long before the phrase until so long after it, seconds. */
const AROUND_S = 0.3;
const MOST_SHOWN = 6;

/** One phrase in the takes of a song, newest first, so that one week is heard beside another; and whether it was taken the way that was chosen. */
export function PhraseTakes({
  song,
  phrase,
  voice,
  way,
  takes,
}: {
  song: Song;
  phrase: PhraseRisk;
  voice: SongVoice;
  way: Way | null;
  takes: readonly SongTakeLine[];
}) {
  const { dateTimeOf, t } = useLanguage();
  const { playing, play, stop } = useTakePlayer(false);
  const sung = takes.flatMap((t) => {
    const heard = t.heard?.outcome;
    const at = heard && phraseSung(heard, phrase);
    return at ? [{ ...t, at, flats: namesFlats(song, heard.semitones), taken: way && takenAs(song, heard, phrase, way, voice) }] : [];
  });
  if (sung.length === 0) return null;
  return (
    <div>
      <h3 className="mb-1 font-semibold">{t('As it was sung')}</h3>
      <ul className="flex flex-col gap-1 text-sm" aria-label={t('This phrase in takes')}>
        {sung.slice(0, MOST_SHOWN).map(({ takeId, recordedAt, silent, at, flats, taken }) => {
          const sounds = playing?.takeId === takeId;
          return (
            <li key={takeId} className="flex items-start gap-2">
              {!silent && (
                <button
                  className="button-small"
                  aria-label={sounds ? t('Stop') : t('Play this phrase of {date}', { date: dateTimeOf(recordedAt) })}
                  onClick={() => (sounds ? stop() : play(takeId, at.startS - AROUND_S, at.endS + AROUND_S))}
                >
                  {sounds ? <Square aria-hidden size={16} /> : <Play aria-hidden size={16} />}
                </button>
              )}
              <span className="min-w-0 flex-1 self-center">
                <b>{dateTimeOf(recordedAt)}</b>
                {at.inTune !== null && t(', {what} % in tune', { what: Math.round(100 * at.inTune) })}
                {at.broke && `; ${t(breakInWords(at.broke, flats))}`}.
                {taken && (
                  <span className="block" data-testid="taken">
                    {t(VERDICT_WORDS[taken.verdict])} {taken.verdict === 'yes' ? `(${t(taken.because)})` : t(taken.because)}
                  </span>
                )}
              </span>
            </li>
          );
        })}
      </ul>
    </div>
  );
}
