import { analyseTake } from '../../core/take/analyse';
import { seededRandom } from '../../core/signal/stats';
import { followSong } from '../../core/song/follow';
import { foundIn } from './found-in';
import { drawRecording } from './recording';
import { singsWords, sungOnWords } from './sung-words';

/** Seeds nothing was tuned on (0 to 39 of this maker were). */
const SEEDS = [300, 301, 302, 303, 304, 305];

// Wanted: 95 % of notes within 80 ms and the right bar, rubato of a fifth either way, wrong notes and a restart.
(singsWords ? test : test.skip)('songs sung on words by another maker’s voice, in drawn rooms, are followed', () => {
  let [notes, near, inBar] = [0, 0, 0];
  for (const seed of SEEDS) {
    const { song, pcm, truth } = sungOnWords(seededRandom(seed), { rubato: 0.2, wrong: 0.08, restart: true }, 8);
    const { trace } = analyseTake(drawRecording(seed).of(pcm, 0), 'free', { asked: { slid: false } });
    const found = foundIn(song, truth, followSong(song, trace));
    notes += truth.length;
    near += found.near;
    inBar += found.inBar;
  }
  expect(notes).toBeGreaterThan(150);
  expect(near / notes).toBeGreaterThanOrEqual(0.95);
  expect(inBar / notes).toBeGreaterThanOrEqual(0.95);
});
