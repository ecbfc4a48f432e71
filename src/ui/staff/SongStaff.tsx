'use client';
import { useEffect, useRef, useState } from 'react';
import type { VoiceTypeId } from '../../core/plan/voice-types';
import type { Song } from '../../core/song/types';
import { useWidth } from '../kit/useWidth';
import { engraveSong } from './engrave-song';

/** A whole song on staves in one of its keys, as wide as there is room. */
export function SongStaff({ song, semitones = 0, voice }: { song: Song; semitones?: number; voice?: VoiceTypeId }) {
  const [room, width] = useWidth();
  const box = useRef<HTMLDivElement>(null);
  const [problem, setProblem] = useState(false);
  useEffect(() => {
    let current = true;
    if (width < 100) return;
    engraveSong(song, semitones, Math.min(1200, width), voice).then(
      (svg) => {
        if (!current) return;
        setProblem(false);
        box.current?.replaceChildren(svg);
      },
      () => setProblem(true),
    );
    return () => {
      current = false;
    };
  }, [song, semitones, voice, width]);
  return (
    <div ref={room}>
      <div ref={box} role="img" aria-label={`The notes of ${song.title}`} data-testid="song-staff" className="min-h-28 text-ink" />
      {problem && <p className="text-soft">These notes can’t be drawn on a staff; everything else works with them.</p>}
    </div>
  );
}
