import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import type { Account } from './account';
import type { TakeIdentity } from './kept-takes';

const sent: { path: string; bytes: number; account: string | undefined }[] = [];
let answer: (path: string) => { status: number; error: string | null } | null;
jest.mock('./put-file', () => ({
  putFile: async ({ path, file, headers }: { path: string; file: ArrayBuffer; headers: Record<string, string> }) => {
    const said = answer(path);
    if (said?.error === null) sent.push({ path, bytes: file.byteLength, account: headers['x-wendel-account'] });
    return said;
  },
}));

const YES = { status: 200, error: null };
const identity = (id: string, more: Partial<TakeIdentity> = {}): TakeIdentity => ({
  id,
  singerId: 's',
  singerName: 'Lio Fenn',
  task: 'siren',
  vowel: 'ah',
  colour: null,
  source: 'microphone',
  recordedAt: `2026-11-27T10:00:0${id}.000Z`,
  lessonId: null,
  step: '',
  asked: null,
  ...more,
});

/** A page opened by an account: its own copy of the modules on the same stores. */
async function openPage(account: Account) {
  jest.resetModules();
  (await import('./account')).actAs(account);
  return { ...(await import('./kept-takes')), ...(await import('./takes')) };
}

let locks: Map<string, Promise<unknown>>;
let held: string[];
beforeEach(() => {
  sent.length = 0;
  locks = new Map();
  held = [];
  indexedDB = new IDBFactory();
  Object.assign(globalThis, { window: globalThis });
  Object.defineProperty(globalThis, 'navigator', {
    configurable: true,
    value: {
      locks: {
        request: (name: string, work: () => Promise<void>) => {
          const one = (locks.get(name) ?? Promise.resolve()).then(work, work);
          locks.set(name, one);
          return one;
        },
        query: async () => ({ held: held.map((name) => ({ name })) }),
      },
    },
  });
  jest.useFakeTimers({ doNotFake: ['setImmediate', 'queueMicrotask', 'nextTick'] });
});
afterEach(() => jest.useRealTimers());

/** A take recorded in blocks, as the recording worker keeps it. */
async function recorded(page: Awaited<ReturnType<typeof openPage>>, take: TakeIdentity, account: Account | undefined) {
  await page.beginKept({ ...take, account }, 44100);
  await page.addBlock(take.id, 0, new Float32Array(441));
  await page.addBlock(take.id, 1, new Float32Array(441));
  await page.updateKept(take.id, { state: 'ready' });
}

test('without a network takes wait, and go oldest first when there is one, whole, and once from two pages', async () => {
  answer = () => null;
  const one = await openPage('coach:a');
  await recorded(one, identity('2'), 'coach:a');
  await recorded(one, identity('1'), 'coach:a');
  await one.takesLane.flush();
  expect(one.takesLane.state()).toEqual({ waiting: 2, trouble: 'The server can’t be reached.' });
  answer = () => YES;
  const two = await openPage('coach:a');
  await Promise.all([one.takesLane.flush(), two.takesLane.flush()]);
  expect(sent.map(({ path }) => /takes\/(\d)/.exec(path)![1])).toEqual(['1', '2']);
  // 44 bytes of header and 882 samples of 3 bytes.
  expect(sent.every(({ bytes, account }) => bytes === 44 + 882 * 3 && account === 'a')).toBe(true);
  expect(await two.keptTakes()).toEqual([]);
});

test('one that is refused stays here with the reason and holds up no other', async () => {
  answer = (path) => (path.includes('/1?') ? { status: 404, error: 'no such singer' } : YES);
  const page = await openPage('coach:a');
  for (const id of ['1', '2']) await recorded(page, identity(id), 'coach:a');
  await page.takesLane.flush();
  expect(sent).toHaveLength(1);
  expect(await page.keptTakes()).toMatchObject([{ id: '1', refused: 'no such singer' }]);
  await page.takesLane.flush();
  expect(sent).toHaveLength(1);
});

test('a take is shown to, and sent as, whoever recorded it; an earlier version’s by whichever link it came', async () => {
  answer = () => YES;
  const mine = await openPage('coach:a');
  await recorded(mine, identity('1'), 'coach:a');
  await recorded(mine, identity('2', { via: 'token' }), undefined);
  const other = await openPage('coach:b');
  expect([await other.keptTakes(), await other.othersTakes()]).toEqual([[], 2]);
  await other.takesLane.flush();
  expect(sent).toEqual([]);
  const singer = await openPage('link:token');
  await singer.takesLane.flush();
  expect(sent).toMatchObject([{ path: expect.stringContaining('/api/p/token/takes/2'), account: undefined }]);
  expect(await other.othersTakes()).toBe(1);
});

test('a recording that nobody holds was cut off; one under way was not', async () => {
  const page = await openPage('coach:a');
  for (const id of ['1', '2']) await page.beginKept({ ...identity(id), account: 'coach:a' }, 44100);
  held = [page.recordingLock('2')];
  const { cutOff, underWay } = await page.unended();
  expect([cutOff, underWay].map((takes) => takes.map((t) => t.id))).toEqual([['1'], ['2']]);
});

test('a word spoken without a network waits, and goes once, to the line it is of; where nothing is kept it goes at once', async () => {
  const singer = { id: 's', name: 'Lio Fenn' };
  const speak = async (page: Awaited<ReturnType<typeof openPage>>, line: string) =>
    (await import('./spoken')).keepSpoken('token', singer, line, new ArrayBuffer(100)).then(() => page);
  answer = () => null;
  const page = await speak(await openPage('link:token'), 'line-1');
  await page.takesLane.flush();
  expect(page.takesLane.state().waiting).toBe(1);
  answer = () => YES;
  const again = await openPage('link:token');
  await again.takesLane.flush();
  await again.takesLane.flush();
  expect(sent.map((s) => [s.path.split('?')[0], s.bytes])).toEqual([['/api/p/token/spoken/line-1', 100]]);

  Object.assign(indexedDB, {
    open: () => {
      throw new Error('nothing is kept');
    },
  });
  await speak(await openPage('link:token'), 'line-2');
  expect(sent.map((s) => s.path.split('?')[0]).at(-1)).toBe('/api/p/token/spoken/line-2');
  answer = () => null;
  await expect(speak(await openPage('link:token'), 'line-3')).rejects.toThrow(/can’t be reached/);
});
