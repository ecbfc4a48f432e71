import AxeBuilder from '@axe-core/playwright';
import { Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { coachPages, expect, openSinger, practiceLink, test } from './browser';

const catalogue = (language: string): Record<string, string> =>
  JSON.parse(readFileSync(new URL(`../src/words/${language}.json`, import.meta.url), 'utf8')) as Record<string, string>;

/** What a page shows, or tells those who hear it, that is an English message and is said otherwise in its language. */
async function leftInEnglish(page: Page, words: Record<string, string>): Promise<string[]> {
  const shown = await page.evaluate(() => {
    document.querySelectorAll('details').forEach((d) => (d.open = true));
    const texts: string[] = [];
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    // A letter stays in the language it was written in.
    while (walker.nextNode())
      if (!walker.currentNode.parentElement?.closest('[data-testid="message"] h2')) texts.push(walker.currentNode.textContent ?? '');
    for (const name of ['aria-label', 'title', 'placeholder', 'alt'])
      document.querySelectorAll(`[${name}]`).forEach((e) => texts.push(e.getAttribute(name) ?? ''));
    return [...texts.map((t) => t.trim()), document.title];
  });
  const others = new Set(Object.values(words));
  return [...new Set(shown)].filter(
    (text) => /\p{L}{2}/u.test(text) && Object.hasOwn(words, text) && words[text] !== text && !others.has(text),
  );
}

test('a coach chooses a language: every page speaks it, notes are named its way or by another, and it stays', async ({ page }) => {
  test.setTimeout(240_000);
  const words = catalogue('de');
  const { views, all } = await coachPages(page, 'Maren Quill');
  await page.goto('/settings/account');
  await page.getByLabel('Language').selectOption('Deutsch');
  await expect(page.getByLabel('Sprache')).toHaveValue('de');
  await expect(page.locator('html')).toHaveAttribute('lang', 'de');
  for (const path of all) {
    await page.goto(path);
    await page.waitForLoadState('networkidle');
    await expect(page).toHaveTitle(/\S/);
    expect([path, await leftInEnglish(page, words)]).toEqual([path, []]);
    // Longer words than English has must not push a page wider than its window.
    expect([path, await page.evaluate(() => document.documentElement.scrollWidth - innerWidth)]).toEqual([path, 0]);
  }
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map((v) => v.id)).toEqual([]);

  await page.goto(views.Map);
  await expect(page.getByText('gis¹').first()).toBeVisible();
  await page.goto('/settings/account');
  await page.getByLabel('Namen der Töne').selectOption('letters');
  await page.goto(views.Map);
  await expect(page.getByRole('heading', { name: 'Was dort geschieht' })).toBeVisible();
  await expect(page.getByText('G#4').first()).toBeVisible();
  await expect(page.getByText('gis¹')).toHaveCount(0);
});

test('whoever sings on do re mi has it under the notes of exercises, and keeps the names of keys', async ({ page }) => {
  const firstWords = () => page.getByTestId('staff').first().locator('svg text').allTextContents();
  const syllables = async () => (await firstWords()).filter((text) => /^(do|re|mi|fa|sol|la|ti)$/.test(text));
  await page.goto('/exercises');
  await expect(page.getByTestId('staff').first().locator('svg')).toHaveCount(1);
  expect(await syllables()).toEqual([]);
  await page.goto('/settings/account');
  await page.getByLabel('Under the notes of exercises').selectOption('do re mi from the key’s own note (movable do)');
  await page.goto('/exercises');
  await expect.poll(syllables).toContain('do');
  // On one line, as words stand under a staff.
  const feet = await page
    .getByTestId('staff')
    .first()
    .locator('svg text')
    .evaluateAll((all) => all.filter((text) => /^(do|re|mi|fa|sol|la|ti)$/.test(text.textContent)).map((text) => text.getAttribute('y')));
  expect(new Set(feet).size).toBe(1);
  // Keys and changes keep the names of before.
  await openSinger(page, 'Maren Quill', 'Map');
  await expect(page.getByText('G#4').first()).toBeVisible();
});

test('a singer’s phone is spoken to as it asks, the week’s reasons too, without a network as well', async ({ page, browser, baseURL }) => {
  test.setTimeout(180_000);
  const link = await practiceLink(page, 'Maren Quill');
  const phone = await browser.newContext({ baseURL, locale: 'it-IT', viewport: { width: 390, height: 844 }, storageState: undefined });
  const singer = await phone.newPage();
  await singer.goto(link);
  await expect(singer.locator('html')).toHaveAttribute('lang', 'it');
  const well = singer.getByRole('button', { name: 'Tutto bene' });
  const items = singer.getByTestId('practice-item');
  await expect(well.or(items.first())).toBeVisible();
  if (await well.isVisible()) await well.click();
  await expect(items.first()).toBeVisible();
  // The line of a song bears its title, and is called a line in the reader's words.
  await expect(items.filter({ hasText: 'Una riga di «Ferryman, Wait»' })).toHaveCount(1);
  expect(await leftInEnglish(singer, catalogue('it'))).toEqual([]);
  await items.first().click();
  await expect(singer.getByTestId('staff').locator('svg').first()).toBeVisible();
  expect(await leftInEnglish(singer, catalogue('it'))).toEqual([]);
  await expect(singer.locator('body')).toContainText(/(Do|Re|Mi|Fa|Sol|La|Si)[#b]?[1-5]/);
  expect(await singer.evaluate(() => document.documentElement.scrollWidth - innerWidth)).toBe(0);
  await singer.waitForFunction(() => navigator.serviceWorker.controller !== null);
  await singer.reload();
  await expect(items.first()).toBeVisible();
  await phone.setOffline(true);
  await singer.reload();
  await expect(items.first()).toBeVisible();
  expect(await leftInEnglish(singer, catalogue('it'))).toEqual([]);
  await phone.close();
});
