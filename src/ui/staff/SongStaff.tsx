'use client';
import { MouseEvent, useEffect, useRef, useState } from 'react';
import type { VoiceTypeId } from '../../core/plan/voice-types';
import type { Song } from '../../core/song/types';
import { useWidth } from '../kit/useWidth';
import { engraveSong } from './engrave-song';
import { useLanguage } from '../language/language';

/** As wide as a song is set for paper, pixels: sixty bars are then on one sheet. */
export const PAPER_WIDTH = 1150;
/** A press this far from a note, pixels, is still meant for it. */
const REACH_PX = 40;

/** A whole song on staves in one of its keys, as wide as there is room, or as `fixed` says (pixels). */
export function SongStaff({
  song,
  semitones = 0,
  voice,
  fixed,
  selected = null,
  onSelect,
}: {
  song: Song;
  semitones?: number;
  voice?: VoiceTypeId;
  fixed?: number;
  /** The note that is worked on, by its place in the song. */
  selected?: number | null;
  onSelect?: (note: number) => void;
}) {
  const { t } = useLanguage();
  const [room, measured] = useWidth();
  const width = fixed ?? measured;
  const box = useRef<HTMLDivElement>(null);
  const [problem, setProblem] = useState(false);
  const [drawn, setDrawn] = useState(0);
  useEffect(() => {
    let current = true;
    if (width < 100) return;
    engraveSong(song, semitones, Math.min(1200, width), voice).then(
      (sheets) => {
        if (!current) return;
        setProblem(false);
        box.current?.replaceChildren(...sheets);
        setDrawn((n) => n + 1);
      },
      () => setProblem(true),
    );
    return () => {
      current = false;
    };
  }, [song, semitones, voice, width]);
  useEffect(() => {
    box.current
      ?.querySelectorAll('[data-note]')
      .forEach((note) => note.toggleAttribute('data-selected', note.getAttribute('data-note') === String(selected)));
  }, [drawn, selected]);
  const press = ({ clientX, clientY }: MouseEvent) => {
    const notes = [...(box.current?.querySelectorAll('[data-note]') ?? [])].map((note) => {
      const { left, right, top, bottom } = note.getBoundingClientRect();
      return { note, away: Math.hypot(clientX - (left + right) / 2, clientY - (top + bottom) / 2) };
    });
    const [nearest] = notes.sort((a, b) => a.away - b.away);
    if (nearest && nearest.away <= REACH_PX) onSelect?.(Number(nearest.note.getAttribute('data-note')));
  };
  return (
    <div ref={room}>
      <div
        ref={box}
        role="img"
        aria-label={t('The notes of {title}', { title: song.title })}
        data-testid="song-staff"
        className={`min-h-28 text-ink print:min-h-0 ${onSelect ? 'cursor-pointer' : ''}`}
        onClick={onSelect ? press : undefined}
      />
      {problem && <p className="text-soft">{t('These notes can’t be drawn on a staff; everything else works with them.')}</p>}
    </div>
  );
}
