import { Page, Request } from '@playwright/test';
import { addSinger, expect, test } from './browser';

declare global {
  interface Window {
    /** A keyboard that is no keyboard: what it sends, and its cable. */
    keyboard: { send(...bytes: number[]): void; play(atMs: number, ...bytes: number[]): void; plug(is: boolean): void };
    /** For each sound that began: how long after the last message, ms, the wait on the sound's own clock included. */
    delays: number[];
  }
}

/** Give a page a MIDI keyboard, and look at when sounds begin. */
const withKeyboard = (page: Page) =>
  page.addInitScript(() => {
    const input = {
      name: 'Quay 61',
      state: 'connected',
      onmidimessage: null as ((e: { data: Uint8Array; timeStamp: number }) => void) | null,
    };
    const access = { inputs: new Map([['1', input]]), onstatechange: null as (() => void) | null };
    Object.assign(navigator, { requestMIDIAccess: async () => access });
    let sentAt = 0;
    window.delays = [];
    window.keyboard = {
      send(...bytes) {
        sentAt = performance.now();
        input.onmidimessage?.({ data: Uint8Array.from(bytes), timeStamp: sentAt });
      },
      play(atMs, ...bytes) {
        input.onmidimessage?.({ data: Uint8Array.from(bytes), timeStamp: atMs });
      },
      plug(is) {
        input.state = is ? 'connected' : 'disconnected';
        access.onstatechange?.();
      },
    };
    const start = AudioBufferSourceNode.prototype.start;
    AudioBufferSourceNode.prototype.start = function (when = 0, ...rest) {
      // The simulated singer's own sound has one channel; it comes when its take begins.
      if (sentAt > 0 && this.buffer?.numberOfChannels === 2)
        window.delays.push(performance.now() - sentAt + 1000 * Math.max(0, when - this.context.currentTime));
      return start.call(this, when, ...rest);
    };
  });

const sounding = (page: Page) =>
  page.locator('[data-sounds]').evaluateAll((keys) => keys.map((k) => Number(k.getAttribute('data-key'))).sort((a, b) => a - b));

test('the ladder plays, and so do letters; a MIDI keyboard is followed with its pedal, gives the key, and may be unplugged', async ({
  page,
}) => {
  await withKeyboard(page);
  await page.addInitScript(() => {
    localStorage.setItem('wendel-lesson-source', 'simulated');
    localStorage.setItem('wendel-reference', 'none');
  });
  await addSinger(page, 'Ines Reed', 'Mezzo');
  await page.getByRole('button', { name: 'At the piano' }).click();
  await page.getByRole('button', { name: 'Begin' }).click();
  await page.getByRole('button', { name: 'Sing something else' }).click();
  await expect(page.getByLabel('Look for an exercise or a phrase')).toBeFocused();
  await page.keyboard.type('five notes up');
  await expect(page.getByTestId('offers').getByRole('option').first()).toBeVisible();
  await page.keyboard.press('Enter');
  // It is sung at once; here the coach plays instead.
  await expect(page.getByTestId('main-key')).toBeVisible();
  await page.keyboard.press('Escape');

  // By the mouse: as long as it is held.
  const a3 = page.locator('[data-key="57"]');
  await a3.hover();
  await page.mouse.down();
  await expect.poll(() => sounding(page)).toEqual([57]);
  await page.mouse.up();
  await expect.poll(() => sounding(page)).toEqual([]);

  // By the letters, which are no keys of the room meanwhile (S would skip the step), an octave higher by full stop, until Escape.
  const asked = await page.getByTestId('ask').textContent();
  await page.locator('body').press('p');
  const says = page.getByText(/The letters play: A is C\d/);
  const c = 12 * (Number(/A is C(\d)/.exec((await says.textContent())!)![1]) + 1);
  await page.keyboard.down('a');
  await page.keyboard.down('e');
  await page.keyboard.down('g');
  await expect.poll(() => sounding(page)).toEqual([c, c + 3, c + 7]);
  await page.keyboard.press('.');
  await expect.poll(() => sounding(page)).toEqual([]);
  for (const key of ['a', 'e', 'g']) await page.keyboard.up(key);
  await page.keyboard.down('s');
  await expect.poll(() => sounding(page)).toEqual([c + 14]);
  await page.keyboard.press('Escape');
  await expect.poll(() => sounding(page)).toEqual([]);
  await page.keyboard.up('s');
  await expect(says).toBeHidden();
  expect(await page.getByTestId('ask').textContent()).toBe(asked);

  await page.getByText('Piano and microphone').click();
  await page.getByRole('checkbox', { name: /Follow a MIDI keyboard/ }).check();
  await expect(page.getByText('Quay 61')).toBeVisible();
  const send = (...bytes: number[]) => page.evaluate((all) => window.keyboard.send(...all), bytes);
  await send(0xb0, 64, 127);
  for (const midi of [59, 63, 66]) await send(0x90, midi, 90);
  for (const midi of [59, 63, 66]) await send(0x80, midi, 0);
  await expect.poll(() => sounding(page)).toEqual([59, 63, 66]);
  await send(0xb0, 64, 0);
  await expect.poll(() => sounding(page)).toEqual([]);

  // Its lowest note is the key, by one press.
  await page.getByRole('button', { name: 'From B3' }).waitFor();
  await page.locator('body').press('k');
  await expect(page.getByTestId('ask-key')).toContainText('from B3');

  // What is played is sung: after the chord that gives its key, an octave too low for this voice.
  // Its times are the keyboard's own: a hand keeps them however slow the machine is.
  await page.evaluate(() => {
    const { play } = window.keyboard;
    const from = performance.now();
    for (const midi of [36, 43, 48]) play(from, 0x90, midi, 90);
    for (const midi of [36, 43, 48]) play(from + 200, 0x80, midi, 0);
    [48, 52, 55, 48].forEach((midi, i) => {
      play(from + 250 * (i + 1), 0x90, midi, 90);
      play(from + 250 * (i + 1) + 220, 0x80, midi, 0);
    });
  });
  await page.getByRole('button', { name: 'Sing what I played' }).waitFor();
  await page.locator('body').press('l');
  await expect(page.getByTestId('ask')).toContainText('Played: 1 3 5 1');
  await expect(page.getByTestId('ask-key')).toContainText('from C4');
  await expect(page.getByTestId('verdict')).toContainText(/It went as meant|Not yet as meant|can’t be told/);
  await page.keyboard.press('Escape');
  // Sung again it is the same exercise.
  const played = (request: Request) => {
    const steps: { name: string; exercise?: { id: string } }[] = request.postDataJSON()?.course?.steps ?? [];
    return steps.filter((step) => step.name.startsWith('Played:')).map((step) => step.exercise?.id);
  };
  const kept = page.waitForRequest((r) => r.method() === 'PUT' && r.url().includes('/api/lessons/') && played(r).length === 2);
  await page.locator('body').press('l');
  const [first, second] = played(await kept);
  expect(second).toBe(first);
  await page.keyboard.press('Escape');
  const key = (await page.getByTestId('ask-key').textContent())!;

  // A cable that is pulled leaves nothing sounding, and the lesson as it is.
  await send(0x90, 64, 90);
  await expect.poll(() => sounding(page)).toEqual([64]);
  await page.evaluate(() => window.keyboard.plug(false));
  await expect.poll(() => sounding(page)).toEqual([]);
  await expect(page.getByText('Quay 61 is not connected any more')).toBeVisible();
  await expect(page.getByTestId('ask-key')).toHaveText(key);
  await page.evaluate(() => window.keyboard.plug(true));
  await send(0x90, 60, 90);
  await expect.poll(() => sounding(page)).toEqual([60]);
  await send(0x80, 60, 0);

  const delays = await page.evaluate(() => window.delays);
  expect(delays.length).toBeGreaterThan(3);
  test.info().annotations.push({ type: 'key to sound, ms', description: delays.map((d) => d.toFixed(1)).join(' ') });
});
