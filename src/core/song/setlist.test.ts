import * as fc from 'fast-check';
import { mapOfVoice, VoiceFile } from '../format/voice-file';
import { seededRandom } from '../signal/stats';
import { keysFor } from './keys';
import { drawnSong } from './made-song';
import { setlistFor } from './setlist';
import { songVoice } from './voice';

const voice = songVoice(
  mapOfVoice(VoiceFile.parse({ range: { touched: { low: 'F3', high: 'B5' } }, passaggi: [{ up: 'A4', down: 'G4', name: 'flip' }] })),
  'mezzo',
)!;

test('a set of any songs: each once, the lightest first, a light one last, the heavier ones apart, rests after each', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 1e6 }), (many, seed) => {
      const random = seededRandom(seed);
      const songs = Array.from({ length: many }, (_, i) => {
        const song = drawnSong(random, { bars: 4 + Math.floor(20 * random()), low: 57, high: 70 + Math.floor(9 * random()) });
        return { id: `s${i}`, song, key: keysFor(song, voice)[0] };
      });
      const set = setlistFor(songs, voice);
      expect(set.map((p) => p.id).sort()).toEqual(songs.map((s) => s.id).sort());
      const loads = set.map((p) => p.load);
      expect(loads[0]).toBe(Math.min(...loads));
      if (many > 2) expect(loads[many - 1]).toBe([...loads].sort((a, b) => a - b)[1]);
      expect(set[many - 1].soFar).toBeCloseTo(1, 9);
      expect(set[many - 1].restMinutes).toBe(0);
      for (const p of set.slice(0, -1)) {
        expect(p.restMinutes * 60).toBeGreaterThanOrEqual(p.seconds * (p.heavy ? 2 : 1) - 1e-6);
      }
      // Of those between, no two of the heavier half follow each other.
      const between = loads.slice(1, many > 2 ? -1 : undefined);
      const half = [...between].sort((a, b) => a - b)[Math.floor(between.length / 2)];
      if (between.length % 2 === 0 || between.length > 2)
        between.forEach((load, i) => expect(i > 0 && load >= half && between[i - 1] >= half).toBe(false));
      // The heaviest stands neither first nor last of three or more.
      if (many > 3) expect([0, many - 1]).not.toContain(loads.indexOf(Math.max(...loads)));
    }),
    { numRuns: 60, seed: 2 },
  );
  expect(setlistFor([], voice)).toEqual([]);
});

test('what lies high and goes wrong costs more than what doesn’t', () => {
  const song = drawnSong(seededRandom(3), { bars: 12, low: 57, high: 66 });
  const keys = keysFor(song, voice);
  const low = { id: 'low', song, key: keys.find((k) => k.semitones === 0)! };
  const high = { id: 'high', song, key: keys.find((k) => k.semitones === 7)! };
  const [first, second] = setlistFor([high, low], voice);
  expect([first.id, second.id]).toEqual(['low', 'high']);
  expect(second.load).toBeGreaterThan(1.2 * first.load);
  expect(second.seconds).toBeCloseTo(first.seconds, 9);
});
