import { expect, test } from '@playwright/test';
import { noteName, parseNote } from '../src/core/music/pitch';
import { openSinger } from './browser';

test('a second listen without the machine is marked by ear and then compared; undone steps come back', async ({ page }) => {
  await openSinger(page, 'Maren Quill', 'Map');
  await page.getByRole('region', { name: 'Takes' }).getByRole('link', { name: /Siren/ }).first().click();
  const changes = page.getByTestId('change');
  await expect(changes).toHaveCount(2);
  await page.getByRole('button', { name: 'Listen without the machine' }).click();
  await expect(changes).toHaveCount(0);
  // A moment in the middle of the way up, by ear.
  const picture = page.getByRole('group', { name: 'Changes found in this take' });
  const box = (await picture.boundingBox())!;
  await page.mouse.click(box.x + box.width / 3, box.y + box.height - 30);
  await page.locator('body').press(' ');
  await page.locator('body').press('m');
  const added = page.getByTestId('added');
  await expect(added).toHaveCount(1);
  await page.locator('body').press('Control+z');
  await expect(added).toHaveCount(0);
  await page.locator('body').press('Control+y');
  await expect(added).toHaveCount(1);
  await page.getByRole('button', { name: 'Compare' }).click();
  await expect(page.getByTestId('compared').getByRole('listitem').first()).toContainText('you');
  await expect(changes).toHaveCount(2);
  await page.locator('body').press('Control+z');
  await expect(added).toHaveCount(0);

  await page.getByText(/How the change at .* was measured/).click();
  await expect(page.getByTestId('measured')).toContainText(/Before: [A-G].* After: [A-G]/);
  // The keys are listed by a key; none works behind the list.
  await page.keyboard.press('?');
  const keys = page.getByRole('dialog', { name: 'Keys of this page' });
  await expect(keys).toContainText('plays at half speed');
  await page.keyboard.press('l');
  await page.keyboard.press('Escape');
  await expect(keys).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Loop' })).toHaveAttribute('aria-pressed', 'false');
  // A button pressed by mouse gives Space back to the room; one that was gone to by keyboard keeps it.
  await page.getByRole('button', { name: 'Half speed' }).click();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Half speed' })).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('button', { name: 'Loop' }).focus();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Loop' })).toHaveAttribute('aria-pressed', 'true');
});

test('the coach accepts, moves, rejects, adds and takes back; it is kept, and the map follows', async ({ page }) => {
  await openSinger(page, 'Lio Fenn', 'Map');
  await page.getByRole('region', { name: 'Takes' }).getByRole('link', { name: /Siren/ }).first().click();
  const changes = page.getByTestId('change');
  await expect(changes).toHaveCount(2);
  const note = () => changes.first().locator('span').first().innerText();
  const machine = parseNote(await note());

  // Play from any point: the line moves.
  await changes.first().getByRole('button').first().click();
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible();

  await page.locator('body').press('ArrowUp');
  await page.locator('body').press('ArrowUp');
  expect(parseNote(await note())).toBe(machine + 2);
  await expect(changes.first()).toContainText(`machine: ${noteName(machine)}`);
  await page.locator('body').press('Control+z');
  expect(parseNote(await note())).toBe(machine + 1);
  await changes.nth(1).getByRole('button', { name: 'Nothing there' }).click();
  await expect(changes.nth(1).getByRole('button', { name: 'Nothing there' })).toHaveAttribute('aria-pressed', 'true');
  await page.waitForLoadState('networkidle');

  await page.reload();
  expect(parseNote(await note())).toBe(machine + 1);
  await expect(changes.nth(1).getByRole('button', { name: 'Nothing there' })).toHaveAttribute('aria-pressed', 'true');

  await page.getByRole('link', { name: 'Map', exact: true }).click();
  await page.getByTestId('passaggio').getByRole('button').first().click();
  await expect(page.getByTestId('passaggio').getByText('your ear, up')).toBeVisible();

  await page.goBack();
  await changes.first().getByRole('button', { name: 'Right' }).click();
  await changes.first().getByRole('button', { name: 'Right' }).click();
  expect(parseNote(await note())).toBe(machine);
});
