import { expect, test } from '@playwright/test';
import { startCopy, stopCopy } from '../bin/lib/copy.mjs';
import { openSinger } from './browser';

test('stopped and started again, everything is still there', async ({ page }, info) => {
  test.setTimeout(120_000);
  const copy = { data: process.env.WENDEL_DATA!, port: Number(process.env.WENDEL_PORT) };
  await openSinger(page, 'Tam Weir', 'Map');
  const passaggio = await page.getByTestId('passaggio').innerText();
  const ranges = await page.getByTestId('ranges').innerText();

  await stopCopy(copy);
  await expect(fetch(`http://127.0.0.1:${copy.port}/api/health`)).rejects.toThrow();
  const started = Date.now();
  await startCopy(copy);
  info.annotations.push({ type: 'second start', description: `${Date.now() - started} ms` });
  expect(await (await fetch(`http://127.0.0.1:${copy.port}/api/health`)).json()).toMatchObject({
    ok: true,
    database: 'ready',
    worker: 'ready',
    version: expect.any(String),
  });

  await openSinger(page, 'Tam Weir', 'Map');
  expect(await page.getByTestId('passaggio').innerText()).toBe(passaggio);
  expect(await page.getByTestId('ranges').innerText()).toBe(ranges);
  await openSinger(page, 'Tam Weir', 'Plan');
  await page.getByRole('tab', { name: 'Before' }).click();
  await page.getByRole('link', { name: /\d exercises/ }).click();
  await expect(page.getByText('Lightly, before the kettle boils.')).toBeVisible();
  // The sound itself, not only its row.
  await openSinger(page, 'Tam Weir', 'Map');
  const href = await page.getByRole('region', { name: 'Takes' }).getByRole('link').first().getAttribute('href');
  const audio = await page.request.get(`/api/takes/${href!.split('/').pop()}/audio`);
  expect((await audio.body()).subarray(0, 4).toString()).toBe('RIFF');
});
