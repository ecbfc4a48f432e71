import { Page } from '@playwright/test';
import { HELP } from '../src/ui/help/pages';
import { expect, openSinger, test } from './browser';

/** What is there only now and then, or a way to say it: a thing that is waiting, a key, one of many. */
const IN_OTHER_WORDS = [
  'The pencil',
  'The name',
  'A change on the ladder',
  'How the change was measured',
  'An item',
  'A date',
  'A line of the log',
  'Ready for more?',
  'To their phone',
  'Hear it',
  'Like this / Not like this',
  'Begin anew',
  'Send what waits',
  'Sign out there',
  'End the lesson',
  'At the piano',
];
const isKey = (what: string) => /^([A-Z/]|Space|↑ and ↓)$/.test(what);

/** All that a page says, to eyes and to those who hear it read. */
const words = (page: Page) =>
  page.evaluate(() =>
    [document.body.innerText, ...[...document.querySelectorAll('[aria-label]')].map((e) => e.getAttribute('aria-label'))]
      .join(' ')
      .toLowerCase(),
  );

/** An id in an address on the present page. */
const idIn = async (page: Page, part: string) => new RegExp(`${part}/([0-9a-f-]{36})`).exec(await page.content())![1];

test('what help says can be pressed is there to be pressed', async ({ page }) => {
  await openSinger(page, 'Lio Fenn', 'Map');
  const ids: Record<string, string> = { singerId: /singers\/([^/]+)/.exec(page.url())![1], takeId: await idIn(page, 'takes') };
  await page.goto('/songs');
  ids.songId = await idIn(page, 'songs');
  for (const { at, name, press } of HELP) {
    const path = at.replace(/\[(\w+)\]/g, (all, id: string) => ids[id] ?? all);
    // A lesson and a sheet are made, and looked at, by their own tests.
    if (path.includes('[')) continue;
    await page.goto(path);
    await page.getByRole('button', { name: 'Help' }).click();
    await expect(page.getByRole('dialog').getByRole('heading')).toHaveText(`Help: ${name}`);
    await page.keyboard.press('Escape');
    const keys = page.getByRole('button', { name: 'Keys of this page' });
    if (press.some(([what]) => isKey(what))) {
      await keys.click();
      for (const [what] of press.filter(([what]) => isKey(what)))
        for (const key of what.split(' and ')) await expect(page.getByRole('dialog').getByText(key, { exact: true }).first()).toBeVisible();
      await page.keyboard.press('Escape');
    }
    // Some of it comes in a moment later.
    for (const [what] of press)
      if (!isKey(what) && !IN_OTHER_WORDS.includes(what))
        await expect.poll(() => words(page), { message: `${name}: ${what}` }).toContain(what.toLowerCase());
  }
});
