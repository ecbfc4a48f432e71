'use client';
import { useEffect, useRef } from 'react';
import type { Exercise } from '../../core/exercise/types';
import { noteName } from '../../core/music/pitch';
import type { VoiceTypeId } from '../../core/plan/voice-types';
import { engrave } from './engrave';

interface Props {
  exercise: Pick<Exercise, 'name' | 'steps'>;
  tonic: number;
  voice?: VoiceTypeId;
  /** The note marked, and what a press on a note does: for the editor. */
  selected?: number | null;
  onSelect?: (step: number) => void;
}

/** An exercise in one key on a staff, engraved by the notation library in its own font. */
export function Staff({ exercise, tonic, voice, selected = null, onSelect }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const places = useRef<number[]>([]);
  useEffect(() => {
    let current = true;
    void engrave({ exercise, tonic, voice, selected }).then((engraved) => {
      if (!current) return;
      places.current = engraved.places;
      box.current?.replaceChildren(engraved.svg);
    });
    return () => {
      current = false;
    };
  }, [exercise, tonic, voice, selected]);
  const press = (event: React.MouseEvent) => {
    const svg = box.current?.querySelector('svg');
    if (!svg || !onSelect || places.current.length === 0) return;
    const { left, width } = svg.getBoundingClientRect();
    const x = ((event.clientX - left) / width) * svg.viewBox.baseVal.width;
    const off = places.current.map((p) => Math.abs(p - x));
    onSelect(off.indexOf(Math.min(...off)));
  };
  return (
    <div
      ref={box}
      role="img"
      aria-label={`${exercise.name} from ${noteName(tonic)}`}
      data-testid="staff"
      className={`min-h-14 text-ink print:min-h-0 ${onSelect ? 'cursor-pointer' : ''}`}
      onClick={onSelect ? press : undefined}
    />
  );
}
