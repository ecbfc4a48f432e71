import AxeBuilder from '@axe-core/playwright';
import type { Browser, Page } from '@playwright/test';
import { writeWav } from '../src/core/format/wav';
import { parseNote } from '../src/core/music/pitch';
import { dayLater } from '../src/core/plan/days';
import { lineOn } from '../src/core/practice/made-log';
import type { Entry } from '../src/core/practice/types';
import { SimTask } from '../src/core/sim/score';
import { sing } from '../src/core/sim/sing';
import { typicalProfile } from '../src/core/sim/typical';
import { answerWell, expect, NOBODY, openSinger, practiceLink, singsOnCue, test } from './browser';

const PHONE = { width: 390, height: 844 };
const SINGER = 'Ysolde Marsh';
const VOICE = { ...typicalProfile('soprano', 'blend'), breathiness: 0.1 };

const onPhone = async (browser: Browser, baseURL: string) =>
  (await browser.newContext({ baseURL, viewport: PHONE, storageState: NOBODY })).newPage();

const wavOf = (task: SimTask, airy: number, seed: number) =>
  writeWav(sing({ ...VOICE, breathiness: airy }, task, { seed, sampleRate: 44100, vowel: 'ah', snrDb: 50 }).pcm, 16);

/** How many takes this browser keeps until the server has them. */
const takesKept = (page: Page) =>
  page.evaluate(async () => {
    if (!(await indexedDB.databases()).some((db) => db.name === 'wendel-takes')) return 0;
    return new Promise<number>((resolve, reject) => {
      const opening = indexedDB.open('wendel-takes');
      opening.onerror = () => reject(opening.error!);
      opening.onsuccess = () => {
        const counting = opening.result.transaction('takes').objectStore('takes').count();
        counting.onsuccess = () => {
          opening.result.close();
          resolve(counting.result);
        };
      };
    });
  });

/** Sing one part of the check when the page listens. */
async function part(page: Page, sings: (wav: Uint8Array) => Promise<void>, wav: Uint8Array) {
  await page.getByRole('button', { name: 'Begin' }).click();
  const done = page.getByRole('button', { name: 'Done' });
  await expect(done).toBeVisible();
  await sings(wav);
  // Heard here and forgotten: nothing of it lies in the browser, to be sent by itself some day.
  expect(await takesKept(page)).toBe(0);
  // A part ends by itself when its time is over.
  if (await done.isVisible()) await done.click({ timeout: 2000 }).catch(() => undefined);
  await expect(done).toHaveCount(0);
}

/** Sing the whole check; the note that was asked for, MIDI. */
async function check(page: Page, sings: (wav: Uint8Array) => Promise<void>, airy: number, late: boolean): Promise<number> {
  await page.getByRole('button', { name: /How is the voice today/ }).click();
  await part(page, sings, wavOf({ kind: 'speech', words: 6 }, airy, 1));
  const asked = page.getByText(/^Hear /);
  await expect(asked).toBeVisible();
  const marker = parseNote((await asked.innerText()).match(/^Hear (\S+),/)![1]);
  await part(
    page,
    sings,
    late
      ? wavOf({ kind: 'sustain', midi: marker - 4, seconds: 2 }, airy, 2)
      : wavOf({ kind: 'sustain', midi: marker, seconds: 2 }, airy, 2),
  );
  await part(page, sings, wavOf({ kind: 'siren', legS: 2 }, airy, 3));
  return marker;
}

test('the one-minute check: kept at first, then compared with good days; a tired voice sings lower and less, a note that is gone rests', async ({
  page: coach,
  browser,
  baseURL,
}) => {
  test.setTimeout(480_000);
  const address = await practiceLink(coach, SINGER);
  const token = address.split('/p/')[1];
  const singer = await onPhone(browser, baseURL!);
  const sings = await singsOnCue(singer);
  await singer.goto(address);
  await answerWell(singer);
  const items = singer.getByTestId('practice-item');
  await expect(items.first()).toBeVisible();

  const marker = await check(singer, sings, 0.1, false);
  const result = singer.getByTestId('check-result');
  await expect(result).toContainText('Kept: two more good days to compare with');
  expect((await new AxeBuilder({ page: singer }).analyze()).violations).toEqual([]);

  // Four good days of figures like this one's, and the same check is as usual.
  const today = await singer.evaluate(() => new Date().toLocaleDateString('sv'));
  const line = (days: number, checked: object) =>
    lineOn(dayLater(today, -days), { kind: 'check', warm: false, markerMidi: marker, sounded: true, checked });
  const send = (entries: Entry[]) => singer.request.post(`/api/p/${token}/entries`, { data: { entries } });
  expect((await send([9, 8, 7, 6].map((d) => line(d, { late: 0.02, airy: 30, loud: 0, top: 83 })))).status()).toBe(200);
  // A figure that is none is refused, and says where.
  expect((await send([line(1, { late: 'much' })])).status()).toBe(400);
  await singer.reload();
  await expect(items.first()).toBeVisible();

  // Sung a third too low: the soft note isn't there, though it was on other days.
  await check(singer, sings, 0.1, true);
  await expect(result).toContainText('Rest today');
  await singer.getByRole('button', { name: 'Sing it again' }).click();
  await expect(singer.getByText('1 of 3')).toBeVisible();
  await singer.getByRole('button', { name: 'Not today' }).click();
  await expect(items.first()).toBeVisible();

  // An airy voice: told, and the day's work comes down.
  await check(singer, sings, 1, false);
  await expect(result).toContainText(/under its good days|Under its good days/);
  await expect(result).toContainText('airier than usual');
  await singer.getByRole('button', { name: 'That’s how it is' }).click();
  await expect(singer.getByTestId('day-bent')).toContainText('what reaches above the change');
  await expect(singer.getByRole('button', { name: /How is the voice today/ })).toHaveCount(0);

  // The coach sees it in the plan, and beside the good days.
  await openSinger(coach, SINGER, 'Plan');
  await expect(coach.getByTestId('readiness')).toContainText('airier than usual');
  await openSinger(coach, SINGER, 'Progress');
  await expect(coach.getByTestId('checked-days').locator('li')).toHaveCount(5);
  await expect(coach.getByTestId('entry').filter({ hasText: 'check of the voice' }).first()).toContainText('airier');
  await singer.context().close();
});

test('a show today: the phone has its set instead of the week’s work; warm-ups of three lengths are always there', async ({
  page: coach,
  browser,
  baseURL,
}) => {
  test.setTimeout(240_000);
  const address = await practiceLink(coach, SINGER);
  await openSinger(coach, SINGER, 'Plan');
  await coach.getByText('The road ahead').click();
  const day = await coach.evaluate(() => new Date().toLocaleDateString('sv'));
  await coach.getByLabel('What').selectOption({ label: 'Show' });
  await coach.getByLabel('Called (optional)').fill('The lantern fair');
  await coach.getByLabel('On', { exact: true }).fill(day);
  await coach.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(coach.getByRole('list', { name: 'Dates' })).toContainText('The lantern fair');

  const singer = await onPhone(browser, baseURL!);
  await expect(async () => {
    await singer.goto(address);
    await answerWell(singer);
    await expect(singer.getByTestId('day-bent')).toContainText('The lantern fair: the show set, and no more.', { timeout: 2000 });
  }).toPass();
  await expect(singer.getByTestId('practice-item').first()).toContainText('Three notes up and down');
  await expect(singer.getByTestId('practice-item').last()).toContainText('Sigh down');

  await singer.getByText('Other sets').click();
  const sets = singer.getByTestId('set');
  for (const name of ['Warm up, 3 minutes', 'Warm up, 8 minutes', 'Warm up, 15 minutes', 'Between the acts', 'Cool down'])
    await expect(sets.filter({ hasText: name })).toHaveCount(1);
  await sets.filter({ hasText: 'Between the acts' }).click();
  await expect(singer.getByRole('heading', { name: 'Between the acts' })).toBeVisible();
  await singer.getByTestId('practice-item').first().click();
  await expect(singer.getByRole('button', { name: 'Begin' })).toBeVisible();
  await singer.getByRole('button', { name: 'Back to today' }).click();
  await singer.getByRole('button', { name: 'Today’s work' }).click();
  await expect(singer.getByTestId('day-bent')).toBeVisible();

  const kept = coach.waitForResponse((r) => r.request().method() === 'PUT' && r.url().endsWith('/plan'));
  await coach.getByRole('button', { name: 'Take The lantern fair away' }).click();
  await kept;
  await expect(coach.getByText('The lantern fair')).toHaveCount(0);
  await singer.context().close();
});

test('a rehearsal told on the phone takes from the day’s practice, and stands in the coach’s log', async ({ page, browser, baseURL }) => {
  const address = await practiceLink(page, 'Maren Quill');
  const context = await browser.newContext({ baseURL, viewport: { width: 390, height: 844 }, storageState: NOBODY });
  const singer = await context.newPage();
  await singer.goto(address);
  await answerWell(singer);
  const planned = async () => Number(/of (\d+) min/.exec(await singer.locator('header').innerText())?.[1] ?? 0);
  await expect(singer.getByTestId('practice-item').first()).toBeVisible();
  const usual = await planned();
  await singer.getByText('Sang elsewhere?').click();
  const form = singer.getByRole('form', { name: 'Sang elsewhere' });
  await form.getByLabel('What').selectOption('Rehearsal');
  await form.getByLabel('Minutes').selectOption('120');
  await form.getByRole('button', { name: 'Tell it' }).click();
  await expect(singer.getByTestId('day-bent')).toContainText('The voice has worked today (rehearsal, 120 min)');
  expect(await planned()).toBeLessThan(0.7 * usual);
  await openSinger(page, 'Maren Quill', 'Progress');
  await expect(page.getByTestId('entry').filter({ hasText: 'rehearsal, 120 min' })).toHaveCount(1);
  await expect(page.getByText('Besides practice: 120 minutes')).toBeVisible();
  // In a lesson of that day it is said before anything is sung.
  await openSinger(page, 'Maren Quill', 'Listen');
  await page.getByRole('button', { name: 'Ten-minute re-check' }).click();
  await page.getByRole('button', { name: 'Begin' }).click();
  await expect(page.getByTestId('voice-today')).toContainText('rehearsal, 120 min');

  // It was no rehearsal after all: the day is as it was, and the log says nothing of it.
  const sent = singer.waitForResponse((r) => r.request().method() === 'POST' && r.url().endsWith('/entries'));
  await singer.getByRole('button', { name: 'Told by mistake: rehearsal, 120 min' }).click();
  expect((await sent).ok()).toBe(true);
  await expect(singer.getByTestId('day-bent')).toHaveCount(0);
  expect(await planned()).toBe(usual);
  await openSinger(page, 'Maren Quill', 'Progress');
  await expect(page.getByTestId('entry').first()).toBeVisible();
  await expect(page.getByTestId('entry').filter({ hasText: 'rehearsal' })).toHaveCount(0);
  await context.close();
});
