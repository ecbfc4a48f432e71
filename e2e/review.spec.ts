import { noteName, parseNote } from '../src/core/music/pitch';
import { expect, openSinger, test } from './browser';

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
  // On paper they stand alone, on one page, under the name of what they are the keys of.
  await page.emulateMedia({ media: 'print' });
  await expect(keys.getByText('plays at half speed')).toBeVisible();
  await expect(keys.getByText(/Wendel$/)).toBeVisible();
  await expect(page.locator('main')).toBeHidden();
  await expect(keys.getByRole('button')).toHaveCount(0);
  expect((await page.pdf()).toString('latin1').match(/\/Type \/Page\b(?!s)/g)).toHaveLength(1);
  await page.emulateMedia({ media: null });
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
  const [first, second] = [changes.first(), changes.nth(1)];
  // A second try finds what the first one left.
  const right = first.getByRole('button', { name: 'Right' });
  if (await first.getByText('machine:').count()) await right.dblclick();
  const nothing = second.getByRole('button', { name: 'Nothing there' });
  if ((await nothing.getAttribute('aria-pressed')) === 'true') await nothing.click();

  const note = first.locator('span').first();
  const machine = parseNote(await note.innerText());
  const shows = (up: number) => expect(note).toHaveText(noteName(machine + up));

  // Play from any point: the line moves.
  await first.getByRole('button').first().click();
  await expect(page.getByRole('button', { name: 'Pause' })).toBeVisible();

  await page.locator('body').press('ArrowUp');
  await page.locator('body').press('ArrowUp');
  await shows(2);
  await expect(first).toContainText(`machine: ${noteName(machine)}`);
  await page.locator('body').press('Control+z');
  await shows(1);
  // Left before the server has it, it is kept.
  await nothing.click();
  await page.reload();
  await shows(1);
  await expect(nothing).toHaveAttribute('aria-pressed', 'true');

  await page.getByRole('link', { name: 'Map', exact: true }).click();
  await page.getByTestId('passaggio').getByRole('button').first().click();
  await expect(page.getByTestId('passaggio').getByText('your ear, up')).toBeVisible();

  // Without the server, and reloaded meanwhile: the coach is told, and it arrives by itself.
  const word = page.getByLabel('A word on this take');
  const quay = `Said on the quay at ${Date.now()}.`;
  await page.goBack();
  await shows(1);
  await page.context().setOffline(true);
  await right.click();
  await word.fill(quay);
  await right.click();
  await expect(page.getByText('2 entries of yours are safe in this browser and not on the server yet.')).toBeVisible();
  await page.context().setOffline(false);
  await page.reload();
  await shows(0);
  await expect(word).toHaveValue(quay);
  await expect(page.getByText(/safe in this browser/)).toBeHidden();
  await expect.poll(() => page.evaluate(() => localStorage.getItem('wendel-words'))).toBe('[]');
  await page.reload();
  await shows(0);
  await expect(word).toHaveValue(quay);
});

test('another singer’s take beside this one: both are heard at the note under the cursor', async ({ page }) => {
  await openSinger(page, 'Dot Hallam', 'Map');
  await page.getByRole('region', { name: 'Takes' }).getByRole('link', { name: /Siren/ }).first().click();
  await page.waitForURL(/\/takes\//);
  const own = new URL(page.url()).pathname.split('/').at(-1)!;
  await page.getByLabel('Of', { exact: true }).selectOption({ label: 'Ysolde Marsh' });
  const beside = page.getByLabel('Beside it');
  await expect(beside.getByRole('option').filter({ hasText: 'Siren' }).first()).toBeAttached();
  const other = await beside.getByRole('option').filter({ hasText: 'Siren' }).first().getAttribute('value');
  const analysed = page.waitForResponse((r) => r.url().endsWith(`/api/takes/${other}`));
  await beside.selectOption(other!);
  await analysed;
  // What sounds, one after the other.
  const heard: string[] = [];
  page.on('request', (r) => /\/audio$/.test(r.url()) && heard.push(r.url().split('/').at(-2)!));
  const picture = page.getByRole('group', { name: 'Changes found in this take' });
  const box = (await picture.boundingBox())!;
  await page.mouse.click(box.x + 2, box.y + box.height - 30);
  await page.locator('body').press(' ');
  await page.locator('body').press('3');
  await expect(page.getByRole('status').filter({ hasText: 'Put the cursor on a note' })).toBeVisible();
  await page.mouse.click(box.x + box.width / 3, box.y + box.height - 30);
  await page.locator('body').press(' ');
  await page.getByRole('button', { name: 'Both at this note' }).click();
  await expect.poll(() => heard.filter((id, i) => id !== heard[i - 1])).toEqual([own, other]);
});
