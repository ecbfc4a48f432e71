import AxeBuilder from '@axe-core/playwright';
import { writeWav } from '../src/core/format/wav';
import { sing } from '../src/core/sim/sing';
import { typicalProfile } from '../src/core/sim/typical';
import { answerWell, expect, found, NOBODY, test } from './browser';

test.use({ storageState: NOBODY });

const siren = (seed: number) =>
  Buffer.from(writeWav(sing(typicalProfile('mezzo', 'flip'), { kind: 'siren', legS: 2.4 }, { seed, sampleRate: 22050 }).pcm, 16));

test('from nothing to a singer who practises, by what the pages say, in under ten minutes; help on the way', async ({
  page,
  browser,
  baseURL,
}) => {
  test.setTimeout(480_000);
  const began = Date.now();
  await page.goto('/');
  await page.getByRole('link', { name: 'Make an account' }).click();
  await page.getByLabel('Your name').fill('Nell Harrow');
  await page.getByLabel('E-mail address').fill(`${crypto.randomUUID()}@barge.example`);
  await page.getByLabel('Password').fill('otter paddle quay whistle');
  const choice = page.getByRole('radio', { name: /empty studio/ });
  if (await choice.count()) await choice.click();
  await page.getByLabel(/Name of .*studio/i).fill('The quay');
  await page.getByRole('button', { name: 'Make the account' }).click();

  const steps = page.getByRole('region', { name: 'The first hour' });
  /** The step that is to be done now, by its one button. */
  const next = async (name: string) => {
    const step = steps.locator('[aria-current="step"]');
    await expect(step).toContainText(name);
    await step.locator('a, button').click();
  };
  await next('Add a singer');
  await page.getByLabel('Name', { exact: true }).fill('Tam Weir');
  await page.getByLabel('Voice, as far as you know').selectOption({ label: 'Mezzo' });
  await page.getByRole('button', { name: 'Add and listen' }).click();
  await expect(page).toHaveURL(/\/listen$/);

  // What can be pressed here says the page itself, and where a word leads.
  await page.getByRole('button', { name: 'Help' }).click();
  const help = page.getByRole('dialog');
  await expect(help.getByRole('heading')).toHaveText('Help: Listen');
  await expect(help.getByText('Listen to', { exact: true })).toBeVisible();
  expect((await new AxeBuilder({ page }).include('[role=dialog]').analyze()).violations).toEqual([]);
  await help.getByRole('searchbox').fill('straw blows back');
  await help.getByRole('button', { name: /^Straws/ }).click();
  await expect(help.getByRole('heading')).toHaveText('Help: Straws');
  await page.keyboard.press('Escape');
  await expect(help).toBeHidden();

  for (const seed of [1, 2]) {
    await page.getByLabel('Audio file').setInputFiles({ name: `${seed}.wav`, mimeType: 'audio/wav', buffer: siren(seed) });
    await expect(found(page)).toBeVisible();
    await expect(found(page)).toContainText('leaps across');
  }
  await page.getByRole('link', { name: 'Studio', exact: true }).click();
  await next('assign a week');
  await page.getByRole('button', { name: 'Assign week' }).click();
  await page.getByRole('button', { name: 'Assign to Tam Weir' }).click();
  await expect(page.getByTestId('sheet-item').first()).toBeVisible();
  await page.getByRole('link', { name: 'Studio', exact: true }).click();
  await expect(steps.locator('[aria-current="step"]')).toContainText('Send the practice page');
  await page.goBack();
  await page.getByRole('button', { name: /phone$/ }).click();
  await page.getByRole('button', { name: 'Make a new link' }).click();
  const address = await page.getByTestId('practice-link').innerText();

  const phone = await browser.newContext({ baseURL, storageState: NOBODY, viewport: { width: 390, height: 844 } });
  const singer = await phone.newPage();
  await singer.goto(address);
  await answerWell(singer);
  await singer.getByText('Practised without the phone?').click();
  await singer.getByRole('button', { name: 'Write it down' }).click();

  // Somebody practises: the studio needs no leading any more.
  await page.getByRole('link', { name: 'Studio', exact: true }).click();
  await expect(page.getByRole('link', { name: 'Tam Weir', exact: true })).toBeVisible();
  await expect(steps).toBeHidden();
  expect(Date.now() - began).toBeLessThan(600_000);
  await phone.close();
});
