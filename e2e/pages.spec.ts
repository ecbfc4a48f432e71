import AxeBuilder from '@axe-core/playwright';
import { expect, Page, test } from '@playwright/test';
import { openSinger } from './browser';

const VIEWS: [string, (page: Page) => Promise<unknown>][] = [
  ['studio', (page) => page.goto('/')],
  ['exercises', (page) => page.goto('/exercises')],
  ['listen', (page) => openSinger(page, 'Maren Quill', 'Listen')],
  ['map', (page) => openSinger(page, 'Maren Quill', 'Map')],
  ['plan', (page) => openSinger(page, 'Maren Quill', 'Plan')],
  [
    'review',
    async (page) => (
      await openSinger(page, 'Maren Quill', 'Map'),
      page.getByRole('region', { name: 'Takes' }).getByRole('link').first().click()
    ),
  ],
  ['sheet', assignSuggestion],
  ['lessons', (page) => page.goto('/lessons')],
  ['straws', (page) => page.goto('/straws')],
  ['settings', (page) => page.goto('/settings')],
  ['health', (page) => beginLesson(page)],
  ['lesson', async (page) => (await beginLesson(page), page.getByRole('button', { name: 'Begin' }).click())],
  ['singer', async (page) => (await page.goto('/'), page.getByRole('button', { name: 'About Maren Quill' }).click())],
];

async function beginLesson(page: Page) {
  await openSinger(page, 'Maren Quill', 'Listen');
  await page.getByRole('button', { name: 'Ten-minute re-check' }).click();
  await expect(page.getByRole('heading', { name: 'How is the voice today?' })).toBeVisible();
}

async function assignSuggestion(page: Page) {
  await openSinger(page, 'Maren Quill', 'Plan');
  await page.getByRole('button', { name: 'Assign' }).click();
  await expect(page.getByTestId('staff').last().locator('svg')).toHaveCount(1);
}

for (const scheme of ['light', 'dark'] as const)
  test(`every page passes the accessibility rules (WCAG 2.2 AA) in the ${scheme} theme, without a message in the console`, async ({
    page,
  }) => {
    test.setTimeout(180_000);
    const messages: string[] = [];
    page.on('console', (m) => m.type() === 'error' && messages.push(`${m.text()} ${m.location().url}`));
    page.on('pageerror', (e) => messages.push(e.message));
    await page.emulateMedia({ colorScheme: scheme });
    for (const [name, open] of VIEWS) {
      await open(page);
      await page.waitForLoadState('networkidle');
      const { violations } = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']).analyze();
      expect([name, violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 120)).join(' | ')}`)]).toEqual([name, []]);
    }
    expect(messages).toEqual([]);
  });

test('nothing but this server is asked for anything', async ({ page, baseURL }) => {
  const asked: string[] = [];
  page.on('request', (r) => asked.push(r.url()));
  for (const [, open] of VIEWS) await open(page);
  expect(asked.filter((url) => !url.startsWith(baseURL!) && !/^(data|blob):/.test(url))).toEqual([]);
});

test('the practice sheet prints on one page, A4 and Letter', async ({ page }) => {
  await assignSuggestion(page);
  for (const format of ['A4', 'Letter']) {
    const pdf = (await page.pdf({ format })).toString('latin1');
    expect([format, pdf.match(/\/Type \/Page\b/g)?.length]).toEqual([format, 1]);
  }
});

test('what does not exist is said so', async ({ page }) => {
  const answer = await page.goto('/singers/00000000-0000-4000-8000-000000000000/map');
  expect(answer!.status()).toBe(404);
  await expect(page.getByText('There is nothing here')).toBeVisible();
});
