import { Page } from '@playwright/test';
import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import Papa from 'papaparse';
import { noteName, parseNote } from '../src/core/music/pitch';
import { expect, openSinger, test } from './browser';

/** What a menu entry of "Take out" hands over. */
async function taken(page: Page, entry: RegExp): Promise<Buffer> {
  await page.getByRole('button', { name: 'Take out' }).click();
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('menuitem', { name: entry }).click()]);
  return readFileSync(await download.path());
}

test('the map is taken out as picture, drawing, table and figures that other programs read', async ({ page }) => {
  await openSinger(page, 'Maren Quill', 'Map');
  const change = parseNote((await page.getByTestId('passaggio').innerText()).split('\n')[0]);

  const { data, errors } = Papa.parse<Record<string, string>>((await taken(page, /CSV/)).toString(), { header: true });
  expect(errors).toEqual([]);
  expect(data.find((row) => row.what === 'change')).toMatchObject({ note: noteName(change) });

  const figures = JSON.parse((await taken(page, /JSON/)).toString());
  expect(Math.round(figures.passaggi[0].midi)).toBe(change);

  const svg = (await taken(page, /SVG/)).toString();
  const parsed = await page.evaluate((text) => {
    const root = new DOMParser().parseFromString(text, 'image/svg+xml');
    return { broken: root.querySelector('parsererror') !== null, text: root.documentElement.textContent };
  }, svg);
  expect(parsed).toMatchObject({ broken: false, text: expect.stringContaining('Maren Quill') });
  expect(svg).not.toContain('var(');
  expect((await taken(page, /PNG/)).subarray(1, 4).toString()).toBe('PNG');

  const pdf = await taken(page, /PDF/);
  expect(pdf.toString('latin1').match(/\/Type \/Page\b/g)).toHaveLength(1);
  if (existsSync('/usr/bin/pdftotext')) {
    const text = execFileSync('pdftotext', ['-layout', '-', '-'], { input: pdf }).toString();
    expect(text).toContain('Maren Quill: the voice');
    expect(text).toMatch(new RegExp(`change +${noteName(change)} `));
  }
});

test('all that is kept of a singer comes as one ZIP whose sounds other programs read', async ({ page }) => {
  await openSinger(page, 'Maren Quill', 'Map');
  const id = /singers\/([^/]+)/.exec(page.url())![1];
  const answer = await page.request.get(`/api/singers/${id}/export`);
  expect(answer.headers()['content-type']).toBe('application/zip');
  const script = `
import io, json, sys, wave, zipfile
z = zipfile.ZipFile(io.BytesIO(sys.stdin.buffer.read()))
assert z.testzip() is None
s = json.loads(z.read('singer.json'))
for t in s['takes']:
    w = wave.open(io.BytesIO(z.read(t['file'])))
    assert abs(w.getnframes() / w.getframerate() - t['durationS']) < 0.01
print(s['singer']['name'], len(s['takes']))`;
  const said = execFileSync('python3', ['-c', script], { input: await answer.body(), encoding: 'utf8' });
  expect(said).toMatch(/^Maren Quill [1-9]/);
});

test('a value is pinned by hand, what the machine says stays beside it, and earlier days are drawn behind', async ({ page }) => {
  await openSinger(page, 'Osk Varrel', 'Map');
  const passaggio = page.getByTestId('passaggio');
  const machine = parseNote((await passaggio.innerText()).split('\n')[0]);
  await page.getByText('Pinned by you').click();
  await page.locator('select[name=midi]').selectOption(String(machine + 2));
  await page.getByRole('button', { name: 'Pin', exact: true }).click();
  await expect(passaggio).toContainText(noteName(machine + 2));
  await expect(page.getByText(`the machine: ${noteName(machine)}`)).toBeVisible();
  await page.getByRole('button', { name: /Take the pin out/ }).click();
  await expect(passaggio).toContainText(noteName(machine));

  await page.getByRole('slider').press('Home');
  await expect(page.getByTestId('then')).toContainText('Then: changes');
  await expect(page.getByTestId('ghost')).toHaveCount(1);
  await page.getByRole('slider').press('End');
  await expect(page.getByTestId('ghost')).toHaveCount(0);
});

test('the map prints on one page, A4 and Letter', async ({ page }) => {
  await openSinger(page, 'Maren Quill', 'Map');
  for (const format of ['A4', 'Letter']) {
    const pdf = (await page.pdf({ format })).toString('latin1');
    expect([format, pdf.match(/\/Type \/Page\b/g)?.length]).toEqual([format, 1]);
  }
});

test('a lesson of one’s own is made by keyboard: steps added, moved and taken out', async ({ page }) => {
  await page.goto('/lessons');
  await page.getByRole('button', { name: 'Make your own from Ten-minute re-check' }).press('Enter');
  await page.getByLabel('Its name').fill('Before the matinée');
  await page.getByLabel('Add a step').selectOption({ label: 'Toggles' });
  const names = () => page.getByTestId('step').locator('span.font-bold').allInnerTexts();
  expect(await names()).toEqual(['Warm-up', 'Five notes up', 'Long siren', 'Toggles']);
  await page.getByRole('button', { name: 'Move Toggles' }).focus();
  await page.keyboard.press('Space');
  await page.waitForTimeout(100);
  await page.keyboard.press('ArrowUp');
  await page.waitForTimeout(300);
  await page.keyboard.press('Space');
  await expect.poll(names).toEqual(['Warm-up', 'Five notes up', 'Toggles', 'Long siren']);
  await page.getByRole('button', { name: 'Take out Five notes up' }).press('Enter');
  await page.getByRole('button', { name: 'Save the lesson' }).press('Enter');
  await expect(page.getByTestId('own-lesson')).toContainText('Warm-up, Toggles, Long siren');
  await openSinger(page, 'Maren Quill', 'Listen');
  await expect(page.getByRole('button', { name: 'Before the matinée' })).toBeVisible();
});

test('a change says how far both registers reach, beside the passes it was heard in', async ({ page }) => {
  await openSinger(page, 'Lio Fenn', 'Map');
  const card = page.getByTestId('passaggio').first();
  await card.getByRole('button').first().click();
  await expect(card.getByTestId('overlap')).toContainText(/^Chest goes up to [A-G]#?\d, head comes down to [A-G]#?\d: /);
  await expect(card.getByRole('button', { name: /^Play .* going (up|down)$/ }).first()).toBeVisible();
});

test('every pass through a change is laid over the others: all of them, pass by pass, and each to be heard at half speed', async ({
  page,
}) => {
  await openSinger(page, 'Lio Fenn', 'Map');
  const card = page.getByTestId('passaggio').first();
  await card.getByRole('button').first().click();
  await card.getByRole('button', { name: 'Lay the passes over each other' }).click();
  const all = page.getByRole('dialog', { name: /^Every pass through [A-G]#?\d$/ });
  const slider = all.getByRole('slider', { name: 'Passes laid over each other' });
  const count = Number(await slider.getAttribute('max'));
  expect(count).toBeGreaterThan(5);
  await expect(all.getByText(new RegExp(`^${count} of ${count}: `))).toContainText(/\d+ \w+, .+, [A-G]#?\d, (up|down)$/);
  const inked = () =>
    all.locator('canvas').evaluateAll((canvases) =>
      canvases.map((canvas) => {
        const { width, height } = canvas as HTMLCanvasElement;
        const { data } = (canvas as HTMLCanvasElement).getContext('2d')!.getImageData(0, 0, width, height);
        return data.reduce((n, value, i) => n + (i % 4 === 3 && value > 0 ? 1 : 0), 0);
      }),
    );
  const whole = await inked();
  expect(whole.every((n) => n > 500)).toBe(true);
  // The oldest alone, one way: then the film goes on by itself to the last.
  await slider.focus();
  await page.keyboard.press('Home');
  await expect(all.getByText(new RegExp(`^1 of ${count}: `))).toBeVisible();
  expect((await inked()).filter((n) => n > 0)).toHaveLength(1);
  const asked = page.waitForRequest(/\/audio$/);
  await all.getByRole('button', { name: 'This one, at half speed' }).click();
  await asked;
  await all.getByRole('button', { name: 'Stop' }).click();
  await all.getByRole('button', { name: 'Pass by pass' }).click();
  await expect(all.getByText(new RegExp(`^${count} of ${count}: `))).toBeVisible();
  await expect(all.getByRole('button', { name: 'Pass by pass' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(all).toHaveCount(0);
});
