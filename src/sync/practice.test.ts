import type { Entry } from '../core/practice/types';

const line = (id: string, day = '2026-11-27'): Entry => ({
  id,
  assignmentId: null,
  day,
  at: `${day}T09:00:00Z`,
  what: { kind: 'before', hoarse: false, ill: false, pain: true, tired: false },
});

/** A phone with one storage; each page has its own copy of the modules, as after a reload. `status` is what the server answers. */
function phone(status: () => number) {
  const stored = new Map<string, string>();
  Object.assign(globalThis, {
    localStorage: { getItem: (k: string) => stored.get(k) ?? null, setItem: (k: string, v: string) => stored.set(k, v) },
    fetch: async () => ({ ok: status() < 400, status: status(), json: async () => ({ error: 'because' }) }),
    window: globalThis,
  });
  Object.defineProperty(globalThis, 'navigator', {
    configurable: true,
    value: { locks: { request: (_: string, work: () => Promise<void>) => work() } },
  });
  return async (account: `link:${string}`) => {
    jest.resetModules();
    const [practice, words, { actAs }] = await Promise.all([import('./practice'), import('./words'), import('./account')]);
    actAs(account);
    return { ...practice, ...words };
  };
}

test('a line that the server has is still known to the page that is opened next, though that was made without it', async () => {
  const open = phone(() => 200);
  const page = await open('link:a');
  page.sayLine('a', line('1'));
  page.sayLine('a', line('2'));
  await page.wordsLane.flush();
  expect(page.wordsUnder('/api/p/a/')).toEqual([]);
  const again = await open('link:a');
  expect(again.linesKept('a').map((l) => l.id)).toEqual(['1', '2']);
  // Another singer's page knows nothing of it, and the next day it is the server's to tell.
  expect((await open('link:b')).linesKept('b')).toEqual([]);
  const tomorrow = await open('link:a');
  tomorrow.sayLine('a', line('3', '2026-11-28'));
  expect(tomorrow.linesKept('a').map((l) => l.id)).toEqual(['3']);
});

test('a line that the server would not have doesn’t count, nor comes back when it is taken away', async () => {
  const open = phone(() => 422);
  const page = await open('link:a');
  page.sayLine('a', line('1'));
  await page.wordsLane.flush();
  const [refused] = page.refusedWords();
  expect(page.linesKept('a')).toEqual([]);
  page.forgetLines(refused);
  page.takeBack(refused.id);
  expect(page.linesKept('a')).toEqual([]);
});
