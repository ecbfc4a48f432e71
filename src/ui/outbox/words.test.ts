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

/** A page opened in the browser: its own copy of the module, as after a reload. */
async function openPage() {
  jest.resetModules();
  return import('./words');
}

const put = (path: string, body: unknown): Word => ({ method: 'PUT', path, body });
const settle = (ms = 0) => jest.advanceTimersByTimeAsync(ms);

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

test('the last word on each thing is sent, in the order said, once the hand rests', async () => {
  browser();
  const told = server(() => 200);
  const { say, wordsUnder, wordsState } = await openPage();
  say(put('/a', 1), 600);
  say(put('/b', 1), 600);
  say(put('/a', 2), 600);
  await settle(599);
  expect(told).toEqual([]);
  await settle(1);
  expect(told).toEqual([put('/b', 1), put('/a', 2)]);
  expect(wordsUnder('/')).toEqual([]);
  expect(wordsState()).toEqual({ waiting: 0, trouble: null });
});

test('said without a network, it is there after a reload, arrives when there is one, and not twice from two pages', async () => {
  browser();
  let away = true;
  const told = server(() => (away ? null : 200));
  const first = await openPage();
  first.say(put('/a', 1));
  first.say({ method: 'DELETE', path: '/b' });
  await settle();
  expect(first.wordsState()).toEqual({ waiting: 2, trouble: 'The server can’t be reached.' });
  const second = await openPage();
  expect(second.wordsUnder('/a')).toMatchObject([put('/a', 1)]);
  away = false;
  await Promise.all([first.sendWords(), second.sendWords()]);
  expect(told).toEqual([put('/a', 1), { method: 'DELETE', path: '/b' }]);
  expect(second.heardLately()).toBe(true);
  await settle(10_001);
  expect(second.heardLately()).toBe(false);
});

test('a server in trouble and a session that has ended are waited for; what is refused holds up nothing and is told', async () => {
  browser();
  const status: Record<string, number> = { '/busy': 503 };
  const told = server(({ path }) => status[path] ?? 200);
  const { say, onHeard, wordsUnder } = await openPage();
  const heard: [string, string | null][] = [];
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
});

test('a word said while an earlier one on the same thing is under way is sent after it', async () => {
  browser();
  const told = server(() => 200);
  const { say, sendWords } = await openPage();
  const answer = globalThis.fetch;
  globalThis.fetch = (async (...asked: Parameters<typeof fetch>) => {
    if (told.length === 0) say(put('/a', 2));
    return answer(...asked);
  }) as typeof fetch;
  say(put('/a', 1));
  await sendWords();
  expect(told).toEqual([put('/a', 1), put('/a', 2)]);
});

test('where the browser keeps nothing, the page itself holds the words until they are sent', async () => {
  const { fill } = browser();
  let away = true;
  const told = server(() => (away ? null : 200));
  const { say, wordsState } = await openPage();
  say(put('/a', 1));
  await settle();
  fill();
  say(put('/b', 1));
  await settle();
  expect(wordsState().waiting).toBe(2);
  away = false;
  await settle(2000);
  expect(told).toEqual([put('/a', 1), put('/b', 1)]);
  expect(wordsState().waiting).toBe(0);
});
