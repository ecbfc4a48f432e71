import { FRESH, TakeNews, TakeStand, takeStand } from './take-stand';

type Take = { take: { id: string } };
type Stand = TakeStand<Take, string>;
const take = (id: string): Take => ({ take: { id } });
const after = (...news: TakeNews<Take, string>[]): Stand => news.reduce<Stand>(takeStand, FRESH);

test('a take from the microphone is heard here, kept by the server, and then read as the server heard it', () => {
  const ended = after({ kind: 'begun' }, { kind: 'ended', take: take('a') });
  expect(ended).toMatchObject({ at: 'storing', found: null });
  const heard = takeStand(ended, { kind: 'heard', id: 'a', found: 'here' });
  expect(heard).toMatchObject({ at: 'result', found: 'here' });
  // Already shown: nothing goes back to waiting.
  const stored = takeStand(heard, { kind: 'stored', id: 'a' });
  expect(stored).toEqual(heard);
  expect(takeStand(stored, { kind: 'analysed', id: 'a', found: 'server' })).toMatchObject({ at: 'result', found: 'server' });
});

test('a file is heard by the server only', () => {
  const stored = after({ kind: 'ended', take: take('f') }, { kind: 'stored', id: 'f' });
  expect(stored.at).toBe('analysing');
  expect(takeStand(stored, { kind: 'analysed', id: 'f', found: 'server' })).toMatchObject({ at: 'result', found: 'server' });
});

test('what was heard here comes late: the server’s own stays', () => {
  expect(
    after({ kind: 'ended', take: take('a') }, { kind: 'analysed', id: 'a', found: 'server' }, { kind: 'heard', id: 'a', found: 'here' })
      .found,
  ).toBe('server');
});

test('news of an earlier take doesn’t push aside one that was begun meanwhile', () => {
  const begun = after({ kind: 'ended', take: take('a') }, { kind: 'begun' });
  for (const news of [
    { kind: 'heard', id: 'a', found: 'x' },
    { kind: 'stored', id: 'a' },
    { kind: 'analysed', id: 'a', found: 'x' },
    { kind: 'unsent', id: 'a', heardHere: false, problem: 'no' },
    { kind: 'discarded', id: 'a' },
  ] as const) {
    expect(takeStand(begun, news)).toBe(begun);
    const next = takeStand(begun, { kind: 'ended', take: take('b') });
    expect(takeStand(next, news)).toBe(next);
  }
});

test('what can’t be sent: heard here its finding stays, else there is nothing to wait for', () => {
  const heard = after({ kind: 'ended', take: take('a') }, { kind: 'heard', id: 'a', found: 'here' });
  expect(takeStand(heard, { kind: 'unsent', id: 'a', heardHere: true, problem: null })).toEqual(heard);
  // Sent before it was heard through: that still comes.
  const ended = after({ kind: 'ended', take: take('a') });
  expect(takeStand(ended, { kind: 'unsent', id: 'a', heardHere: true, problem: null }).at).toBe('storing');
  expect(takeStand(ended, { kind: 'unsent', id: 'a', heardHere: false, problem: 'Too long.' })).toMatchObject({
    at: 'idle',
    problem: 'Too long.',
  });
  // Tried again, it keeps what was found in it, and its old problem goes.
  const again = takeStand({ ...heard, problem: 'Away.' }, { kind: 'ended', take: take('a') });
  expect(again).toMatchObject({ at: 'storing', found: 'here', problem: null });
});

test('a discarded take can be taken back until another begins', () => {
  const gone = after({ kind: 'ended', take: take('a') }, { kind: 'heard', id: 'a', found: 'here' }, { kind: 'discarded', id: 'a' });
  expect(gone).toEqual({ at: 'idle', take: null, found: null, discarded: take('a'), problem: null });
  expect(takeStand(gone, { kind: 'ended', take: take('a') })).toMatchObject({ at: 'storing', discarded: null });
  // Another that waited and is tried again leaves it.
  expect(takeStand(gone, { kind: 'ended', take: take('b') }).discarded).toEqual(take('a'));
  expect(takeStand(gone, { kind: 'begun' })).toEqual(FRESH);
});

test('a problem is said at once; it ends the waiting where it concerns what is waited for', () => {
  const waiting = after({ kind: 'ended', take: take('a') }, { kind: 'stored', id: 'a' });
  expect(takeStand(waiting, { kind: 'problem', id: 'a', problem: 'Slow.' })).toMatchObject({ at: 'idle', problem: 'Slow.' });
  expect(takeStand(waiting, { kind: 'problem', id: 'z', problem: 'Slow.' })).toMatchObject({ at: 'analysing', problem: 'Slow.' });
  const shown = takeStand(waiting, { kind: 'analysed', id: 'a', found: 'server' });
  expect(takeStand(shown, { kind: 'problem', problem: 'Blocked.' })).toMatchObject({ at: 'result', problem: 'Blocked.' });
});
