import type { KeyInTime } from '../exercise/render';
import type { Phrase } from './phrases';
import { barAt, secondsAt, Song } from './types';

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

/** The first note of a phrase, held for a bar, before the piano goes through it: what a pianist gives to begin on. */
export function startingNote(song: Song, { first }: Pick<Phrase, 'first'>, semitones = 0): KeyInTime {
  const { start, midi } = song.notes[first];
  const bar = song.bars[barAt(song, start)];
  const totalS = secondsAt(song, bar.start + bar.beats) - secondsAt(song, bar.start);
  return { tonic: midi + semitones, chord: [midi + semitones], chordS: totalS, notes: [], totalS };
}
