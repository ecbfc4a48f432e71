import { seededRandom } from '../core/signal/stats';
import { agenda } from './agenda';

/** The looks at a clock of steps of 128 samples at 48 kHz that a busy page takes at random. */
function* looks(seed: number, endS: number) {
  const random = seededRandom(seed);
  for (let block = 0; block * 128 < endS * 48_000; block += 1 + Math.floor(30 * random())) yield (block * 128) / 48_000;
  yield endS + 1;
}

test('each thing is done once, in order and at no time but its own, however the clock is looked at', () => {
  for (let seed = 0; seed < 20; seed++) {
    const { at, doUntil } = agenda();
    const done: number[] = [];
    // Sixths of a second: many of them are the very moment of a look.
    const times = Array.from({ length: 60 }, (_, i) => i / 6);
    for (const time of [...times].reverse()) at(time, (then) => done.push(then));
    let doneBefore = 0;
    for (const look of looks(seed, 10)) {
      doUntil(look);
      expect(done.slice(doneBefore).every((time) => time < look)).toBe(true);
      doneBefore = done.length;
    }
    expect(done).toEqual(times);
  }
});

test('what a thing puts on for the time looked at is done in the same look; for later, later', () => {
  const { at, doUntil } = agenda();
  const done: string[] = [];
  at(1, (time) => {
    done.push('key');
    at(time, () => done.push('first note'));
    at(time + 0.2, () => done.push('second note'));
  });
  at(1, () => done.push('chord'));
  doUntil(1.1);
  expect(done).toEqual(['key', 'chord', 'first note']);
  doUntil(2);
  expect(done).toEqual(['key', 'chord', 'first note', 'second note']);
});

test('what fails says so, and nothing else is lost by it', () => {
  const { at, doUntil } = agenda();
  const done: number[] = [];
  at(1, () => {
    throw new Error('no such key');
  });
  at(2, (time) => done.push(time));
  expect(() => doUntil(3)).toThrow('no such key');
  doUntil(3);
  expect(done).toEqual([2]);
});
