import type { Said } from '../core/words/said';
import * as fc from 'fast-check';
import type { Account } from './account';
import type { Word } from './words';

/** What a browser gives: one storage for all its pages, and locks that let one page in after another. */
function browser() {
  const stored = new Map<string, string>();
  let last: Promise<unknown> = Promise.resolve();
  let full = false;
  Object.assign(globalThis, {
    localStorage: {
      getItem: (key: string) => stored.get(key) ?? null,
      setItem(key: string, value: string) {
        if (full) throw new DOMException('full', 'QuotaExceededError');
        stored.set(key, value);
      },
    },
  });
  Object.defineProperty(globalThis, 'navigator', {
    configurable: true,
    value: { locks: { request: (_: string, work: () => Promise<void>) => (last = last.then(work, work)) } },
  });
  Object.assign(globalThis, { window: globalThis });
  return { fill: () => (full = true) };
}

/** A server that writes down what it is told; `answer` decides, null for none. */
function server(answer: (word: Word) => number | null) {
  const told: Word[] = [];
  globalThis.fetch = (async (path: string, { method, body }: RequestInit) => {
    const word = { method, path, body: body && JSON.parse(body as string) } as Word;
    const status = answer(word);
    if (status === null) throw new TypeError('no network');
    told.push(word);
    return { ok: status < 400, status, json: async () => ({ error: 'because' }) };
  }) as typeof fetch;
  return told;
}

/** A page opened in the browser by an account: its own copy of the modules, as after a reload. */
async function openPage(account: Account = 'coach:a') {
  jest.resetModules();
  (await import('./account')).actAs(account);
  return import('./words');
}

const put = (path: string, body: unknown): Word => ({ method: 'PUT', path, body });
const settle = (ms = 0) => jest.advanceTimersByTimeAsync(ms);

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

test('the last word on each thing is sent, in the order said, once the hand rests', async () => {
  browser();
  const told = server(() => 200);
  const { say, wordsUnder, wordsLane } = await openPage();
  say(put('/a', 1), 600);
  say(put('/b', 1), 600);
  say(put('/a', 2), 600);
  await settle(599);
  expect(told).toEqual([]);
  await settle(1);
  expect(told).toEqual([put('/b', 1), put('/a', 2)]);
  expect(wordsUnder('/')).toEqual([]);
  expect(wordsLane.state()).toEqual({ waiting: 0, trouble: null });
});

test('said without a network, it is there after a reload, arrives when there is one, and not twice from two pages', async () => {
  browser();
  let away = true;
  const told = server(() => (away ? null : 200));
  const first = await openPage();
  first.say(put('/a', 1));
  first.say({ method: 'DELETE', path: '/b' });
  await settle();
  expect(first.wordsLane.state()).toEqual({ waiting: 2, trouble: 'The server can’t be reached.' });
  const second = await openPage();
  expect(second.wordsUnder('/a')).toMatchObject([put('/a', 1)]);
  away = false;
  await Promise.all([first.wordsLane.flush(), second.wordsLane.flush()]);
  expect(told).toEqual([put('/a', 1), { method: 'DELETE', path: '/b' }]);
  expect(second.heardLately()).toBe(true);
  await settle(10_001);
  expect(second.heardLately()).toBe(false);
});

test('a server in trouble and a session that has ended are waited for; what is refused holds up nothing and is told', async () => {
  browser();
  const status: Record<string, number> = { '/busy': 503 };
  const told = server(({ path }) => status[path] ?? 200);
  const { say, sayAgain, takeBack, onHeard, refusedWords, wordsUnder } = await openPage();
  const heard: [string, Said | null][] = [];
  onHeard(({ path }, refused) => heard.push([path, refused]));
  say(put('/busy', 1));
  say(put('/after', 1));
  await settle();
  expect(heard).toEqual([]);
  status['/busy'] = 401;
  await settle(1000);
  expect(wordsUnder('/').length).toBe(2);
  status['/busy'] = 404;
  await settle(2000);
  expect(heard).toEqual([
    ['/busy', 'because'],
    ['/after', null],
  ]);
  expect(told.filter(({ path }) => path === '/busy').length).toBe(3);
  expect(wordsUnder('/')).toEqual([]);
  // It is set aside, shown, and sent again only when asked to.
  await settle(60_000);
  expect(told.filter(({ path }) => path === '/busy').length).toBe(3);
  expect(refusedWords()).toMatchObject([{ path: '/busy', refused: 'because' }]);
  sayAgain(refusedWords()[0].id);
  await settle();
  expect(told.filter(({ path }) => path === '/busy').length).toBe(4);
  takeBack(refusedWords()[0].id);
  expect(refusedWords()).toEqual([]);
});

test('one the server stumbles over waits while the others go', async () => {
  browser();
  const status: Record<string, number> = { '/stumbles': 500 };
  server(({ path }) => status[path] ?? 200);
  const { say, onHeard, wordsLane } = await openPage();
  const heard: string[] = [];
  onHeard(({ path }) => heard.push(path));
  for (const path of ['/stumbles', '/a', '/b']) say(put(path, 1));
  await settle();
  expect(heard).toEqual(['/a', '/b']);
  expect(wordsLane.state()).toMatchObject({ waiting: 1, trouble: 'because' });
  delete status['/stumbles'];
  await settle(5000);
  expect(heard).toEqual(['/a', '/b', '/stumbles']);
});

test('what one account said is neither sent nor shown as another’s, and what an earlier version kept is whoever’s comes first', async () => {
  browser();
  localStorage.setItem('wendel-words', JSON.stringify([{ ...put('/old', 1), id: 'old' }]));
  let away = true;
  const told = server(() => (away ? null : 200));
  const first = await openPage('coach:a');
  first.say(put('/note', 'hers'));
  await settle();
  // The page is closed.
  jest.clearAllTimers();
  away = false;
  const second = await openPage('coach:b');
  second.say(put('/note', 'his'));
  await settle(60_000);
  expect(told).toEqual([put('/old', 1), put('/note', 'his')]);
  expect([second.wordsUnder('/'), second.othersWords()]).toEqual([[], 1]);
  const third = await openPage('coach:a');
  await third.wordsLane.flush();
  expect(told.at(-1)).toEqual(put('/note', 'hers'));
});

/** What may happen in a browser, in any order. */
const happening = fc.oneof(
  {
    weight: 5,
    arbitrary: fc.record({
      does: fc.constant('say' as const),
      thing: fc.integer({ min: 0, max: 3 }),
      page: fc.integer({ min: 0, max: 2 }),
    }),
  },
  { weight: 1, arbitrary: fc.record({ does: fc.constant('reload' as const), page: fc.integer({ min: 0, max: 2 }) }) },
  { weight: 2, arbitrary: fc.record({ does: fc.constant('net' as const), status: fc.constantFrom(null, 200, 200, 500, 503, 401) }) },
  { weight: 3, arbitrary: fc.record({ does: fc.constant('wait' as const), ms: fc.integer({ min: 0, max: 30_000 }) }) },
);

test('in whatever order pages speak, reload and lose the network, the last word on each thing arrives as its own account’s', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(happening, { minLength: 5, maxLength: 25 }), async (happenings) => {
      browser();
      const ACCOUNTS: Account[] = ['coach:a', 'coach:a', 'link:b'];
      let status: number | null = 200;
      let now: Account = 'coach:a';
      const arrived = new Map<string, unknown>();
      globalThis.fetch = (async (path: string, { body, headers }: RequestInit) => {
        if (status === null) throw new TypeError('no network');
        const account = (headers as Record<string, string>)['x-wendel-account'];
        const { n, account: said } = JSON.parse(body as string);
        // Sent in no other's name.
        if (said.startsWith('coach:')) expect(`coach:${account}`).toBe(said);
        else expect(account).toBeUndefined();
        // One thing is always refused.
        const answer = status === 200 && path.endsWith('/0') ? 404 : status;
        if (answer === 200) arrived.set(path, n);
        return { ok: answer < 400, status: answer, json: async () => ({ error: 'because' }) };
      }) as typeof fetch;
      const pages = await Promise.all(ACCOUNTS.map((a) => a)).then(async (all) => {
        const opened = [];
        for (const account of all) opened.push(await openPage(account));
        return opened;
      });
      const last = new Map<string, number>();
      let n = 0;
      for (const h of happenings) {
        if (h.does === 'say') {
          now = ACCOUNTS[h.page];
          const path = `/${now}/${h.thing}`;
          last.set(path, ++n);
          pages[h.page].say(put(path, { n, account: now }));
        } else if (h.does === 'reload') pages[h.page] = await openPage(ACCOUNTS[h.page]);
        else if (h.does === 'net') status = h.status;
        else await settle(h.ms);
      }
      status = 200;
      for (const page of pages) await page.wordsLane.flush();
      await settle(60_000);
      for (const [path, word] of last)
        if (path.endsWith('/0')) {
          expect(arrived.has(path)).toBe(false);
          expect(pages.flatMap((page) => page.refusedWords()).some((w) => w.path === path)).toBe(true);
        } else expect([path, arrived.get(path)]).toEqual([path, word]);
      for (const page of pages) expect(page.wordsUnder('/')).toEqual([]);
    }),
    { numRuns: 40 },
  );
});

test('a word said while an earlier one on the same thing is under way is sent after it', async () => {
  browser();
  const told = server(() => 200);
  const { say, wordsLane } = await openPage();
  const answer = globalThis.fetch;
  globalThis.fetch = (async (...asked: Parameters<typeof fetch>) => {
    if (told.length === 0) say(put('/a', 2));
    return answer(...asked);
  }) as typeof fetch;
  say(put('/a', 1));
  await wordsLane.flush();
  expect(told).toEqual([put('/a', 1), put('/a', 2)]);
});

test('where the browser keeps nothing, the page itself holds the words until they are sent', async () => {
  const { fill } = browser();
  let away = true;
  const told = server(() => (away ? null : 200));
  const { say, wordsLane } = await openPage();
  say(put('/a', 1));
  await settle();
  fill();
  say(put('/b', 1));
  await settle();
  expect(wordsLane.state().waiting).toBe(2);
  away = false;
  await settle(2000);
  expect(told).toEqual([put('/a', 1), put('/b', 1)]);
  expect(wordsLane.state().waiting).toBe(0);
});
