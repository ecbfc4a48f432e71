import { hzToMidi, parseNote } from '../src/core/music/pitch';
import { addSinger, expect, found, sirenFile, test, withMicrophone } from './browser';

test('from a sung siren to a practice sheet that plays', async ({ baseURL }, info) => {
  test.setTimeout(480_000);
  // About ten seconds, sung into the microphone.
  const siren = sirenFile('first.wav', 'tenor', 'flip', 11, 4.4);
  const change = (siren.profile.crossings[0].upMidi + siren.profile.crossings[0].downMidi) / 2;
  await withMicrophone(
    siren.path,
    async (page) => {
      await addSinger(page, 'Tam Weir', 'Tenor');

      for (const take of [1, 2]) {
        await page.locator('body').press('Space');
        await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible();
        await expect(page.getByTestId('level')).toHaveText('good');
        await page.waitForTimeout(4000);
        // The voice is drawn while it sings.
        const painted = await page.getByTestId('live-trace').evaluate((canvas: HTMLCanvasElement) => {
          const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
          return data.some((v, i) => i % 4 === 3 && v > 0);
        });
        expect(painted).toBe(true);
        await page.waitForTimeout(siren.seconds * 1000 - 3000);
        const stopped = Date.now();
        await page.locator('body').press('Space');
        await expect(found(page)).toBeVisible();
        info.annotations.push({ type: 'result after stop', description: `${Date.now() - stopped} ms for take ${take}` });
      }

      const [low, high] = (await page.getByTestId('found-range').innerText()).split(' to ').map(parseNote);
      const sung = siren.truth.f0.filter((hz) => hz > 0);
      expect(Math.abs(low - hzToMidi(Math.min(...sung)))).toBeLessThanOrEqual(1);
      expect(Math.abs(high - hzToMidi(Math.max(...sung)))).toBeLessThanOrEqual(1);
      await expect(found(page).getByText('leaps across, going up').first()).toBeVisible();

      await page.getByRole('link', { name: 'Map', exact: true }).click();
      const passaggio = page.getByTestId('passaggio');
      await expect(passaggio).toHaveCount(1);
      const heard = parseNote((await passaggio.innerText()).split('\n')[0]);
      expect(Math.abs(heard - change)).toBeLessThanOrEqual(1.5);
      await expect(passaggio).toContainText(/up .*\d of \d.* passes/);

      // From the band to the takes, from a take to the moment.
      await expect(async () => {
        const link = passaggio.getByRole('link').first();
        // A finding that comes in meanwhile draws the map anew.
        if (!(await link.isVisible())) await passaggio.getByRole('button').first().click();
        await link.click({ timeout: 3000 });
      }).toPass();
      await expect(page.getByTestId('change').first()).toBeVisible();

      await page.getByRole('link', { name: 'Plan', exact: true }).click();
      await expect(page.getByText(/Works on the flip( and the toggle)? around/)).toBeVisible();
      const items = page.getByTestId('item');
      await items.filter({ hasText: 'Work ·' }).first().locator('button[title^="Enter shows it"]').click();
      await expect(page.getByText(/Because your voice leaps around/).first()).toBeVisible();
      const before = await items.count();
      expect(before).toBeGreaterThanOrEqual(4);
      await items
        .nth(before - 2)
        .getByRole('button', { name: /^Take .* out$/ })
        .click();
      await items.first().locator('button[title^="Enter shows it"]').click();
      await page.getByLabel('Tempo').fill('120');
      await page.getByRole('button', { name: 'Assign week' }).click();
      await page.getByLabel(/A word for Tam Weir/).fill('Lightly, before the kettle boils.');
      await page.getByRole('button', { name: 'Assign to Tam Weir' }).click();

      await expect(page.getByRole('heading', { level: 1, name: 'Tam Weir: practice' })).toBeVisible();
      const sheet = page.getByTestId('sheet-item');
      await expect(sheet).toHaveCount(before - 1);
      await expect(page.getByText('Lightly, before the kettle boils.')).toBeVisible();
      await expect(sheet.first()).toContainText('♩ = 120');
      for (const staff of await page.getByTestId('staff').all()) await expect(staff.locator('svg')).toHaveCount(1);

      await sheet.first().getByRole('button', { name: 'Play through the keys' }).click();
      const key = sheet.first().getByTestId('sounding-key');
      const first = await key.innerText();
      expect(first).toMatch(/^[A-G]/);
      await expect(key).not.toHaveText(first);
      await sheet.first().getByRole('button', { name: 'Stop' }).click();
      await expect(key).toHaveText('');
    },
    baseURL!,
  );
});
