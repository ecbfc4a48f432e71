import { expect, test } from './browser';

test('several together: the notes all of them have, a set in keys for everybody, played and printed; low voices an octave under', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Several together' }).click();
  await expect(page.getByText('Nobody is ticked yet.')).toBeVisible();
  await page.getByLabel('Maren Quill').check();
  const said = page.getByRole('region', { name: 'What they sing' }).getByRole('status');
  await expect(said).toContainText(/All of them have the notes from \S+ to \S+\./);
  const alone = await said.innerText();
  await expect(said).not.toContainText('An octave under');

  // A tenor beside her: fewer notes are left to both, and he is an octave under what is written.
  await page.getByLabel('Lio Fenn').check();
  await expect(said).toContainText('An octave under what is written: Lio Fenn.');
  expect((await said.innerText()).split('\n')[0]).not.toBe(alone.split('\n')[0]);
  await expect(page).toHaveURL(/with=[0-9a-f-]{36},[0-9a-f-]{36}$/);

  await page.getByLabel('Set', { exact: true }).selectOption({ label: 'Warm up, 3 minutes' });
  await expect(page.getByRole('heading', { name: 'Warm up, 3 minutes' })).toBeVisible();
  const items = page.getByTestId('together-item');
  await expect(items).toHaveCount(3);
  await expect(items.first().locator('svg')).not.toHaveCount(0);
  await items.first().getByRole('button', { name: 'Play through the keys' }).click();
  await items.first().getByRole('button', { name: 'Stop' }).click();

  // The page says it all again when it is opened by its address; who is unticked is out.
  await page.reload();
  await expect(said).toContainText('Lio Fenn');
  await page.getByLabel('Lio Fenn').uncheck();
  await expect(said).not.toContainText('Lio Fenn');
  await expect(said).toHaveText(alone);
  // Whoever isn't of this studio is nobody here.
  await page.goto('/together?with=00000000-0000-4000-8000-000000000000,nonsense');
  await expect(page.getByText('Nobody is ticked yet.')).toBeVisible();
});
