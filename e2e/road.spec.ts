import AxeBuilder from '@axe-core/playwright';
import { readFileSync } from 'node:fs';
import { dayLater } from '../src/core/plan/days';
import { done, lineOn } from '../src/core/practice/made-log';
import type { Entry } from '../src/core/practice/types';
import { expect, openSinger, practiceLink, test } from './browser';

test('the road: a phase is moved by arrow and by hand, a show bends it, it goes on one page and into a calendar', async ({ page }) => {
  test.setTimeout(180_000);
  await openSinger(page, 'Osk Varrel', 'Plan');
  await page.getByText('The road ahead').click();
  const road = page.getByTestId('road');
  const weeks = road.getByRole('listitem');
  await expect(weeks).toHaveCount(8);
  const later = road.getByRole('button', { name: / a week later$/ }).first();
  await expect(later).toBeVisible();
  const phase = (await later.getAttribute('aria-label'))!.replace(' a week later', '');
  const begins = async () => {
    const label = await road.getByRole('button', { name: new RegExp(`^${phase} begins in week`) }).getAttribute('aria-label');
    return Number(label!.match(/week (\d+)/)![1]);
  };
  const usual = await begins();
  await later.click();
  await expect.poll(begins).toBe(usual + 1);

  // By hand, to the week before where it was: dragged over that week's card.
  const handle = await road.getByRole('button', { name: new RegExp(`^${phase} begins in week`) }).boundingBox();
  const to = await weeks.nth(usual - 2).boundingBox();
  await page.mouse.move(handle!.x + 20, handle!.y + 10);
  await page.mouse.down();
  await page.mouse.move(to!.x + 40, to!.y + 30, { steps: 12 });
  await page.mouse.up();
  await expect.poll(begins).toBe(usual - 1);
  // By keyboard: undone, and back to what is usual.
  await page.keyboard.press('Control+z');
  await expect.poll(begins).toBe(usual + 1);
  await page.getByRole('button', { name: 'Phases as long as usual' }).press('Enter');
  await expect.poll(begins).toBe(usual);

  const day = dayLater(await page.evaluate(() => new Date().toLocaleDateString('sv')), 20);
  await page.getByLabel('What').selectOption({ label: 'Show' });
  await page.getByLabel('Called (optional)').fill('The ferry');
  await page.getByLabel('On', { exact: true }).fill(day);
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(road).toContainText('The ferry: the show set, and no more.');
  await expect(road).toContainText('nothing new, no test');
  expect((await new AxeBuilder({ page }).include('[data-testid=road]').analyze()).violations).toEqual([]);

  for (const format of ['A4', 'Letter']) {
    const pdf = (await page.pdf({ format })).toString('latin1');
    expect([format, pdf.match(/\/Type \/Page\b(?!s)/g)?.length]).toEqual([format, 1]);
  }
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Into a calendar' }).click()]);
  const calendar = readFileSync((await download.path())!, 'utf8').replace(/\r\n /g, '');
  expect(calendar.match(/BEGIN:VEVENT/g)!.length).toBeGreaterThanOrEqual(8 + 5);
  expect(calendar).toContain('The ferry: the show set');

  // Put off by a week: by its arrow, then dragged back over the week it was in.
  const dates = page.getByRole('list', { name: 'Dates' });
  const before = await dates.innerText();
  const ferry = road.getByRole('button', { name: /^The ferry is in week/ });
  const was = Number((await ferry.getAttribute('aria-label'))!.match(/week (\d+)/)![1]);
  await road.getByRole('button', { name: 'The ferry a week later' }).click();
  await expect(ferry).toHaveAttribute('aria-label', new RegExp(`week ${was + 1}:`));
  expect(await dates.innerText()).not.toBe(before);
  // At the edge of the window the page would move under the hand.
  await weeks.nth(was - 1).evaluate((week) => week.scrollIntoView({ block: 'center' }));
  const grip = (await ferry.boundingBox())!;
  const back = (await weeks.nth(was - 1).boundingBox())!;
  await page.mouse.move(grip.x + 20, grip.y + 10);
  await page.mouse.down();
  await page.mouse.move(back.x + 40, back.y + back.height / 2, { steps: 12 });
  await page.mouse.up();
  await expect(ferry).toHaveAttribute('aria-label', new RegExp(`week ${was}:`));
  expect(await dates.innerText()).toBe(before);

  // Kept: the next test on this copy has no ferry.
  const kept = page.waitForResponse((r) => r.request().method() === 'PUT' && r.url().endsWith('/plan'));
  await page.getByRole('button', { name: 'Take The ferry away' }).click();
  await kept;
  await expect(road).not.toContainText('The ferry');
});

test('the end of a phase is reckoned from what was sung, and the next one is offered when it is there', async ({ page, request }) => {
  const address = await practiceLink(page, 'Osk Varrel');
  const today = await page.evaluate(() => new Date().toLocaleDateString('sv'));
  const sung = (days: number) => lineOn(dayLater(today, -days), done({ exerciseId: 'rounding-scale', success: true }));
  const send = async (entries: Entry[]) =>
    expect((await request.post(`/api/p/${address.split('/p/')[1]}/entries`, { data: { entries } })).status()).toBe(200);
  const end = page.getByTestId('phase-end');
  await send([sung(0)]);
  await openSinger(page, 'Osk Varrel', 'Plan');
  await expect(end).toContainText('1 of 3 days running');
  await expect(end.getByRole('button')).toHaveCount(0);
  // The chapter begins with the week that was assigned today: its next days.
  await send([sung(-1), sung(-2)]);
  await page.reload();
  await expect(end).toContainText('3 of 3 days running');
  const kept = page.waitForResponse((r) => r.request().method() === 'PUT' && r.url().endsWith('/plan'));
  await end.getByRole('button', { name: 'Begin “Into songs”' }).click();
  await expect(page.getByLabel('Phase')).toContainText('Into songs');
  await kept;
  await page.getByLabel('Phase').selectOption({ index: 0 });
  await expect(end).toContainText('3 of 3');
});

test('a recital’s songs are led to it along the road, the singer’s own by turns before', async ({ page }) => {
  await openSinger(page, 'Maren Quill', 'Plan');
  await page.getByText('The road ahead').click();
  const songs = page.getByTestId('road-songs');
  await expect(songs.first()).toContainText('Ferryman, Wait: a line of it, in its key');
  await page.getByLabel('What').selectOption({ label: 'Recital' });
  await page.getByLabel('Called (optional)').fill('The mooring night');
  await page.getByLabel('On', { exact: true }).fill(dayLater(await page.evaluate(() => new Date().toLocaleDateString('sv')), 50));
  await page.getByLabel('Ferryman, Wait').check();
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('list', { name: 'Dates' })).toContainText('The mooring night');
  await expect(songs).toHaveCount(8);
  await expect(songs.first()).toContainText('their hard bars as exercises');
  await expect(songs.last()).toContainText('marked');
  const kept = page.waitForResponse((r) => r.request().method() === 'PUT' && r.url().endsWith('/plan'));
  await page.getByRole('button', { name: 'Take The mooring night away' }).click();
  await kept;
});
