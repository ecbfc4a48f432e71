import { DEMO_SONGS } from './demo-songs';
import { SongShape } from '../format/song';
import { partOf } from './part';
import { phrasesOf } from './phrases';
import { secondsAt } from './types';

test('each phrase of a song is a song: its notes as long and as far apart, from the beginning of its first bar', () => {
  for (const song of DEMO_SONGS) {
    const slower = { ...song, tempi: [...song.tempi, { start: song.bars[4].start, tempo: song.tempi[0].tempo / 2 }] };
    for (const phrase of phrasesOf(slower)) {
      const part = SongShape.parse(partOf(slower, phrase));
      expect(part.bars[0].start).toBe(0);
      expect(part.notes.map((n) => n.midi)).toEqual(slower.notes.slice(phrase.first, phrase.last + 1).map((n) => n.midi));
      const lasts = (of: typeof part, a: number, b: number) => secondsAt(of, of.notes[b].start) - secondsAt(of, of.notes[a].start);
      expect(lasts(part, 0, part.notes.length - 1)).toBeCloseTo(lasts(slower, phrase.first, phrase.last), 9);
    }
  }
});
