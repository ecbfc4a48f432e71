import AxeBuilder from '@axe-core/playwright';
import { Page } from '@playwright/test';
import { answerWell, expect, openSinger, practiceLink, test } from './browser';

const VIEWS: [string, (page: Page) => Promise<unknown>][] = [
  ['studio', (page) => page.goto('/')],
  ['exercises', (page) => page.goto('/exercises')],
  ['listen', (page) => openSinger(page, 'Maren Quill', 'Listen')],
  ['map', (page) => openSinger(page, 'Maren Quill', 'Map')],
  ['plan', (page) => openSinger(page, 'Maren Quill', 'Plan')],
  ['road', async (page) => (await openSinger(page, 'Maren Quill', 'Plan'), page.getByRole('button', { name: 'The road ahead' }).click())],
  [
    'review',
    async (page) => (
      await openSinger(page, 'Maren Quill', 'Map'),
      page.getByRole('region', { name: 'Takes' }).getByRole('link').first().click()
    ),
  ],
  ['sheet', assignSuggestion],
  ['progress', (page) => openSinger(page, 'Maren Quill', 'Progress')],
  ['post', (page) => page.goto('/post')],
  ['practice', async (page) => page.goto(await practiceLink(page, 'Maren Quill'))],
  [
    'practice today',
    async (page) => {
      await answerWell(page);
      await expect(page.getByTestId('practice-item').first()).toBeVisible();
    },
  ],
  [
    'practice player',
    async (page) => {
      await page.getByTestId('practice-item').first().click();
      await expect(page.getByTestId('staff').locator('svg')).toHaveCount(1);
    },
  ],
  ['songs', (page) => page.goto('/songs')],
  ['song written', async (page) => (await page.goto('/songs'), page.getByRole('button', { name: 'Write a song' }).click())],
  [
    'song of the studio',
    async (page) => (
      await page.goto('/songs'),
      await page.getByRole('link', { name: /Ferryman/ }).click(),
      await expect(page.getByTestId('song-staff').locator('svg').first()).toBeVisible(),
      await expect(page.getByRole('link', { name: /Maren Quill/ })).toBeVisible()
    ),
  ],
  ['songs of a singer', (page) => openSinger(page, 'Lio Fenn', 'Songs')],
  [
    'song of a singer',
    async (page) => (
      await openSinger(page, 'Lio Fenn', 'Songs'),
      await page.getByRole('link', { name: /Heron/ }).click(),
      await expect(page.getByTestId('song-staff').locator('svg')).toHaveCount(1)
    ),
  ],
  ['lessons', (page) => page.goto('/lessons')],
  [
    'straws',
    async (page) => {
      await page.goto('/straws');
      const two = page.getByRole('button', { name: /^2 side by side: Cocktail straw/ });
      await two.click();
      await expect(two).toHaveAttribute('aria-pressed', 'true');
      await expect(page.locator('ol button[aria-pressed=true]')).toHaveCount(1);
    },
  ],
  [
    'several together',
    async (page) => {
      await page.goto('/together');
      await page.getByLabel('Lio Fenn').check();
      await page.getByLabel('Maren Quill').check();
      await expect(page.getByTestId('together-item').first().locator('svg')).not.toHaveCount(0);
    },
  ],
  ['ears', async (page) => (await page.goto('/ears'), page.getByRole('button', { name: 'Play' }).click())],
  [
    'ears, our own singers',
    async (page) => {
      await page.goto('/ears');
      await page.getByRole('button', { name: 'Our own singers' }).click();
      await page.getByRole('button', { name: 'Play' }).click();
      await page.getByRole('button', { name: 'it toggles' }).click();
    },
  ],
  ['settings', (page) => page.goto('/settings')],
  ['coaches', (page) => page.goto('/settings/coaches')],
  ['log', (page) => page.goto('/settings/log')],
  ['account', (page) => page.goto('/settings/account')],
  ['sign-in', (page) => page.goto('/sign-in')],
  ['sign-up', (page) => page.goto('/sign-up')],
  ['chapters', (page) => openSinger(page, 'Ysolde Marsh', 'Progress')],
  ['health', (page) => beginLesson(page)],
  ['lesson', async (page) => (await beginLesson(page), page.getByRole('button', { name: 'Begin' }).click())],
  [
    'singer',
    async (page) => {
      await page.goto('/');
      await page.getByRole('button', { name: 'About Maren Quill' }).click();
      await expect(page.getByRole('dialog', { name: 'About Maren Quill' })).toHaveCount(1);
    },
  ],
];

async function beginLesson(page: Page) {
  await openSinger(page, 'Maren Quill', 'Listen');
  await page.getByRole('button', { name: 'Ten-minute re-check' }).click();
  await expect(page.getByRole('heading', { name: 'How is the voice today?' })).toBeVisible();
}

async function assignSuggestion(page: Page) {
  await openSinger(page, 'Maren Quill', 'Plan');
  await page.getByRole('button', { name: 'Assign week' }).click();
  await page.getByRole('button', { name: 'Assign to Maren Quill' }).click();
  await page.waitForURL(/\/assignments\//);
  await expect(page.getByTestId('staff').last().locator('svg')).toHaveCount(1);
}

const WCAG_22_AA = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];

/** Two lots, side by side. */
const HALF = VIEWS.findIndex(([name]) => name === 'songs');

for (const [lot, views] of [
  ['a coach’s and a singer’s day', VIEWS.slice(0, HALF)],
  ['songs, settings, the door and lessons', VIEWS.slice(HALF)],
] as const)
  test(`${lot}: every page passes the accessibility rules (WCAG 2.2 AA) in both themes, without a message in the console, asking nobody else`, async ({
    page,
    baseURL,
  }) => {
    test.setTimeout(600_000);
    const asked: string[] = [];
    page.on('request', (r) => asked.push(r.url()));
    const messages: string[] = [];
    page.on('console', (m) => m.type() === 'error' && messages.push(`${m.text()} ${m.location().url}`));
    page.on('pageerror', (e) => messages.push(e.message));
    for (const [name, open] of views) {
      await open(page);
      await page.waitForLoadState('networkidle');
      // A page's name may arrive after all else.
      await expect(page).toHaveTitle(/\S/);
      for (const scheme of ['light', 'dark'] as const) {
        await page.emulateMedia({ colorScheme: scheme });
        // The other theme differs in colours only.
        const axe = new AxeBuilder({ page });
        const { violations } = await (scheme === 'light' ? axe.withTags(WCAG_22_AA) : axe.withRules(['color-contrast'])).analyze();
        const said = violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 120)).join(' | ')}`);
        expect([name, scheme, said]).toEqual([name, scheme, []]);
      }
    }
    expect(messages).toEqual([]);
    expect(asked.filter((url) => !url.startsWith(baseURL!) && !/^(data|blob):/.test(url))).toEqual([]);
  });

test('pages run our own scripts only, and say so to the browser', async ({ page }) => {
  const answer = await page.goto('/exercises');
  const headers = answer!.headers();
  expect(headers['content-security-policy']).toMatch(/script-src 'self' 'nonce-[\w+/=]{20,}'/);
  expect(headers['content-security-policy']).toContain("frame-ancestors 'none'");
  expect(headers['x-content-type-options']).toBe('nosniff');
  const again = await page.goto('/exercises');
  expect(again!.headers()['content-security-policy']).not.toBe(headers['content-security-policy']);
  // A script that got into the page's text isn't run.
  const ran = await page.evaluate(async () => {
    document.body.insertAdjacentHTML('beforeend', '<img src="/nothing" onerror="window.stolen = 1">');
    const script = document.createElement('div');
    script.innerHTML = '<script>window.stolen = 2</' + 'script>';
    document.body.append(script);
    await new Promise((resolve) => setTimeout(resolve, 500));
    return (window as unknown as { stolen?: number }).stolen;
  });
  expect(ran).toBeUndefined();
});

test('the practice sheet prints on one page, A4 and Letter', async ({ page }) => {
  await assignSuggestion(page);
  for (const format of ['A4', 'Letter']) {
    const pdf = (await page.pdf({ format })).toString('latin1');
    expect([format, pdf.match(/\/Type \/Page\b/g)?.length]).toEqual([format, 1]);
  }
});

test('a page that nobody touches fetches no other page and no piano; a hand that comes has both fetched ahead', async ({ page }) => {
  await openSinger(page, 'Maren Quill', 'Plan');
  await page.mouse.move(640, 790);
  await page.waitForLoadState('networkidle');
  const asked: string[] = [];
  page.on('request', (r) => asked.push(new URL(r.url()).pathname + new URL(r.url()).search));
  await page.reload({ waitUntil: 'networkidle' });
  expect(asked.filter((path) => /_rsc=|\/piano\//.test(path))).toEqual([]);
  await page.mouse.move(600, 400, { steps: 4 });
  await page.getByRole('link', { name: 'Songs', exact: true }).first().hover();
  await expect.poll(() => asked.filter((path) => path.startsWith('/piano/')).length).toBeGreaterThan(10);
  await expect.poll(() => asked.filter((path) => path.startsWith('/songs?_rsc=')).length).toBeGreaterThan(0);
});

test('what does not exist is said so', async ({ page }) => {
  const answer = await page.goto('/singers/00000000-0000-4000-8000-000000000000/map');
  expect(answer!.status()).toBe(404);
  await expect(page.getByText('There is nothing here')).toBeVisible();
  // Nor does what no id can name; the database isn't asked for it.
  for (const path of [
    'singers/x/map',
    'singers/x/plan',
    'singers/x/takes/y',
    'singers/x/lessons/y',
    'singers/x/songs/y',
    'songs/x',
    'assignments/x',
  ])
    expect([path, (await page.request.get(`/${path}`)).status()]).toEqual([path, 404]);
});
