import { answered, NO_ANSWERS } from '../src/core/ears/staircase';
import { makeTrial } from '../src/core/ears/trial';
import { expect, test } from './browser';

test('an ear is asked by keyboard, told what was there, led from plain to hard, and keeps its measure', async ({ page }) => {
  // Known questions: the page draws its seeds by this.
  await page.addInitScript(() => (Math.random = () => 0.5));
  const first = makeTrial('place', NO_ANSWERS.level, 2 ** 30);
  await page.goto('/ears');
  const measure = page.getByTestId('measure');
  await expect(measure).toHaveText('Nothing answered yet.');
  await page.keyboard.press('Space');
  const answers = page.getByRole('group', { name: 'Your answer' }).getByRole('button');
  await expect(answers).toHaveCount(4);
  // It sounds.
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible();
  await page.keyboard.press(String(first.right + 1));
  await expect(page.getByText('Right.', { exact: true })).toBeVisible();
  await expect(measure).toContainText('1 of 1 right');
  // A second answer to the same is none.
  await page.keyboard.press(String(((first.right + 1) % 4) + 1));
  await expect(measure).toContainText('1 of 1 right');

  // The next is harder; a wrong answer is told, and marked.
  await page.keyboard.press('Enter');
  await expect(page.getByText('Right.', { exact: true })).toHaveCount(0);
  const second = makeTrial('place', answered(NO_ANSWERS, true).level, 2 ** 30);
  await page.keyboard.press(String(((second.right + 1) % 4) + 1));
  await expect(page.getByText(/^It was [A-G]#?\d\./)).toBeVisible();
  await expect(answers.nth(second.right).locator('svg')).toHaveCount(1);
  await expect(measure).toContainText('1 of 2 right');

  await page.getByRole('button', { name: 'Which is louder' }).press('Enter');
  await page.getByRole('button', { name: 'Play' }).press('Enter');
  await expect(answers).toHaveText(['the first', 'the second']);
  await page.reload();
  await expect(measure).toContainText('1 of 2 right');
  await page.getByRole('button', { name: 'Begin anew' }).click();
  await expect(measure).toHaveText('Nothing answered yet.');
});
