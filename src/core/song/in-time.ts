import type { KeyInTime } from '../exercise/render';
import type { Phrase } from './phrases';
import { secondsAt, Song } from './types';

/**
 * Phrases of a song laid out in time as an exercise's keys are, so that whatever plays or sings those does it: no chord before, each note held until
 * the next, a breath where the song has one. The first begins at once; `lead`: where the song does.
 */
export function songInTime(song: Song, phrases: readonly Pick<Phrase, 'first' | 'last'>[], semitones = 0, lead = false): KeyInTime[] {
  const at = (place: number) => secondsAt(song, place);
  return phrases.map(({ first, last }, p): KeyInTime => {
    const from = p === 0 && lead ? 0 : at(song.notes[first].start);
    const next = phrases[p + 1];
    const notes = song.notes.slice(first, last + 1);
    const end = at(notes[notes.length - 1].start + notes[notes.length - 1].beats);
    const follows = next !== undefined && song.notes[next.first].start > song.notes[first].start;
    return {
      tonic: notes[0].midi + semitones,
      chord: [],
      chordS: 0,
      notes: notes.map((n, i) => ({
        startS: at(n.start) - from,
        // Held until the next: a rest inside a phrase is sung over.
        endS: (notes[i + 1] ? at(notes[i + 1].start) : end) - from,
        midi: n.midi + semitones,
        slide: n.slide ?? false,
      })),
      totalS: (follows ? at(song.notes[next.first].start) : end) - from,
    };
  });
}
