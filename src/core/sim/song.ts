import type { KeyInTime } from '../exercise/render';
import { phrasesOf } from '../song/phrases';
import { secondsAt, Song } from '../song/types';
import type { SimTask } from './score';

/** A song as a task for the simulated singer: phrase after phrase, `semitones` higher than written, a breath where the song has one. */
export function songTask(song: Song, semitones = 0): SimTask {
  const phrases = phrasesOf(song);
  const at = (place: number) => secondsAt(song, place);
  const keys = phrases.map(({ first, last }, p): KeyInTime => {
    const from = p === 0 ? 0 : at(song.notes[first].start);
    const next = phrases[p + 1];
    const notes = song.notes.slice(first, last + 1);
    const end = at(notes[notes.length - 1].start + notes[notes.length - 1].beats);
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
      totalS: (next ? at(song.notes[next.first].start) : end) - from,
    };
  });
  return { kind: 'exercise', keys };
}
