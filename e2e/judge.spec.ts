import { APIRequestContext, Page } from '@playwright/test';
import { patternSpan } from '../src/core/exercise/pattern';
import { exerciseById } from '../src/core/exercise/shelf';
import { parseNote } from '../src/core/music/pitch';
import { expect, NOBODY, openSinger, practiceLink, test } from './browser';

const PHONE = { width: 390, height: 844 };
const inDays = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);
const singerIn = (page: Page) => /singers\/([^/]+)/.exec(page.url())![1];

/** Names and keys of the week on the plan page, as notes. */
const keysOfWeek = (page: Page) =>
  page.getByTestId('item').evaluateAll((all) =>
    all.map((item) => ({
      name: item.querySelector('[aria-label^="Move "]')!.getAttribute('aria-label')!.slice(5),
      notes: [...item.textContent!.matchAll(/[A-G][#b]?\d/g)].map((m) => m[0]),
    })),
  );

const pin = (request: APIRequestContext, id: string, what: string, midi: number | null) =>
  request.put(`/api/singers/${id}/pins`, { data: { what, midi } });

test('pain told on the phone: nothing is sung today, on the phone, the plan and in a lesson, from the moment it is told', async ({
  page: coach,
  browser,
  baseURL,
}) => {
  const address = await practiceLink(coach, 'Osk Varrel');
  const context = await browser.newContext({ baseURL, viewport: PHONE, storageState: NOBODY });
  const singer = await context.newPage();
  await singer.goto(address);
  await singer.getByRole('button', { name: 'It hurts' }).click();
  await singer.getByRole('button', { name: 'That’s how it is' }).click();
  await expect(singer.getByTestId('stopped')).toContainText('nothing is sung today');
  await expect(singer.getByTestId('practice-item')).toHaveCount(0);
  // Pain may be serious: what belongs to a doctor is said.
  await expect(singer.getByTestId('stopped')).toContainText('emergency number');
  await openSinger(coach, 'Osk Varrel', 'Plan');
  await expect(coach.getByTestId('today')).toContainText('nothing is sung today');
  // The week stays.
  await expect(coach.getByTestId('item').first()).toBeVisible();
  await context.close();

  await openSinger(coach, 'Osk Varrel', 'Listen');
  await coach.getByRole('button', { name: 'Ten-minute re-check' }).click();
  await coach.getByLabel(/Any pain/).check();
  await coach.getByRole('button', { name: 'Begin' }).click();
  await expect(coach.getByTestId('rests')).toContainText('nothing is sung today');
  await coach.getByRole('button', { name: /Go on all the same/ }).click();
  await expect(coach.getByTestId('ask')).toBeVisible();
});

test('a pinned range moves every key of the plan', async ({ page }) => {
  await openSinger(page, 'Lio Fenn', 'Plan');
  const id = singerIn(page);
  const before = await keysOfWeek(page);
  expect((await pin(page.request, id, 'usable-low', 55)).ok()).toBe(true);
  expect((await pin(page.request, id, 'usable-high', 67)).ok()).toBe(true);
  try {
    await page.reload();
    await expect.poll(() => keysOfWeek(page)).not.toEqual(before);
    const shelf = (await import('../src/core/exercise/shelf')).SHELF;
    for (const { name, notes } of await keysOfWeek(page)) {
      const e = shelf.find((x) => x.name === name)!;
      const { bottom, top } = patternSpan(exerciseById(e.id));
      for (const note of notes) {
        const key = parseNote(note);
        expect([name, note, key + bottom >= 55 && key + top <= 67]).toEqual([name, note, true]);
      }
    }
  } finally {
    for (const what of ['usable-low', 'usable-high']) await pin(page.request, id, what, null);
  }
});

test('a show bends the road to it, by mouse and by keyboard; it is there after a reload, and taken away again', async ({ page }) => {
  await openSinger(page, 'Maren Quill', 'Plan');
  await page.getByRole('button', { name: 'The road ahead' }).click();
  const road = page.getByTestId('road');
  await expect(road.getByRole('listitem')).toHaveCount(8);
  await expect(road).not.toContainText('the premiere');
  await page.locator('select[name=kind]').selectOption('show');
  await page.getByLabel('Called (optional)').fill('the premiere');
  await page.locator('input[name=day]').fill(inDays(35));
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(road).toContainText('The last week before the premiere: nothing new, no test.');
  await expect(road).toContainText('The day of the premiere: the show set, and no more.');
  // Kept: it is there again, and by keyboard a holiday comes beside it.
  await page.waitForTimeout(1500);
  await page.reload();
  await page.getByRole('button', { name: 'The road ahead' }).focus();
  await page.keyboard.press('Enter');
  await expect(road).toContainText('the premiere');
  await page.locator('select[name=kind]').focus();
  await page.keyboard.type('Holiday');
  await page.locator('input[name=day]').fill(inDays(1));
  await page.locator('input[name=until]').fill(inDays(6));
  await page.getByRole('button', { name: 'Add', exact: true }).focus();
  await page.keyboard.press('Enter');
  await expect(road.getByRole('listitem').first()).toContainText('30 %');
  for (const name of ['Take the premiere away', 'Take Holiday away']) await page.getByRole('button', { name }).click();
  await expect(road).not.toContainText('the premiere');
});
