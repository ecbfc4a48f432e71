import { chromium } from '@playwright/test';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { noteName } from '../src/core/music/pitch';
import {
  answerWell,
  CHROMIUM,
  expect,
  kept,
  LAUNCH_ARGS,
  NOBODY,
  openSinger,
  practiceLink,
  sirenFile,
  test,
  withMicrophone,
} from './browser';

const PHONE = { width: 390, height: 844 };

test('a set practised with the phone listening; a scratch is told, another stops the day, and the coach sees it without asking', async ({
  page: coach,
  baseURL,
}) => {
  test.setTimeout(480_000);
  const address = await practiceLink(coach, 'Dot Hallam');
  // The message with the link is in the post.
  await coach.goto('/post');
  await expect(coach.getByTestId('message').first()).toContainText(address);
  await coach.goto('/');
  const siren = sirenFile('practice.wav', 'contralto', 'flip', 5, 2.4);
  await withMicrophone(
    siren.path,
    async (singer) => {
      await singer.setViewportSize(PHONE);
      await singer.goto(address);
      await singer.getByRole('button', { name: 'All well' }).click();
      const items = singer.getByTestId('practice-item');
      await expect(items.first()).toBeVisible();

      // A mirror, while it is wanted.
      await items.first().click();
      await singer.getByRole('button', { name: 'A mirror' }).click();
      const mirror = singer.locator('video');
      await expect.poll(() => mirror.evaluate((v: HTMLVideoElement) => v.videoWidth)).toBeGreaterThan(0);
      const stream = await mirror.evaluateHandle((v: HTMLVideoElement) => (v.srcObject as MediaStream).getTracks()[0]);
      await singer.getByRole('button', { name: 'Put the mirror away' }).click();
      await expect.poll(() => stream.evaluate((track) => track.readyState)).toBe('ended');
      await singer.getByRole('button', { name: 'Back to today' }).click();

      const practise = async (n: number, effort: string, signs: string[], listen = false) => {
        await items.nth(n).click();
        if (listen) await singer.getByRole('button', { name: 'Let the phone listen' }).click();
        await singer.getByRole('button', { name: 'Begin' }).click();
        const key = await singer.getByTestId('key').innerText();
        if (listen) {
          // The next key begins by itself.
          await expect(singer.getByTestId('key')).not.toHaveText(key);
        }
        // Otherwise ended as soon as begun: that nothing can be told of so little is told, too.
        await singer.getByRole('button', { name: 'Enough' }).click();
        await expect(singer.getByRole('timer')).toBeVisible();
        // What was heard is judged, with a reason and key by key. Once allowed, the phone goes on listening.
        await expect(singer.getByTestId('judged')).toContainText(/It went as meant\.|Not yet as meant:|It can’t be told:/);
        await singer.getByRole('button', { name: effort, exact: true }).click();
        for (const sign of signs) await singer.getByRole('button', { name: sign }).click();
        await singer.getByRole('button', { name: signs.length ? 'Tell it' : 'Fine', exact: true }).click();
      };
      await practise(0, '2', [], true);
      await expect(items.first()).toContainText('1 of');
      await practise(2, '3', ['Scratchy']);
      // That exercise is left for today, with the reason.
      await expect(items.nth(2)).toBeDisabled();
      await expect(items.nth(2)).toContainText('chest is being pulled');
      // The coach's page tells it without being asked.
      await expect(coach.getByText(/practising: scratchy/).first()).toBeVisible();
      await practise(3, '6', []);
      await expect(singer.getByTestId('stopped')).toContainText('That is enough for today');
      await expect(items).toHaveCount(0);
      // It can't be practised through: not by opening the page again either.
      await singer.reload();
      await expect(singer.getByTestId('stopped')).toBeVisible();
    },
    baseURL!,
  );
  await openSinger(coach, 'Dot Hallam', 'Progress');
  await expect(coach.getByTestId('entry')).toHaveCount(4);
  await expect(coach.getByTestId('entry').filter({ hasText: 'scratchy' })).toHaveCount(1);
});

test('the piano waits, sings a key once more, stays, goes on to the next or a chosen one; what was sung is what is told', async ({
  page: coach,
  baseURL,
}) => {
  const address = await practiceLink(coach, 'Maren Quill');
  await withMicrophone(
    sirenFile('walk.wav', 'tenor', 'flip', 6, 2.4).path,
    async (singer) => {
      await singer.setViewportSize(PHONE);
      await singer.goto(address);
      await answerWell(singer);
      await singer.getByTestId('practice-item').first().click();
      const chips = singer.getByRole('list', { name: 'Keys' }).getByRole('button');
      const names = (await chips.allInnerTexts()).map((text) => text.trim());
      expect(names.length).toBeGreaterThan(2);
      await expect(chips.first()).toBeDisabled();
      await singer.getByRole('button', { name: 'Let the phone listen' }).click();
      // Out of a loudspeaker the piano would be judged along with the voice: it gives the chord only, unless headphones are worn.
      const piano = singer.getByRole('combobox', { name: 'The piano' });
      await expect(piano).toHaveCount(0);
      await singer.getByLabel('I wear headphones').check();
      await expect(piano).toHaveValue('notes');
      await singer.getByLabel('I wear headphones').uncheck();
      await singer.getByRole('button', { name: 'Begin' }).click();
      const key = singer.getByTestId('key');
      const ask = (name: string) => singer.getByRole('button', { name, exact: true });
      await expect(key).toHaveText(names[0]);

      // Once more: the first key twice, then the second by itself.
      await ask('Once more').click();
      await expect(ask('Once more')).toHaveAttribute('aria-pressed', 'true');
      await expect(ask('Once more')).toHaveAttribute('aria-pressed', 'false');
      await expect(key).toHaveText(names[1]);
      // It waits: nothing is taken in, and no key comes.
      await ask('Wait').click();
      const canvas = singer.locator('canvas');
      const still = await canvas.evaluate((c: HTMLCanvasElement) => c.toDataURL());
      await singer.waitForTimeout(1500);
      expect(await canvas.evaluate((c: HTMLCanvasElement) => c.toDataURL())).toBe(still);
      await ask('Go on').click();
      await expect(key).toHaveText(names[1]);
      // A key that is pressed comes at once, and stays while it shall.
      await chips.nth(2).click();
      await ask('Stay here').click();
      await expect(ask('Stay here')).toHaveAttribute('aria-pressed', 'true');
      await expect(key).toHaveText(names[2]);
      await ask('Next key').click();
      await expect(key).not.toHaveText(names[2]);
      await ask('Enough').click();
      await expect(singer.getByTestId('judged')).toBeVisible();
      await singer.getByRole('button', { name: '2', exact: true }).click();
      await singer.getByRole('button', { name: 'Fine', exact: true }).click();
      await expect(singer.getByTestId('practice-item').first()).toContainText(/\d of \d/);
      // What was sung to its end, in the order it was sung: the first key twice.
      const said = await singer.evaluate(() => JSON.parse(localStorage.getItem('wendel-log')!) as { line: { what: { keys: number[] } } }[]);
      expect(
        said
          .at(-1)!
          .line.what.keys.map((key) => noteName(key))
          .slice(0, 2),
      ).toEqual([names[0], names[0]]);
    },
    baseURL!,
  );
});

test('where the piano cannot be fetched the phone says so, and the exercise can be begun again when it can', async ({
  page: coach,
  browser,
  baseURL,
}) => {
  const address = await practiceLink(coach, 'Maren Quill');
  const context = await browser.newContext({ baseURL, viewport: PHONE, storageState: NOBODY, serviceWorkers: 'block' });
  const singer = await context.newPage();
  let there = false;
  await singer.route('**/piano/*.ogg', (route) => (there ? route.continue() : route.abort()));
  await singer.goto(address);
  await answerWell(singer);
  await singer.getByTestId('practice-item').first().click();
  await singer.getByRole('button', { name: 'Begin' }).click();
  const silent = singer.getByText('The piano’s sounds could not be loaded');
  await expect(silent).toBeVisible();
  there = true;
  await singer.getByRole('button', { name: 'Begin' }).click();
  // Two presses at once lead to one key.
  await singer.getByRole('button', { name: 'Next key' }).dblclick();
  await expect(silent).toHaveCount(0);
  await singer.getByRole('button', { name: 'Enough' }).click();
  await expect(singer.getByRole('timer')).toBeVisible();
  await context.close();
});

test('a device that gives no sound is said, and one that takes it away in the middle makes the piano wait', async ({
  page: coach,
  browser,
  baseURL,
}) => {
  const address = await practiceLink(coach, 'Maren Quill');
  const context = await browser.newContext({ baseURL, viewport: PHONE, storageState: NOBODY });
  const singer = await context.newPage();
  await singer.addInitScript(() => {
    const { resume } = AudioContext.prototype;
    const state = Object.getOwnPropertyDescriptor(BaseAudioContext.prototype, 'state')!;
    const held = { silent: true, sounding: null as AudioContext | null };
    Object.assign(window, { held });
    // This browser lets it run from the beginning; until that is announced, which a busy machine does late, nobody would ask it to.
    Object.defineProperty(BaseAudioContext.prototype, 'state', {
      ...state,
      get(this: BaseAudioContext) {
        return held.silent ? 'suspended' : (state.get!.call(this) as AudioContextState);
      },
    });
    AudioContext.prototype.resume = function () {
      held.sounding = this;
      return held.silent ? new Promise(() => {}) : resume.call(this);
    };
  });
  type Held = { held: { silent: boolean; sounding: AudioContext } };
  await singer.goto(address);
  await answerWell(singer);
  await singer.getByTestId('practice-item').first().click();
  await singer.getByRole('button', { name: 'Begin' }).click();
  await expect(singer.getByText('This device makes no sound')).toBeVisible();

  await singer.evaluate(() => void ((window as unknown as Held).held.silent = false));
  await singer.getByRole('button', { name: 'Begin' }).click();
  await expect(singer.getByText('This device makes no sound')).toHaveCount(0);
  await expect(singer.getByRole('button', { name: 'Wait' })).toBeVisible();
  const suspend = () => (window as unknown as Held).held.sounding.suspend();
  // Waking is over only when the piano is on the clock.
  await expect(async () => {
    await singer.evaluate(suspend);
    await expect(singer.getByText('This device took the sound away')).toBeVisible({ timeout: 1000 });
  }).toPass();
  await singer.getByRole('button', { name: 'Go on' }).click();
  await expect(singer.getByText('This device took the sound away')).toHaveCount(0);
  await singer.getByRole('button', { name: 'Enough' }).click();
  await expect(singer.getByRole('timer')).toBeVisible();
  await context.close();
});

test('opened once it opens without a network; what was done then goes when the network is back; an ended link shows nothing', async ({
  page: coach,
  browser,
  baseURL,
}) => {
  const address = await practiceLink(coach, 'Lio Fenn');
  const context = await browser.newContext({ baseURL, viewport: PHONE, storageState: NOBODY });
  const singer = await context.newPage();
  await singer.goto(address);
  await expect(singer.getByRole('button', { name: 'All well' })).toBeVisible();
  await singer.evaluate(() => navigator.serviceWorker.ready);
  await kept(singer, '/_next/static/');
  await kept(singer, new URL(address, baseURL).pathname);
  await context.setOffline(true);
  await singer.reload();
  await singer.getByRole('button', { name: 'All well' }).click();
  await expect(singer.getByRole('status')).toContainText('Kept here');
  await singer.getByText('Practised without the phone?').click();
  await singer.getByRole('button', { name: 'Write it down' }).click();
  await expect(singer.getByTestId('practice-item').first()).toContainText('1 of');
  await context.setOffline(false);
  await expect(singer.getByRole('status')).toHaveCount(0);
  await openSinger(coach, 'Lio Fenn', 'Progress');
  const told = coach.getByTestId('entry').filter({ hasText: 'told afterwards' });
  await expect(told).toHaveCount(1);
  // What nobody heard counts once the coach says so, and is there after a reload.
  const granted = coach.waitForResponse((r) => r.request().method() === 'PUT' && r.url().includes('/api/practice/'));
  await told.getByRole('button', { name: /went as meant$/ }).click();
  expect((await granted).status()).toBe(200);
  await coach.reload();
  await expect(told.getByRole('button', { name: /went as meant$/ })).toHaveAttribute('aria-pressed', 'true');

  // Only this singer's: another token is nobody's, and an ended one is nobody's any more.
  const send = (token: string) => context.request.post(`/api/p/${token}/entries`, { data: { entries: [] } });
  const token = address.split('/p/')[1];
  expect((await send(token)).status()).toBe(200);
  expect((await send(`${token.slice(0, -3)}abc`)).status()).toBe(404);
  await practiceLink(coach, 'Lio Fenn');
  expect((await send(token)).status()).toBe(404);
  expect((await singer.goto(`${address}?again`))!.status()).toBe(404);
  await context.close();
});

test('the practice page can be put on a phone’s home screen', async ({ page: coach, baseURL }) => {
  const address = await practiceLink(coach, 'Lio Fenn');
  // A browser with a profile: a private window can't install anything.
  const profile = mkdtempSync(join(tmpdir(), 'wendel-profile-'));
  const context = await chromium.launchPersistentContext(profile, {
    executablePath: CHROMIUM,
    args: LAUNCH_ARGS,
    baseURL,
    viewport: PHONE,
  });
  try {
    const singer = await context.newPage();
    await singer.goto(address);
    await singer.evaluate(() => navigator.serviceWorker.ready);
    const browser = await context.newCDPSession(singer);
    expect(await browser.send('Page.getInstallabilityErrors')).toEqual({ installabilityErrors: [] });
    const { data, errors } = await browser.send('Page.getAppManifest');
    expect(errors).toEqual([]);
    const manifest = JSON.parse(data!);
    // It opens this singer's page, without the browser round it.
    expect(new URL(manifest.start_url, baseURL).href).toBe(address);
    expect(manifest.display).toBe('standalone');
    for (const { src, sizes } of manifest.icons) {
      const size = await singer.evaluate(async (url) => {
        const { width, height } = await createImageBitmap(await (await fetch(url)).blob());
        return `${width}x${height}`;
      }, src);
      expect(size).toBe(sizes);
    }
  } finally {
    await context.close();
    rmSync(profile, { recursive: true, force: true });
  }
});
