import { startCopy, stopCopy } from '../bin/lib/copy.mjs';
import { exerciseById } from '../src/core/exercise/shelf';
import { addSinger, COPY, expect, openSinger, sirenFile, test } from './browser';

test('stopped and started again, everything is still there', async ({ page }, info) => {
  test.setTimeout(480_000);
  // A singer with a take, a map and a week.
  await addSinger(page, 'Wren Tully', 'Tenor');
  const singerId = /singers\/([^/]+)/.exec(page.url())![1];
  await page.getByLabel('Audio file').setInputFiles(sirenFile('restart.wav', 'tenor', 'flip', 31).path);
  await expect(page.getByRole('region', { name: 'What was found' })).toBeVisible();
  const exercise = exerciseById('long-siren');
  const item = {
    exerciseId: exercise.id,
    part: 'work',
    keys: [50],
    sound: 'oo',
    tempo: 80,
    minutes: 2,
    timesADay: 2,
    days: [0, 2, 4],
    reason: '',
    caution: '',
    rules: [],
    advance: '',
  };
  const note = 'Lightly, before the kettle boils.';
  await page.request.post('/api/assignments', { data: { singerId, note, startsOn: '2026-11-23', items: [item] } });
  await openSinger(page, 'Wren Tully', 'Map');
  const passaggio = await page.getByTestId('passaggio').innerText();
  const ranges = await page.getByTestId('ranges').innerText();

  await stopCopy(COPY);
  await expect(fetch(`http://127.0.0.1:${COPY.port}/api/health`)).rejects.toThrow();
  const started = Date.now();
  await startCopy(COPY);
  info.annotations.push({ type: 'second start', description: `${Date.now() - started} ms` });
  // What runs here is told to members only.
  const health = await (await fetch(`http://127.0.0.1:${COPY.port}/api/health`)).json();
  expect(health).toEqual({ ok: true, database: 'ready', worker: 'ready', workers: 1 });
  expect(await (await page.request.get('/api/health')).json()).toMatchObject({ version: expect.any(String), engine: expect.any(String) });

  await openSinger(page, 'Wren Tully', 'Map');
  expect(await page.getByTestId('passaggio').innerText()).toBe(passaggio);
  expect(await page.getByTestId('ranges').innerText()).toBe(ranges);
  await openSinger(page, 'Wren Tully', 'Plan');
  await page.getByRole('tab', { name: 'Before' }).click();
  await page.getByRole('link', { name: /\d exercise/ }).click();
  await expect(page.getByText(note)).toBeVisible();
  // The sound itself, not only its row.
  await openSinger(page, 'Wren Tully', 'Map');
  const href = await page.getByRole('region', { name: 'Takes' }).getByRole('link').first().getAttribute('href');
  const audio = await page.request.get(`/api/takes/${href!.split('/').pop()}/audio`);
  expect((await audio.body()).subarray(0, 4).toString()).toBe('RIFF');
});
