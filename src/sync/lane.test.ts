import type { Said } from '../core/words/said';
import { Away, Refused } from './answer';
import { lane } from './lane';

/** The browser's locks, between what goes on in one test. */
const locks = new Map<string, Promise<unknown>>();
beforeAll(() => {
  Object.defineProperty(globalThis, 'navigator', {
    configurable: true,
    value: {
      locks: {
        request(name: string, work: () => Promise<unknown>) {
          const mine = (locks.get(name) ?? Promise.resolve()).then(work);
          locks.set(
            name,
            mine.catch(() => {}),
          );
          return mine;
        },
      },
    },
  });
});
beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

type No = () => Error;
/** A lane with things that wait, each with what sending it comes to, time after time: an error, or nothing for a yes. */
function laneOf(comesTo: Record<string, (No | null)[]>, name = 'things') {
  const waits = new Map(Object.keys(comesTo).map((id) => [id, { id }]));
  const sent: string[] = [];
  const refused: [string, Said][] = [];
  const things = lane<{ id: string }>({
    name,
    pending: () => [...waits.values()],
    async send({ id }) {
      sent.push(id);
      await Promise.resolve();
      const no = comesTo[id].shift();
      if (no) throw no();
      waits.delete(id);
    },
    refuse({ id }, why) {
      refused.push([id, why]);
      waits.delete(id);
    },
  });
  return { things, sent, refused, waits };
}

test('things go in their order; one that is refused is put aside with its reason and holds up no other', async () => {
  const { things, sent, refused } = laneOf({ a: [null], b: [() => new Refused('This take is gone.')], c: [null] });
  await things.flush();
  expect(sent).toEqual(['a', 'b', 'c']);
  expect(refused).toEqual([['b', 'This take is gone.']]);
  expect(things.state()).toEqual({ waiting: 0, trouble: null });
  // Nothing waits: nothing is tried again.
  await jest.advanceTimersByTimeAsync(60_000);
  expect(sent).toHaveLength(3);
});

test('one that the server stumbles over waits while the others go, and is told', async () => {
  const { things, sent } = laneOf({ a: [() => new Error('A fault.'), null], b: [null] });
  const told: string[] = [];
  things.watch(() => told.push(JSON.stringify(things.state())));
  await things.flush();
  expect(sent).toEqual(['a', 'b']);
  expect(things.state()).toEqual({ waiting: 1, trouble: 'A fault.' });
  await jest.advanceTimersByTimeAsync(1000);
  expect(sent).toEqual(['a', 'b', 'a']);
  expect(things.state()).toEqual({ waiting: 0, trouble: null });
  expect(told).toHaveLength(2);
});

test('where nobody is there nothing more is tried, and all is tried again: soon at first, then every twenty seconds, soon again after a yes', async () => {
  const away = () => new Away('The server can’t be reached.');
  const { things, sent, waits } = laneOf({ a: [...Array<No>(8).fill(away), null], b: [away, null] });
  await things.flush();
  expect(sent).toEqual(['a']);
  const pauses: number[] = [];
  for (let tries = 1, since = 0; tries < 8;) {
    await jest.advanceTimersByTimeAsync(500);
    since += 0.5;
    if (sent.length > tries) {
      pauses.push(since);
      [tries, since] = [sent.length, 0];
    }
  }
  expect(pauses).toEqual([1, 2, 4, 8, 16, 20, 20]);
  // It is there again: the first goes, the second is not taken yet, and the wait is short once more.
  await jest.advanceTimersByTimeAsync(20_000);
  expect([...waits.keys()]).toEqual(['b']);
  const before = sent.length;
  await jest.advanceTimersByTimeAsync(1000);
  expect(sent).toHaveLength(before + 1);
  expect(waits.size).toBe(0);
});

test('two tabs send one after the other, never the same thing twice', async () => {
  const one = laneOf({ a: [null], b: [null] }, 'shared');
  const other = lane<{ id: string }>({
    name: 'shared',
    pending: () => [...one.waits.values()],
    send: async ({ id }) => void one.sent.push(`again ${id}`),
    refuse: () => {},
  });
  await Promise.all([one.things.flush(), other.flush()]);
  expect(one.sent).toEqual(['a', 'b']);
});

test('what is put off goes once, when the hand has rested', async () => {
  const { things, sent } = laneOf({ a: [null] });
  for (let presses = 0; presses < 5; presses++) {
    things.flushIn(800);
    await jest.advanceTimersByTimeAsync(500);
  }
  expect(sent).toEqual([]);
  await jest.advanceTimersByTimeAsync(300);
  expect(sent).toEqual(['a']);
});

test('a watcher that left is told no more', async () => {
  const { things } = laneOf({ a: [null] });
  const told = jest.fn();
  things.watch(told)();
  await things.flush();
  expect(told).not.toHaveBeenCalled();
});
