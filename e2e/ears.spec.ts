import { answered, NO_ANSWERS } from '../src/core/ears/staircase';
import { makeTrial } from '../src/core/ears/trial';
import { Client } from 'pg';
import { databaseUrls } from '../bin/lib/postgres.mjs';
import { COPY, expect, NOBODY, practiceLink, test } from './browser';

test('an ear is asked by keyboard, told what was there, led from plain to hard, and keeps its measure', async ({ page }) => {
  // Known questions: the page draws its seeds by this.
  await page.addInitScript(() => (Math.random = () => 0.5));
  const first = makeTrial('place', NO_ANSWERS.level, 2 ** 30);
  await page.goto('/ears');
  const measure = page.getByTestId('measure');
  await expect(measure).toHaveText('Nothing answered yet.');
  await page.keyboard.press('Space');
  const answers = page.getByRole('group', { name: 'Your answer' }).getByRole('button');
  await expect(answers).toHaveCount(4);
  // It sounds.
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible();
  await page.keyboard.press(String(first.right + 1));
  await expect(page.getByText('Right.', { exact: true })).toBeVisible();
  await expect(measure).toContainText('1 of 1 right');
  // A second answer to the same is none.
  await page.keyboard.press(String(((first.right + 1) % 4) + 1));
  await expect(measure).toContainText('1 of 1 right');

  // The next is harder; a wrong answer is told, and marked.
  await page.keyboard.press('Enter');
  await expect(page.getByText('Right.', { exact: true })).toHaveCount(0);
  const second = makeTrial('place', answered(NO_ANSWERS, true).level, 2 ** 30);
  await page.keyboard.press(String(((second.right + 1) % 4) + 1));
  await expect(page.getByText(/^The answer: [A-G]#?\d\./)).toBeVisible();
  await expect(answers.nth(second.right).locator('svg')).toHaveCount(1);
  await expect(measure).toContainText('1 of 2 right');

  await page.getByRole('button', { name: 'Which is louder' }).press('Enter');
  await page.getByRole('button', { name: 'Play' }).press('Enter');
  await expect(answers).toHaveText(['the first', 'the second']);
  await page.reload();
  await expect(measure).toContainText('1 of 2 right');
  await page.getByRole('button', { name: 'Begin anew' }).click();
  await expect(measure).toHaveText('Nothing answered yet.');
});

test('a slide of the studio’s own is heard blind and answered by keyboard; then the machine’s word is told, and ears compared', async ({
  page,
}) => {
  const db = new Client({ connectionString: databaseUrls(COPY.data).ownerUrl });
  await db.connect();
  try {
    await page.goto('/ears');
    await page.getByRole('button', { name: 'Our own singers' }).press('Enter');
    const compared = page.getByTestId('ears-machine');
    await expect(compared).toHaveText('Nothing to compare yet.');
    const sound = page.waitForResponse((r) => /api\/takes\/[^/]+\/audio/.test(r.url()));
    await page.getByRole('button', { name: 'Play' }).press('Enter');
    expect([200, 206]).toContain((await sound).status());
    await expect(page.getByRole('heading', { name: /^A slide (up|down): what happens\?$/ })).toBeVisible();
    // Blind: nobody's name, nothing of what was found.
    await expect(page.getByTestId('told')).toHaveCount(0);
    await page.keyboard.press('1');
    const note = page.getByRole('group', { name: 'The last note before the change' }).getByRole('button', { pressed: true });
    await expect(note).toHaveCount(0);
    // Not placed yet: there is nothing to say yes to.
    await page.keyboard.press('y');
    await page.keyboard.press('ArrowUp');
    const middle = await note.innerText();
    await page.keyboard.press('ArrowDown');
    await expect(note).not.toHaveText(middle);
    await page.keyboard.press('ArrowUp');
    await page.keyboard.press('y');
    const told = page.getByTestId('told').getByRole('listitem');
    await expect(told).toHaveText([
      `You: it flips at ${middle}.`,
      /^The machine: (it (flips|toggles|blends) at [A-G]#?\d|nothing changes)\.$/,
    ]);
    await expect(compared).toContainText('One pass so far');
    // Answered is answered.
    await page.keyboard.press('4');
    await expect(told).toHaveCount(2);

    await page.keyboard.press('Enter');
    await expect(page.getByTestId('told')).toHaveCount(0);
    await page.keyboard.press('4');
    await expect(told.first()).toHaveText('You: nothing changes.');
    await expect(compared).toContainText('2 passes so far');
    // A slip is taken back; the next one is asked.
    await page.keyboard.press('Enter');
    await page.keyboard.press('4');
    await expect(compared).toContainText('3 passes so far');
    await page.getByRole('button', { name: 'That was a slip' }).click();
    await expect(compared).toContainText('2 passes so far');
    await expect(page.getByTestId('told')).toHaveCount(0);
    await page.reload();
    await page.getByRole('button', { name: 'Our own singers' }).click();
    await expect(compared).toContainText('2 passes so far');
    const { rows } = await db.query('select name, count(*)::int as n from ear_answer group by name order by name');
    expect(rows).toEqual([
      { name: 'flip', n: 1 },
      { name: 'none', n: 1 },
    ]);
    await page.getByRole('button', { name: 'Forget my answers' }).click();
    await page.getByRole('button', { name: 'Forget them' }).click();
    await expect(compared).toHaveText('Nothing to compare yet.');
  } finally {
    // The studio's maps rest on it: other tests know them as they were.
    await db.query('delete from ear_answer');
    await db.end();
  }
});

test('a singer trains their ear on the phone: no figures, nothing told to anybody, without a network too', async ({
  page,
  browser,
  baseURL,
}) => {
  const address = await practiceLink(page, 'Maren Quill');
  const context = await browser.newContext({ baseURL, viewport: { width: 390, height: 844 }, storageState: NOBODY });
  const singer = await context.newPage();
  await singer.addInitScript(() => (Math.random = () => 0.5));
  await singer.goto(address);
  await singer.getByText('Train your ear').click();
  await expect(singer.getByRole('group', { name: 'What is asked' }).getByRole('button')).toHaveText([
    'Which is louder',
    'Chest or head',
    'Name it',
  ]);
  const told: string[] = [];
  singer.on('request', (r) => void (r.method() !== 'GET' && told.push(r.url())));
  const { right } = makeTrial('louder', NO_ANSWERS.level, 2 ** 30);
  const answers = singer.getByRole('group', { name: 'Your answer' }).getByRole('button');
  await singer.getByRole('button', { name: 'Play' }).click();
  await expect(singer.getByRole('button', { name: 'Stop' })).toBeVisible();
  await answers.nth(1 - right).click();
  await expect(singer.getByText(/^The answer: the (first|second)\./)).toBeVisible();
  await context.setOffline(true);
  await singer.getByRole('button', { name: 'Next' }).click();
  await expect(singer.getByRole('button', { name: 'Stop' })).toBeVisible();
  await answers.nth(right).click();
  await expect(singer.getByText('Right.', { exact: true })).toBeVisible();
  await expect(singer.getByTestId('measure')).toHaveCount(0);
  expect(told).toEqual([]);
  await context.close();
});
