'use client';
import { useEffect, useRef } from 'react';
import type { Heard, KeptOutcome } from '../../core/song/outcome';
import type { VoiceMap } from '../../core/map/types';
import { barRisks, Level, levelOf, PhraseRisk } from '../../core/song/risks';
import type { Song } from '../../core/song/types';
import type { SongVoice } from '../../core/song/voice';
import { namesFlats } from '../../core/song/written';
import { barsName, breakInWords, phraseInWords } from '../../core/song/words';
import { MachineMark } from '../kit/Shapes';
import { useWidth } from '../kit/useWidth';
import { Ladder, PassaggioBand, Rungs } from '../ladder/Ladder';
import { rampColour } from '../ladder/ramp';
import type { LadderScale } from '../ladder/scale';
import { LEVEL_WORDS } from './words-of-songs';
import { useLanguage } from '../language/language';

/** Bars above and words below the notes. */
const HEAD = 30;
const LEAST_BEAT_PX = 22;
/** Room for words under the notes, pixels a sign. */
const WORDS_HEIGHT = 36;
const WORDS_PX = 6.8;
/** Between chest and head the colour turns over about so many semitones. */
const TURN_ST = 1.2;

/** How much head a note is likely to be sung with, for its colour; null where no change is known. */
function headOf(midi: number, voice: SongVoice | null): number | null {
  if (!voice || voice.changes.length === 0) return null;
  const over = voice.changes.map((c) => 1 / (1 + Math.exp((c.up + 0.5 - midi) / TURN_ST)));
  return over.reduce((a, b) => a + b, 0) / over.length;
}

/** The melody beside the ladder, bar by bar, with what may go wrong, and, where a take was chosen, what did. */
export function SongPicture({
  song,
  semitones,
  voice,
  phrases,
  scale,
  map,
  selected,
  onSelect,
  heard,
  beside,
}: {
  song: Song;
  semitones: number;
  voice: SongVoice | null;
  phrases: readonly PhraseRisk[];
  scale: LadderScale;
  map: VoiceMap | null;
  selected: number;
  onSelect: (phrase: number) => void;
  heard: Heard['outcome'];
  /** An earlier take to compare with. */
  beside: Heard['outcome'];
}) {
  const { t } = useLanguage();
  const [box, room] = useWidth();
  const scroller = useRef<HTMLDivElement>(null);
  const end = song.bars[song.bars.length - 1].start + song.bars[song.bars.length - 1].beats;
  const beat = Math.max(LEAST_BEAT_PX, (room - 8) / end);
  const width = Math.max(1, Math.ceil(end * beat));
  const x = (place: number) => place * beat;
  const flats = namesFlats(song, semitones);
  const risks = barRisks(song, phrases);
  const shown = phrases[selected];
  useEffect(() => {
    if (shown) scroller.current?.scrollTo({ left: song.notes[shown.first].start * beat - 60 });
  }, [shown, song, beat]);
  return (
    <div className="flex min-w-0 gap-2">
      <div style={{ paddingTop: HEAD }}>
        <Ladder scale={scale} map={map} flats={flats} />
      </div>
      <div ref={box} className="min-w-0 flex-1">
        <div ref={scroller} className="overflow-x-auto rounded-lg border border-line" tabIndex={-1}>
          <svg
            width={width}
            height={scale.height + HEAD + WORDS_HEIGHT}
            role="group"
            aria-label={t('{title} beside the voice', { title: song.title })}
          >
            <g transform={`translate(0 ${HEAD})`}>
              <Rungs scale={scale} width={width} />
              {map?.passaggi.map((p) => (
                <PassaggioBand key={p.midi} scale={scale} passaggio={p} x={0} width={width} />
              ))}
              {voice && (
                <>
                  <rect x={0} width={width} y={0} height={Math.max(0, scale.y(voice.high + 0.5))} fill="var(--soft)" opacity={0.18} />
                  <rect
                    x={0}
                    width={width}
                    y={scale.y(voice.low - 0.5)}
                    height={Math.max(0, scale.height - scale.y(voice.low - 0.5))}
                    fill="var(--soft)"
                    opacity={0.18}
                  />
                </>
              )}
            </g>
            {song.bars.map((bar, b) => (
              <g key={b}>
                <line x1={x(bar.start)} x2={x(bar.start)} y1={HEAD} y2={HEAD + scale.height} stroke="var(--rung-dark)" />
                <text x={x(bar.start) + 4} y={13} fontSize={12} fill="var(--soft)">
                  {bar.number}
                </text>
                <BarSign level={levelOf(risks.get(b) ?? 0)} x={x(bar.start) + 4} />
              </g>
            ))}
            {phrases.map((p, i) => {
              const from = x(song.notes[p.first].start);
              const to = x(song.notes[p.last].start + song.notes[p.last].beats);
              return (
                <g
                  key={p.first}
                  role="button"
                  tabIndex={0}
                  aria-pressed={i === selected}
                  aria-label={[
                    t(barsName(song, p.firstBar, p.lastBar)),
                    t(LEVEL_WORDS[p.level]),
                    ...(voice ? [t(phraseInWords(p, voice, flats))] : []),
                  ].join(', ')}
                  className="cursor-pointer"
                  onClick={() => onSelect(i)}
                  onKeyDown={(e) => (e.key === 'Enter' || e.key === ' ') && (e.preventDefault(), e.stopPropagation(), onSelect(i))}
                >
                  <rect
                    x={from - 2}
                    width={to - from + 2}
                    y={HEAD + 1}
                    height={scale.height - 2}
                    rx={6}
                    fill="transparent"
                    stroke={i === selected ? 'var(--accent)' : 'none'}
                    strokeWidth={2.5}
                  />
                </g>
              );
            })}
            <g transform={`translate(0 ${HEAD})`} pointerEvents="none">
              {song.notes.map((n, i) => {
                const midi = n.midi + semitones;
                const head = headOf(midi, voice);
                const high = Math.max(4, Math.min(11, scale.rung - 1));
                return (
                  <g key={i}>
                    <rect
                      x={x(n.start) + 1}
                      width={Math.max(3, x(n.beats) - 2)}
                      y={scale.y(midi) - high / 2}
                      height={high}
                      rx={3}
                      fill={head === null ? 'var(--soft)' : rampColour(head)}
                      stroke="var(--soft)"
                      strokeWidth={1}
                    />
                  </g>
                );
              })}
              {wordsIn(song, x).map(({ at, row, words }) => (
                <text key={at} x={at} y={scale.height + 15 + 15 * row} fontSize={12} fill="var(--ink)">
                  {t(words)}
                </text>
              ))}
              {beside && <SungNotes song={song} heard={beside} scale={scale} x={x} under />}
              {heard && <SungNotes song={song} heard={heard} scale={scale} x={x} />}
            </g>
          </svg>
        </div>
        <p className="sr-only">
          {t('{n} notes from {low} to {high}. The phrases are listed beside.', {
            n: song.notes.length,
            low: { note: Math.min(...song.notes.map((n) => n.midi)) + semitones, flats: flats },
            high: { note: Math.max(...song.notes.map((n) => n.midi)) + semitones, flats: flats },
          })}
        </p>
      </div>
    </div>
  );
}

/** The words under their notes, in two lines where they are close; what has no room in either is left to the sheet. */
function wordsIn(song: Song, x: (place: number) => number): { at: number; row: number; words: string }[] {
  const free = [0, 0];
  return song.notes.flatMap((n) => {
    const at = x(n.start) + 2;
    const row = free.findIndex((from) => at >= from);
    if (!n.words || row < 0) return [];
    free[row] = at + WORDS_PX * n.words.length + 4;
    return [{ at, row, words: n.words }];
  });
}

/** Over a bar: nothing where it is safe, an open triangle where it wants care, a filled one where it is risky. */
function BarSign({ level, x }: { level: Level; x: number }) {
  if (level === 'safe') return null;
  return (
    <path
      d={`M${x} 27l5.5-10 5.5 10z`}
      fill={level === 'risky' ? 'var(--band)' : 'none'}
      stroke="var(--band)"
      strokeWidth={1.75}
      strokeLinejoin="round"
    />
  );
}

/** What was really sung, note by note, over the melody; rings where it broke. */
function SungNotes({
  song,
  heard,
  scale,
  x,
  under = false,
}: {
  song: Song;
  heard: KeptOutcome;
  scale: LadderScale;
  x: (place: number) => number;
  /** Drawn dashed and without marks, under another. */
  under?: boolean;
}) {
  const { t } = useLanguage();
  return (
    <>
      {heard.notes.map(({ note, cents }, i) => {
        const n = song.notes[note];
        if (!n || cents === null) return null;
        const y = scale.y(n.midi + heard.semitones + (cents - heard.tuningCents) / 100);
        const [x1, x2] = [x(n.start) + 2, x(n.start + n.beats) - 2];
        return under ? (
          <line key={i} x1={x1} x2={x2} y1={y} y2={y} stroke="var(--soft)" strokeWidth={2.5} strokeDasharray="4 3" />
        ) : (
          // With an edge, so that it is seen on a note of any colour.
          <g key={i}>
            <line x1={x1} x2={x2} y1={y} y2={y} stroke="var(--card)" strokeWidth={3.5} />
            <line x1={x1} x2={x2} y1={y} y2={y} stroke="var(--ink)" strokeWidth={1.5} />
          </g>
        );
      })}
      {heard.bars.map(({ bar, broke }) => {
        if (!broke || under) return null;
        const own = heard.notes.find((s) => broke.timeS >= s.startS - 0.1 && broke.timeS < s.endS);
        const n = own && song.notes[own.note];
        return (
          <g key={bar}>
            <title>{t(breakInWords(broke, namesFlats(song, heard.semitones)))}</title>
            <MachineMark x={x(n ? n.start : song.bars[bar].start) + 4} y={scale.y(broke.midi)} />
          </g>
        );
      })}
    </>
  );
}
