import { Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { clusterFolder } from '../bin/lib/postgres.mjs';
import { anchorsFor, beginCourse } from '../src/core/lesson/course';
import { STEPS } from '../src/core/lesson/protocols';
import { addSinger, COACH, COPY, expect, found, sirenFile, test, withMicrophone } from './browser';

const data = COPY.data;
/** More than are sung until all has died: while something is waited for the lesson goes on by itself, on a slow machine for long. */
const SIRENS = 20;

/** The running part whose command line matches. */
function partPid(command: RegExp): number {
  const { parts } = JSON.parse(readFileSync(join(data, 'running.json'), 'utf8')) as { parts: number[] };
  return parts.find((pid) => command.test(readFileSync(`/proc/${pid}/cmdline`, 'utf8')))!;
}
const kill = (pid: number) => process.kill(pid, 'SIGKILL');
const killDatabase = () => kill(Number(readFileSync(join(clusterFolder(data), 'postmaster.pid'), 'utf8').split('\n')[0]));

/** What the browser holds of takes; runs in the page. */
const keptHere = (what: string) =>
  new Promise<unknown[]>((resolve) => {
    const open = indexedDB.open('wendel-takes');
    open.onsuccess = () => {
      const all = open.result.transaction(what).objectStore(what).getAll();
      all.onsuccess = () => (open.result.close(), resolve(all.result));
    };
  });
/** Whatever is being recorded is held by this page next; runs in the page. */
const holdNextWhatIsRecorded = async () => {
  const held = (await navigator.locks.query()).held!.filter((lock) => lock.name!.startsWith('wendel-recording-'));
  for (const { name } of held) void navigator.locks.request(name!, () => new Promise(() => {}));
};
/** Whether this page waits until somebody is done with a take; runs in the page. */
const waitsForATake = async () => (await navigator.locks.query()).pending!.some((lock) => lock.name!.startsWith('wendel-recording-'));
/** Resolves in the middle of a take: at least a second of it is kept, and it isn't over. */
const inTheMiddle = (page: Page) =>
  expect
    .poll(
      async () => {
        const takes = (await page.evaluate(keptHere, 'takes')) as { state: string; samples: number; sampleRate: number }[];
        return takes.some((t) => t.state === 'recording' && t.samples >= t.sampleRate);
      },
      { intervals: [100] },
    )
    .toBe(true);

const recordingNow = (page: Page) => expect(page.getByRole('button', { name: 'Stop' })).toBeVisible();
/** So many takes are found, or more: what waited for a part that was dead comes all at once. */
const foundSoFar = (page: Page, n: number) =>
  expect.poll(() => page.locator('[data-testid=made][data-state=found]').count()).toBeGreaterThanOrEqual(n);

/** Open a lesson of nothing but sirens, which follow one another by themselves, with a new singer; returns who that is. */
async function lessonOfSirens(page: Page, name: string): Promise<string> {
  await addSinger(page, name, 'Tenor');
  const singerId = /singers\/([^/]+)/.exec(page.url())![1];
  const steps = [{ ...STEPS.sirens, times: SIRENS }];
  const course = beginCourse({ id: 'sirens', name: 'Sirens', purpose: '', asksHealth: false, steps }, anchorsFor(null, 'tenor'));
  const lessonId = crypto.randomUUID();
  await page.request.post('/api/lessons', { data: { id: lessonId, singerId, name: 'Sirens', course } });
  await page.goto(`/singers/${singerId}/lessons/${lessonId}`);
  return singerId;
}

test('whatever dies in a lesson, no take is lost and none is doubled, and the coach is told', async ({ baseURL }) => {
  test.setTimeout(480_000);
  await withMicrophone(
    sirenFile('faults.wav', 'tenor', 'flip', 21, 2.6).path,
    async (page) => {
      page.on('dialog', (d) => void d.accept());
      const singerId = await lessonOfSirens(page, 'Nib Calloway');
      const safe = page.getByText(/safe in this browser/).first();

      await page.locator('body').press('Space');
      await recordingNow(page);
      kill(partPid(/main\.mjs/));
      await foundSoFar(page, 1);

      await recordingNow(page);
      kill(partPid(/next/));
      await foundSoFar(page, 2);

      await recordingNow(page);
      killDatabase();
      await foundSoFar(page, 3);

      await recordingNow(page);
      await page.context().setOffline(true);
      await expect(safe).toBeVisible();
      // The lesson goes on without the server.
      await recordingNow(page);
      await page.context().setOffline(false);
      await foundSoFar(page, 4);

      await page.goto(`/singers/${singerId}/map`);
      const takes = page.getByRole('region', { name: 'Takes' }).getByRole('row');
      const count = await takes.count();
      expect(count).toBeGreaterThanOrEqual(4);
      const links = await takes.getByRole('link').evaluateAll((all) => all.map((a) => (a as HTMLAnchorElement).href));
      expect(new Set(links).size).toBe(count);
      // The lesson goes on, so one may be cut off by leaving it; all that was sung to its end is gone from the browser.
      const states = async () => ((await page.evaluate(keptHere, 'takes')) as { state: string }[]).map((take) => take.state);
      await expect.poll(async () => (await states()).filter((state) => state !== 'recording')).toEqual([]);
    },
    baseURL!,
  );
});

test('a take that a reload cuts off is offered as far as it was sung, and the lesson stands where it stood', async ({ baseURL }) => {
  await withMicrophone(
    // So long that a slow machine reloads in the middle, too.
    sirenFile('reload.wav', 'tenor', 'flip', 23, 30).path,
    async (page) => {
      page.on('dialog', (d) => void d.accept());
      const singerId = await lessonOfSirens(page, 'Wren Calloway');
      const cutOff = page.getByText(/was cut off after \d+\.\d s/);
      await page.locator('body').press('Space');
      await recordingNow(page);
      const waitsForIt = await page.context().newPage();
      await waitsForIt.goto('/');
      await page.bringToFront();
      await inTheMiddle(page);
      const stood = await page.getByTestId('ask-key').innerText();
      // Another page is at the take a little longer, as the worker of a page that was left may be: it is offered after that.
      await waitsForIt.evaluate(holdNextWhatIsRecorded);
      await page.reload();
      await expect.poll(() => page.evaluate(waitsForATake)).toBe(true);
      await expect(cutOff).toBeHidden();
      await waitsForIt.close();
      await expect(cutOff).toBeVisible();
      await page.getByRole('button', { name: 'Keep the take' }).click();
      await expect(page.getByText(/was cut off/)).toBeHidden();
      await expect(page.getByTestId('ask-key')).toHaveText(stood);

      await page.goto(`/singers/${singerId}/map`);
      await expect(page.getByRole('region', { name: 'Takes' }).getByRole('link')).toHaveCount(1);
      // Nothing is left behind in the browser.
      for (const what of ['takes', 'blocks']) await expect.poll(() => page.evaluate(keptHere, what)).toEqual([]);
    },
    baseURL!,
  );
});

test('a device whose storage is full says so, and the take still arrives', async ({ baseURL }) => {
  await withMicrophone(
    sirenFile('full.wav', 'tenor', 'flip', 22, 2).path,
    async (page) => {
      await addSinger(page, 'Tamsin Quill', 'Tenor');
      const session = await page.context().newCDPSession(page);
      await session.send('Storage.overrideQuotaForOrigin', { origin: new URL(page.url()).origin, quotaSize: 1 });
      await page.locator('body').press('Space');
      await recordingNow(page);
      await expect(page.getByText(/storage is full: the take is held in this page only until it is sent/)).toBeVisible();
      await page.waitForTimeout(4000);
      await page.locator('body').press('Space');
      await expect(found(page)).toBeVisible();
      const id = /takes\/([^/]+)/.exec((await found(page).getByRole('link', { name: 'Review' }).getAttribute('href'))!)![1];
      await expect.poll(async () => (await page.request.get(`/api/takes/${id}/audio`)).status()).toBe(200);
    },
    baseURL!,
  );
});

test('a button takes no press before the page listens: it would be lost', async ({ page }) => {
  let come = () => {};
  const scriptsMayCome = new Promise<void>((done) => (come = done));
  await page.route('**/_next/static/**/*.js', async (route) => {
    await scriptsMayCome;
    await route.continue();
  });
  await page.goto('/', { waitUntil: 'commit' });
  const account = page.getByRole('button', { name: COACH.name });
  await expect(account).toBeVisible();
  const pressed = account.click();
  expect(await Promise.race([pressed.then(() => 'pressed'), page.waitForTimeout(1500).then(() => 'not yet')])).toBe('not yet');
  come();
  await pressed;
  await expect(page.getByRole('menuitem', { name: 'Sign out' })).toBeVisible();
});
