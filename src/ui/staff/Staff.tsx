'use client';
import { asKey, flatsIn } from '../../core/music/scale';
import { exerciseName } from '../../core/exercise/of-song';
import { useLanguage } from '../language/language';
import { useEffect, useMemo, useRef } from 'react';
import { stepSemitones } from '../../core/exercise/pattern';
import type { Exercise } from '../../core/exercise/types';
import { leansIn } from '../../core/exercise/vowel-lean';
import type { VoiceTypeId } from '../../core/plan/voice-types';
import { engrave } from './engrave';

interface Props {
  exercise: Pick<Exercise, 'name' | 'ofSong' | 'steps'> & Partial<Pick<Exercise, 'weight'>>;
  tonic: number;
  voice?: VoiceTypeId;
  /** What it is sung on, and where this voice changes: the note from which an open vowel leans is marked. */
  leaning?: { sound: string; changeMidi: number };
  /** The note marked, and what a press on a note does: for the editor. */
  selected?: number | null;
  onSelect?: (step: number) => void;
}

/** An exercise in one key on a staff, engraved by the notation library in its own font. */
export function Staff({ exercise, tonic, voice, leaning, selected = null, onSelect }: Props) {
  const { t, tongue } = useLanguage();
  const { movableDo } = tongue;
  const { sound, changeMidi } = leaning ?? {};
  const leans = useMemo(
    () => (sound === undefined || changeMidi === undefined ? [] : leansIn({ weight: 0, ...exercise }, sound, tonic, changeMidi)),
    [exercise, sound, tonic, changeMidi],
  );
  const box = useRef<HTMLDivElement>(null);
  const places = useRef<number[]>([]);
  useEffect(() => {
    let current = true;
    // By itself: together with what is drawn around it the page would be held up.
    const soon = setTimeout(() =>
      engrave({ exercise, tonic, voice, selected, leans, movableDo }).then((engraved) => {
        if (!current) return;
        places.current = engraved.places;
        box.current?.replaceChildren(engraved.svg);
      }),
    );
    return () => {
      current = false;
      clearTimeout(soon);
    };
  }, [exercise, tonic, voice, selected, leans, movableDo]);
  const first = leans.find((l) => l.leans);
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
      aria-label={
        first
          ? t('{name} from {tonic}; from {note} up the vowel leans toward “{vowel}”', {
              name: exerciseName(exercise),
              tonic: asKey(tonic),
              note: { note: tonic + stepSemitones(exercise.steps[first.step]), flats: flatsIn(tonic) },
              vowel: first.vowel,
            })
          : t('{name} from {tonic}', { name: exerciseName(exercise), tonic: asKey(tonic) })
      }
      data-testid="staff"
      className={`min-h-14 text-ink print:min-h-0 ${onSelect ? 'cursor-pointer' : ''}`}
      onClick={onSelect ? press : undefined}
    />
  );
}
