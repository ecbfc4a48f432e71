import { analyseTake } from '../../core/take/analyse';
import { seededRandom } from '../../core/signal/stats';
import { followSong } from '../../core/song/follow';
import { foundIn } from './found-in';
import { PROGRAMS, renderedByFluidsynth, renders } from './rendered';

/** 95 % of 1208 notes (seeds 0 to 15 of each); these few have repeated notes, told by their lengths alone, beside wrong ones. */
const WANTED = 0.9;

(renders ? test : test.skip)('songs as FluidSynth renders them, with rubato, wrong notes and a restart, are followed', () => {
  let [notes, near] = [0, 0];
  for (const program of Object.keys(PROGRAMS) as (keyof typeof PROGRAMS)[])
    for (const seed of [20, 21, 22]) {
      const { song, pcm, truth } = renderedByFluidsynth(seededRandom(seed), { rubato: 0.2, wrong: 0.08, restart: true }, program, 8);
      const { trace } = analyseTake(pcm, 'free', { asked: { slid: false } });
      notes += truth.length;
      near += foundIn(song, truth, followSong(song, trace)).near;
    }
  expect(notes).toBeGreaterThan(160);
  expect(near / notes).toBeGreaterThanOrEqual(WANTED);
});
