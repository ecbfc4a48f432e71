import { Client } from 'pg';
import { databaseUrls } from '../bin/lib/postgres.mjs';
import { answerWell, COPY, expect, practiceLink, test } from './browser';

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

test('a set given to all of them is on their phones, beside what they had', async ({ page }) => {
  const db = new Client({ connectionString: databaseUrls(COPY.data).ownerUrl });
  await db.connect();
  const begun = (await db.query('select now()')).rows[0].now;
  try {
    const link = await practiceLink(page, 'Lio Fenn');
    await page.goto('/together');
    for (const name of ['Maren Quill', 'Lio Fenn']) await page.getByLabel(name).check();
    await page.getByLabel('Set', { exact: true }).selectOption({ label: 'Cool down' });
    const [first] = await page.getByTestId('together-item').getByRole('heading').allInnerTexts();
    const exercise = first.replace(/^1\. | on “.*/g, '');

    await page.getByRole('button', { name: 'Give it to all of them' }).click();
    const form = page.locator('form').filter({ hasText: 'The week begins on' });
    await expect(form.getByLabel('sings this beside it')).toBeChecked();
    await form.getByLabel('A word to all of them').fill('After every rehearsal');
    await form.getByRole('button', { name: 'Give it to all of them' }).click();
    await expect(form.getByRole('status')).toHaveText('Given to Lio Fenn and Maren Quill.');

    await page.goto(link);
    await answerWell(page);
    await expect(page.getByText(exercise).first()).toBeVisible();
    await expect(page.getByText('After every rehearsal')).toBeVisible();
  } finally {
    // The other tests know their weeks as they were.
    await db.query('delete from assignment where created_at >= $1', [begun]);
    await db.end();
  }
});
