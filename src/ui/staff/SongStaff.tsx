'use client';
import { useEffect, useRef, useState } from 'react';
import type { VoiceTypeId } from '../../core/plan/voice-types';
import type { Song } from '../../core/song/types';
import { useWidth } from '../kit/useWidth';
import { engraveSong } from './engrave-song';

/** As wide as a song is set for paper, pixels: sixty bars are then on one sheet. */
export const PAPER_WIDTH = 1150;

/** A whole song on staves in one of its keys, as wide as there is room, or as `fixed` says (pixels). */
export function SongStaff({ song, semitones = 0, voice, fixed }: { song: Song; semitones?: number; voice?: VoiceTypeId; fixed?: number }) {
  const [room, measured] = useWidth();
  const width = fixed ?? measured;
  const box = useRef<HTMLDivElement>(null);
  const [problem, setProblem] = useState(false);
  useEffect(() => {
    let current = true;
    if (width < 100) return;
    engraveSong(song, semitones, Math.min(1200, width), voice).then(
      (sheets) => {
        if (!current) return;
        setProblem(false);
        box.current?.replaceChildren(...sheets);
      },
      () => setProblem(true),
    );
    return () => {
      current = false;
    };
  }, [song, semitones, voice, width]);
  return (
    <div ref={room}>
      <div
        ref={box}
        role="img"
        aria-label={`The notes of ${song.title}`}
        data-testid="song-staff"
        className="min-h-28 text-ink print:min-h-0"
      />
      {problem && <p className="text-soft">These notes can’t be drawn on a staff; everything else works with them.</p>}
    </div>
  );
}
