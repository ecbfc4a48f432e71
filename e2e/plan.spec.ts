import { Locator, Page } from '@playwright/test';
import ICAL from 'ical.js';
import { parseMidi } from 'midi-file';
import { readFileSync } from 'node:fs';
import { exerciseById } from '../src/core/exercise/shelf';
import { songFromMusicXml } from '../src/core/format/song-musicxml';
import { toMidi } from '../src/core/format/midi';
import { readWav } from '../src/core/format/wav';
import { answerWell, expect, openSinger, practiceLink, test } from './browser';

const week = (page: Page) => page.getByTestId('item');
const names = (page: Page) =>
  week(page)
    .getByRole('button', { name: /^Move / })
    .evaluateAll((all) => all.map((b) => b.getAttribute('aria-label')!.slice(5)));

/** Take a thing by the mouse to another, as a hand does: in steps. */
async function drag(page: Page, from: Locator, to: Locator) {
  await from.hover();
  await page.mouse.down();
  const target = (await to.boundingBox())!;
  await page.mouse.move(target.x + 60, target.y + 40, { steps: 10 });
  await page.mouse.move(target.x + 60, target.y + 12, { steps: 5 });
  await page.waitForTimeout(200);
  await page.mouse.up();
}

test('a key has one name: in the week, over its staff and where it is chosen', async ({ page }) => {
  await openSinger(page, 'Lio Fenn', 'Plan');
  await week(page).first().click();
  const shown = page.getByRole('group', { name: 'Key shown' }).getByRole('button');
  const names = await shown.allTextContents();
  // G#3 or Ab3, as the staff of that key has it.
  await page.getByLabel('Last key').selectOption('56');
  await expect(shown.last()).toHaveText('Ab3');
  await expect(page.getByLabel('Last key').locator('option:checked')).toHaveText('Ab3');
  await expect(week(page).first()).toContainText(`${names[0]} up to Ab3`);
});

test('from map to assigned week by mouse, in under two minutes', async ({ page }) => {
  const started = Date.now();
  await openSinger(page, 'Lio Fenn', 'Map');
  await page.getByRole('link', { name: 'Plan', exact: true }).click();
  await expect(page.getByText(/Works on the flip/)).toBeVisible();
  const before = await names(page);
  // A card from the shelf, dropped on the third row, stands there.
  await page.getByLabel('Search the shelf').fill('puppy');
  await drag(page, page.getByTestId('shelf-card').first().locator('span').first(), week(page).nth(2));
  await expect(week(page)).toHaveCount(before.length + 1);
  expect((await names(page)).indexOf('Whimper on a fifth')).toBe(2);
  // What goes against a rule is said at once; the word is the coach's.
  await expect(week(page).nth(2)).toContainText(/grade|Put|lighter/i);
  // Up the list by its handle.
  await drag(page, page.getByRole('button', { name: 'Move Whimper on a fifth' }), week(page).nth(0));
  await expect.poll(async () => (await names(page)).indexOf('Whimper on a fifth')).toBe(0);
  await page.getByRole('button', { name: 'Take Whimper on a fifth out' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(() => names(page)).toEqual(before);
  // Not on the last day of work.
  await week(page).nth(0).getByRole('group').getByRole('button').nth(5).click();
  await page.getByRole('button', { name: 'Assign week' }).click();
  await page.getByLabel('The week begins on').fill('2027-01-04');
  await page.getByLabel(/A word for/).fill('Lightly, before breakfast.');
  await page.getByRole('button', { name: 'Assign to Lio Fenn' }).click();
  await expect(page.getByText('Lightly, before breakfast.')).toBeVisible();
  await expect(page.getByTestId('sheet-item')).toHaveCount(before.length);
  await page.getByRole('button', { name: 'Sa', exact: true }).click();
  await expect(page.getByTestId('sheet-item')).toHaveCount(before.length - 1);
  expect(Date.now() - started).toBeLessThan(120_000);
});

test('what is sung and wanted speaks for a school; looked at, it is kept or left, and then no other is proposed', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('row').filter({ hasText: 'Lio Fenn' }).getByRole('button').click();
  await page.getByLabel('What they sing').selectOption({ label: 'Soul, R&B, jazz' });
  await page.getByLabel('What they want most').selectOption({ label: 'A light, soft top' });
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await openSinger(page, 'Lio Fenn', 'Plan');
  const proposed = page.getByTestId('school-proposed');
  await expect(proposed).toContainText('Early connect (light)');
  await expect(proposed).toContainText('head comes down early');
  await proposed.getByRole('button', { name: 'Look at it' }).click();
  await expect(page.getByRole('region', { name: 'Another school', exact: true })).toContainText('against Classical');
  // Its own phases stand in the list.
  await expect(page.getByLabel('Phase').locator('option').first()).toHaveText(/Head from above/);
  await page.getByRole('button', { name: 'Teach Lio Fenn this way' }).click();
  await expect(page.getByRole('region', { name: 'Another school', exact: true })).toHaveCount(0);
  await expect(proposed).toHaveCount(0);
  // Back to what the studio teaches: other tests go by it.
  await page.goto('/');
  await page.getByRole('row').filter({ hasText: 'Lio Fenn' }).getByRole('button').click();
  await page.getByLabel('What they sing').selectOption('');
  await page.getByLabel('What they want most').selectOption('');
  await page.getByLabel('Taught as').selectOption('');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
});

test('from map to assigned week by keyboard, in under two minutes', async ({ page }) => {
  const started = Date.now();
  await openSinger(page, 'Maren Quill', 'Map');
  await page.getByRole('link', { name: 'Plan', exact: true }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText(/Works on the toggle/)).toBeVisible();
  const before = await names(page);
  await page.getByLabel('Search the shelf').focus();
  await page.keyboard.type('lighter on both');
  await page.getByRole('button', { name: 'Add Lighter on both sides' }).focus();
  await page.keyboard.press('Enter');
  await expect(week(page)).toHaveCount(before.length + 1);
  const at = (await names(page)).indexOf('Lighter on both sides');
  const row = week(page).nth(at).locator('button[title^="Enter shows it"]');
  await row.focus();
  await page.keyboard.press('Alt+ArrowUp');
  await expect.poll(async () => (await names(page)).indexOf('Lighter on both sides')).toBe(at - 1);
  await week(page)
    .nth(at - 1)
    .locator('button[title^="Enter shows it"]')
    .focus();
  await page.keyboard.press('1');
  await expect(
    week(page)
      .nth(at - 1)
      .getByRole('group')
      .getByRole('button')
      .first(),
  ).toHaveAttribute('aria-pressed', 'false');
  // Picked up with Space, one place down, put down with Space.
  await page.getByRole('button', { name: 'Move Lighter on both sides' }).focus();
  await page.keyboard.press('Space');
  await page.waitForTimeout(300);
  await page.keyboard.press('ArrowDown');
  await page.waitForTimeout(300);
  await page.keyboard.press('Space');
  await expect.poll(async () => (await names(page)).indexOf('Lighter on both sides')).toBe(at);
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await names(page)).indexOf('Lighter on both sides')).toBe(at - 1);
  await page.getByRole('button', { name: 'Assign week' }).focus();
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Assign to Maren Quill' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('sheet-item')).toHaveCount(before.length + 1);
  expect(Date.now() - started).toBeLessThan(120_000);
});

test('the coach’s changes stay when the plan is worked out anew, and are there tomorrow', async ({ page }) => {
  await openSinger(page, 'Osk Varrel', 'Plan');
  await page.getByRole('button', { name: 'Take Seamless siren on “ah” out' }).click();
  await week(page).first().locator('button[title^="Enter shows it"]').click();
  await page.getByLabel('Minutes', { exact: true }).fill('3');
  const before = await names(page);
  const kept = page.waitForResponse((r) => r.url().endsWith('/plan') && r.request().postDataJSON()?.terms?.minutesADay === 30);
  await page.getByLabel('Minutes a day').selectOption('30');
  await expect.poll(() => names(page)).not.toEqual(before);
  expect(await names(page)).not.toContain('Seamless siren on “ah”');
  await expect(week(page).first()).toContainText('3 ×');
  expect((await kept).ok()).toBe(true);
  const saved = await names(page);
  // Gone back to, or opened anew.
  await page.getByRole('link', { name: 'Map', exact: true }).click();
  await expect(page.getByTestId('passaggio').first()).toBeVisible();
  await page.goBack();
  await expect.poll(() => names(page)).toEqual(saved);
  await page.reload();
  await expect.poll(() => names(page)).toEqual(saved);
  await expect(page.getByLabel('Minutes a day')).toHaveValue('30');
  // Another school, looked at before it is chosen.
  await page.getByLabel('Taught as').selectOption({ label: 'Early connect (light)' });
  await expect(page.getByRole('list', { name: 'Differences' }).getByRole('listitem').first()).toBeVisible();
  await page.getByRole('button', { name: 'Back', exact: true }).click();
  await expect.poll(() => names(page)).toEqual(saved);
  // Kept as a set, and fitted to another voice in its own keys.
  await page.getByRole('button', { name: 'Sets' }).click();
  await page.getByLabel('Name to keep this set under').fill('For the low boats');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByRole('button', { name: 'For the low boats', exact: true })).toBeVisible();
  const low = await week(page).first().innerText();
  await openSinger(page, 'Lio Fenn', 'Plan');
  await page.getByRole('button', { name: 'Sets' }).click();
  await page.getByRole('button', { name: 'For the low boats', exact: true }).click();
  await expect(week(page).first()).not.toHaveText(low);
});

test('an exercise is written on the staff, kept, and comes in from files', async ({ page }) => {
  await page.goto('/exercises');
  await page.getByRole('button', { name: 'Write one' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Two steps and a slide');
  const editor = page.getByTestId('pattern-editor');
  await editor.focus();
  for (const key of ['ArrowRight', 'ArrowUp', 'Enter', 'Shift+ArrowUp', 's']) await page.keyboard.press(key);
  await expect(page.getByLabel(/As text/)).toHaveValue('1 3 4~ 3 2 1'.replace('~ ', '~'));
  await page.getByLabel(/As text/).fill('1 2 x');
  await expect(page.getByRole('alert').filter({ hasText: 'not a degree' })).toBeVisible();
  await page.getByLabel(/As text/).fill('1 2:2 b3~5 1:0.5');
  await page.getByLabel('What the singer does, in a sentence or two').fill('Up in steps, then slide.');
  await page.getByRole('button', { name: 'Keep on the shelf' }).click();
  const card = page.getByTestId('exercise');
  await expect(card.getByRole('heading')).toHaveText('Two steps and a slide');
  const share = page.waitForEvent('download');
  await card.getByRole('button', { name: 'Share' }).click();
  const shared = await (await share).path();
  await card.getByRole('button', { name: 'Take off the shelf' }).click();
  await page.getByLabel('File with an exercise').setInputFiles(shared);
  await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Two steps and a slide');
  await expect(page.getByLabel(/As text/)).toHaveValue('1 2:2 b3~5 1:0.5');
  await page.getByRole('button', { name: 'Leave it' }).click();
  // A tune from another program.
  const siren = exerciseById('falling-siren');
  await page
    .getByLabel('File with an exercise')
    .setInputFiles({ name: 'tune.mid', mimeType: 'audio/midi', buffer: Buffer.from(toMidi(siren, [57], 76)) });
  await expect(page.getByLabel(/As text/)).toHaveValue('1:1.5 8:1.5~1');
  await page
    .getByLabel('File with an exercise')
    .setInputFiles({ name: 'x.musicxml', mimeType: 'text/xml', buffer: Buffer.from('<nothing/>') });
  await expect(page.getByRole('alert').filter({ hasText: 'not a MusicXML file' })).toBeVisible();
});

test('a sheet is taken along as sound, calendar, notes and paper', async ({ page }) => {
  await openSinger(page, 'Bram Toller', 'Plan');
  await page.getByRole('button', { name: 'Assign week' }).click();
  await page.getByRole('button', { name: 'Assign to Bram Toller' }).click();
  await expect(page.getByTestId('staff').last().locator('svg')).toHaveCount(1);
  const take = async (name: string) => {
    await page.getByRole('button', { name: 'Take along' }).click();
    const file = page.waitForEvent('download');
    await page.getByRole('button', { name }).click();
    return readFileSync(await (await file).path());
  };
  const wav = readWav(await take('Sound to sing along with (WAV)'));
  expect(wav.samples.length / wav.sampleRate).toBeGreaterThan(240);
  expect(Math.max(...wav.samples.subarray(0, 32_000))).toBeGreaterThan(0.05);
  await page.keyboard.press('Escape');
  const events = new ICAL.Component(ICAL.parse((await take('Sessions for a calendar (ICS)')).toString())).getAllSubcomponents('vevent');
  expect(events.length).toBeGreaterThan(7);
  await page.keyboard.press('Escape');
  expect((await take('Page to send (PDF)')).subarray(0, 5).toString()).toBe('%PDF-');
  await page.keyboard.press('Escape');
  expect(parseMidi(await take('Notes to play (MIDI, one file an exercise)')).tracks.length).toBe(3);
  await page.keyboard.press('Escape');
  expect(songFromMusicXml(await take('Notes to print (MusicXML, one file an exercise)')).song.notes.length).toBeGreaterThan(4);
});

test('what the coach says between the keys is on the sheet, and on the phone by turns', async ({ page }) => {
  await openSinger(page, 'Bram Toller', 'Plan');
  await week(page).first().locator('button[title^="Enter shows it"]').click();
  const kept = page.waitForResponse((r) => r.request().method() === 'PUT' && r.url().endsWith('/plan'));
  await page.getByLabel('Said between the keys').fill('less air\n jaw loose \n\n');
  await page.getByLabel('Said between the keys').blur();
  expect((await kept).ok()).toBe(true);
  const address = await practiceLink(page, 'Bram Toller');
  await expect(page.getByTestId('sheet-item').first()).toContainText('Between the keys: less air; jaw loose.');
  // A device with a voice of its own and one that is asked for over a network; what is said, by which, is kept.
  await page.addInitScript(() => {
    const voices = ['far', 'own'].map((name) => ({ name, lang: 'en-GB', localService: name === 'own' }));
    const said: string[] = [];
    class Utterance {
      voice: { name: string } | null = null;
      constructor(readonly text: string) {}
    }
    const speech = Object.assign(new EventTarget(), {
      getVoices: () => voices,
      speak: ({ text, voice }: Utterance) => said.push(`${voice?.name}: ${text}`),
      cancel: () => {},
    });
    Object.defineProperty(window, 'speechSynthesis', { value: speech });
    Object.assign(window, { said, SpeechSynthesisUtterance: Utterance });
  });
  const said = () => page.evaluate(() => (window as unknown as { said: string[] }).said);
  await page.goto(address);
  await answerWell(page);
  await page.getByTestId('practice-item').first().click();
  await expect(page.getByTestId('cue')).toHaveCount(0);
  const aloud = page.getByRole('checkbox', { name: 'Say my coach’s words aloud' });
  // While the phone listens nothing is said that it would hear.
  await page.getByRole('button', { name: 'Let the phone listen' }).click();
  await expect(aloud).toHaveCount(0);
  await page.getByRole('checkbox', { name: 'I wear headphones' }).check();
  await aloud.check();
  await page.getByRole('button', { name: 'The phone listens' }).click();
  await page.getByRole('button', { name: 'Begin' }).click();
  await expect(page.getByTestId('cue')).toHaveText('less air');
  await expect(page.getByTestId('cue')).toHaveText('jaw loose', { timeout: 90_000 });
  expect((await said()).slice(0, 2)).toEqual(['own: less air', 'own: jaw loose']);
  await page.getByRole('button', { name: 'Enough' }).click();
});
