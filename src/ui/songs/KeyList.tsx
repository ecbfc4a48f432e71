'use client';
import { saidKey } from '../../core/song/keys';
import { Check } from 'lucide-react';
import { useId } from 'react';
import type { SongKey } from '../../core/song/keys';
import type { Song } from '../../core/song/types';
import type { SongVoice } from '../../core/song/voice';
import { barName, keyBecause, keyInWords, riskInWords } from '../../core/song/words';
import { LEVEL_WORDS } from './words-of-songs';
import { useLanguage } from '../language/language';

const WIDTH = 150;
const HEIGHT = 40;
/** Finer than a pixel shows. */
const tenths = (px: number) => Math.round(10 * px) / 10;

/** Every key of the song in one picture, best first, each with the bars that decide it. */
export function KeyList({
  song,
  keys,
  octave,
  voice,
  shown,
  chosen,
  onShow,
}: {
  song: Song;
  keys: readonly SongKey[];
  octave: number;
  voice: SongVoice;
  shown: number;
  chosen: number | null;
  onShow: (semitones: number) => void;
}) {
  const { t } = useLanguage();
  const low = Math.min(voice.low, ...keys.map((k) => k.tessitura.lowest));
  const high = Math.max(voice.high, ...keys.map((k) => k.tessitura.highest));
  const y = (midi: number) => 2 + ((high - midi) / (high - low)) * (HEIGHT - 4);
  const melody = useId();
  return (
    <ol
      aria-label={t('Keys, best first')}
      className="flex max-h-[26rem] lg:max-h-[32rem] flex-col gap-1 overflow-y-auto pr-1"
      tabIndex={-1}
    >
      {keys.map((key, i) => (
        <li key={key.semitones}>
          <button
            aria-current={key.semitones === shown}
            onClick={() => onShow(key.semitones)}
            className={`flex w-full flex-wrap items-center gap-x-3 rounded-lg border px-2 py-1 text-left ${key.semitones === shown ? 'border-accent bg-card' : 'border-line'} ${key.standing === 'fits' ? '' : 'opacity-80'}`}
          >
            <span className="w-24">
              <span className="block font-semibold">
                {i + 1}. {t('{key}', { key: saidKey(song, key.semitones) })}
                {key.semitones === chosen && <Check aria-label={t('chosen')} size={16} className="ml-1 inline text-coach" />}
              </span>
              <span className="block text-xs text-soft">{t(keyInWords(key, octave))}</span>
            </span>
            <Contour song={song} of={key} voice={voice} y={y} melody={melody} draws={i === 0} />
            <span className="min-w-40 flex-1 text-sm">
              <span className="block">
                <b>{key.standing === 'fits' ? t(LEVEL_WORDS[key.level]) : t('not for this voice')}</b> ·{' '}
                {t('{low} to {high}', {
                  low: { note: key.tessitura.lowest, flats: key.flats },
                  high: { note: key.tessitura.highest, flats: key.flats },
                })}
              </span>
              {key.standing === 'fits' ? (
                key.deciding.map((d) => (
                  <span key={`${d.bar} ${d.is}`} className="block text-soft">
                    <span className="font-semibold">{t(barName(song, d.bar))}</span>{' '}
                    {d.risk
                      ? t(riskInWords(d.risk, voice, key.flats))
                      : t(d.is === 'top' ? 'its highest note, {note}' : 'its lowest note, {note}', {
                          note: { note: d.midi, flats: key.flats },
                        })}
                  </span>
                ))
              ) : (
                <span className="block text-soft">{t(keyBecause(key, keys, song, voice))}</span>
              )}
            </span>
          </button>
        </li>
      ))}
    </ol>
  );
}

/**
 * The melody in small, between what may be sung, with the changes across and its deciding bars marked. It is the same in every key but for
 * its height: one of them draws it, under the id `melody`, the others show it (drawn in each, it was half the page).
 */
function Contour({
  song,
  of,
  voice,
  y,
  melody,
  draws,
}: {
  song: Song;
  of: SongKey;
  voice: SongVoice;
  y: (midi: number) => number;
  melody: string;
  draws: boolean;
}) {
  const last = song.bars[song.bars.length - 1];
  const x = (place: number) => (place / (last.start + last.beats)) * WIDTH;
  const deciding = new Set(of.deciding.map((d) => d.bar));
  return (
    <svg width={WIDTH} height={HEIGHT} aria-hidden="true" className="shrink-0 rounded bg-paper">
      {[...deciding].map((bar) => (
        <rect
          key={bar}
          x={x(song.bars[bar].start)}
          width={Math.max(3, x(song.bars[bar].beats))}
          y={0}
          height={HEIGHT}
          fill="var(--band)"
          opacity={0.28}
        />
      ))}
      {voice.changes.map((c) => (
        <rect
          key={c.up}
          x={0}
          width={WIDTH}
          y={y(c.last + 0.5)}
          height={Math.max(2, y(c.first - 0.5) - y(c.last + 0.5))}
          fill="var(--band)"
          opacity={0.35}
        />
      ))}
      {[voice.low - 0.5, voice.high + 0.5].map((limit) => (
        <line key={limit} x1={0} x2={WIDTH} y1={y(limit)} y2={y(limit)} stroke="var(--soft)" strokeDasharray="3 3" />
      ))}
      {draws && (
        <defs>
          <path
            id={melody}
            d={song.notes.map((n) => `M${tenths(x(n.start))} ${tenths(y(n.midi))}h${tenths(Math.max(1, x(n.beats) - 0.5))}`).join('')}
            stroke="var(--ink)"
            strokeWidth={2}
          />
        </defs>
      )}
      <use href={`#${melody}`} y={y(of.semitones) - y(0)} />
    </svg>
  );
}
