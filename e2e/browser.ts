import { Browser, chromium, expect, Page, request, test as plain } from '@playwright/test';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { writeWav } from '../src/core/format/wav';
import { VoiceTypeId } from '../src/core/plan/voice-types';
import { CrossingStyle } from '../src/core/sim/profile';
import { sing } from '../src/core/sim/sing';
import { typicalProfile } from '../src/core/sim/typical';

/** The copies of the application that bin/test.mjs serves: one for each of Playwright's workers, so that none sees what another does. */
const copies = JSON.parse(process.env.WENDEL_COPIES ?? '[]') as { data: string; port: number }[];
/** This worker's copy; outside of a worker (the config, a bench) the first. */
export const COPY = copies[Number(process.env.TEST_PARALLEL_INDEX ?? 0)] ?? {
  data: process.env.WENDEL_DATA ?? tmpdir(),
  port: Number(process.env.WENDEL_PORT),
};
export const BASE_URL = `http://localhost:${COPY.port}`;

/** Whether a page of ours listens to hands; others needn't. Runs in the page. */
const isAlive = () => {
  const { alive, zone } = document.documentElement.dataset;
  return alive !== undefined || zone === undefined;
};

/**
 * A page that is loaded waits until it listens: a key that is pressed before is lost, and a slow machine takes seconds. Who waits for less
 * than the load (`waitUntil`) doesn't wait for this.
 */
function waitsUntilAlive(page: Page): void {
  const { goto, reload } = page;
  page.goto = async (url, how) => {
    const answer = await goto.call(page, url, how);
    if (!how?.waitUntil) await page.waitForFunction(isAlive);
    return answer;
  };
  page.reload = async (how) => {
    const answer = await reload.call(page, how);
    await page.waitForFunction(isAlive);
    return answer;
  };
}

/** The browser, whose pages wait until they are alive. */
function patient(browser: Browser): Browser {
  browser.on('context', (context) => context.on('page', waitsUntilAlive));
  return browser;
}

/** A test on this worker's copy, whose coach is signed in. */
export const test = plain.extend<object, { signedIn: void; patience: void }>({
  baseURL: BASE_URL,
  storageState: ({}, provide) => provide(SIGNED_IN),
  signedIn: [
    async ({}, provide) => {
      await signInOnce(BASE_URL);
      await provide();
    },
    { scope: 'worker', auto: true },
  ],
  patience: [
    async ({ browser }, provide) => {
      patient(browser);
      await provide();
    },
    { scope: 'worker', auto: true },
  ],
});
export { expect };

/**
 * What Chromium is to do without. With each window it opens two pages of its own for what drops down from the address bar, which nobody sees
 * here: two thirds of the work of opening a page. Given once it takes the place of what Playwright leaves out, so that stands here too.
 */
const WITHOUT = [
  'WebUIOmniboxPopup',
  'WebUIOmniboxAimPopup',
  'AvoidUnnecessaryBeforeUnloadCheckSync',
  'DestroyProfileOnBrowserClose',
  'HttpsUpgrades',
  'HttpsFirstBalancedModeAutoEnable',
  'LensOverlay',
  'MediaRouter',
  'PaintHolding',
  'ThirdPartyStoragePartitioning',
  'AvoidCorsURLLoaderRestartOnRedirect',
  'TcpPortRandomizationWin',
  'OptimizationHints',
  'NetworkTimeServiceQuerying',
  'AimEnabled',
  'PreconnectToSearch',
];

/** Debian's Chromium. */
export const CHROMIUM = '/usr/bin/chromium';

export const LAUNCH_ARGS = [
  `--disable-features=${WITHOUT.join(',')}`,
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--autoplay-policy=no-user-gesture-required',
];

/** The coach of the demo studio, in tests. */
export const COACH = { name: 'Marit Oake', email: 'marit@barge.example', password: 'lantern paddle rope' };

/** Where the browser's state is kept once the coach is signed in: see `signInOnce`. */
export const SIGNED_IN = join(COPY.data, 'signed-in.json');

/** The state of a browser that knows nobody. */
export const NOBODY = { cookies: [], origins: [] };

/** Sign the coach in, with a new account that takes the demo studio if there is none yet, and keep the browser's state. Its cookie. */
export async function signInOnce(baseURL: string): Promise<{ cookie: string }> {
  const context = await request.newContext({ baseURL, storageState: NOBODY });
  const { email, password } = COACH;
  const known = await context.post('/api/door/sign-in', { data: { email, password } });
  if (!known.ok())
    expect(await (await context.post('/api/door/sign-up', { data: { ...COACH, studio: null } })).json()).toEqual({ ok: true });
  const { cookies } = await context.storageState({ path: SIGNED_IN });
  await context.dispose();
  return { cookie: cookies.map((c) => `${c.name}=${c.value}`).join('; ') };
}

/** Sign in on the page of that name. */
export async function signIn(page: Page, { email, password }: { email: string; password: string }): Promise<void> {
  await page.getByLabel('E-mail address').fill(email);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Sign in' }).click();
}

const folder = mkdtempSync(join(tmpdir(), 'wendel-sounds-'));

export function soundFile(name: string, bytes: Uint8Array): string {
  const path = join(folder, name);
  writeFileSync(path, bytes);
  return path;
}

/** A siren as a WAV for the microphone: quiet first (a device loses its first moments), then one siren of `legS` each way. */
export function sirenFile(name: string, type: VoiceTypeId, style: CrossingStyle, seed: number, legS = 3.2) {
  const profile = typicalProfile(type, style);
  const { pcm, truth } = sing(profile, { kind: 'siren', legS }, { seed, sampleRate: 44100, snrDb: 50 });
  const samples = new Float32Array(pcm.samples.length + 44100);
  samples.set(pcm.samples, 22050);
  return { path: soundFile(name, writeWav({ samples, sampleRate: 44100 }, 16)), profile, truth, seconds: samples.length / 44100 };
}

/** Open a page in a browser of its own whose microphone hears a WAV file (44.1 kHz, 16 bit), again and again. */
export async function withMicrophone(wav: string, work: (page: Page) => Promise<void>, baseURL: string): Promise<void> {
  const args = [
    ...LAUNCH_ARGS,
    '--use-fake-ui-for-media-stream',
    '--use-fake-device-for-media-stream',
    `--use-file-for-fake-audio-capture=${wav}`,
  ];
  const browser = patient(await chromium.launch({ executablePath: CHROMIUM, args }));
  try {
    const context = await browser.newContext({ baseURL, viewport: { width: 1280, height: 800 }, storageState: SIGNED_IN });
    await work(await context.newPage());
  } finally {
    await browser.close();
  }
}

/**
 * Give a page, before it is opened, a microphone that sings a WAV file when told to: for long work, where a file that plays by
 * itself would run away from a slow machine. The room's own noise is always there. Resolves when the file has been sung.
 */
export async function singsOnCue(page: Page): Promise<(wav: Uint8Array) => Promise<void>> {
  await page.addInitScript(() => {
    const context = new AudioContext({ sampleRate: 44100 });
    const room = context.createBuffer(1, 44100, 44100);
    room.getChannelData(0).forEach((_, i, samples) => (samples[i] = 4e-4 * (Math.random() - 0.5)));
    const open = new Set<AudioNode>();
    const play = (buffer: AudioBuffer, to: Iterable<AudioNode>, loop = false) => {
      const source = new AudioBufferSourceNode(context, { buffer, loop });
      for (const node of to) source.connect(node);
      source.start();
      return new Promise((done) => (source.onended = done));
    };
    navigator.mediaDevices.getUserMedia = async () => {
      await context.resume();
      const microphone = context.createMediaStreamDestination();
      open.add(microphone);
      void play(room, [microphone], true);
      return microphone.stream;
    };
    (window as unknown as { sing: unknown }).sing = async (base64: string) => {
      const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
      await play(await context.decodeAudioData(bytes.buffer), open);
    };
  });
  return async (wav) => {
    await page.evaluate(
      (sound) => (window as unknown as { sing(s: string): Promise<void> }).sing(sound),
      Buffer.from(wav).toString('base64'),
    );
  };
}

/** Add a singer through the page and stand on their listening page. */
export async function addSinger(page: Page, name: string, voice: string): Promise<void> {
  await page.goto('/');
  await page.getByRole('button', { name: 'Add a singer' }).click();
  await page.getByLabel('Name').fill(name);
  await page.getByLabel('Voice, as far as you know').selectOption({ label: voice });
  await page.getByRole('button', { name: 'Add and listen' }).click();
  await expect(page.getByRole('heading', { level: 1, name })).toBeVisible();
  await expect(page.getByRole('link', { name: 'Listen', exact: true })).toHaveAttribute('aria-current', 'page');
}

/** Go to a view of a singer of the studio. */
export async function openSinger(page: Page, name: string, view: 'Listen' | 'Map' | 'Plan' | 'Progress' | 'Songs'): Promise<void> {
  await page.goto('/');
  await page.getByRole('table').getByRole('link', { name, exact: true }).click();
  const tab = page.getByRole('navigation', { name: `${name}: views` }).getByRole('link', { name: view, exact: true });
  await tab.click();
  await expect(tab).toHaveAttribute('aria-current', 'page');
}

const VIEWS = ['Listen', 'Map', 'Plan', 'Progress', 'Songs'] as const;
const ROOMS = ['/exercises', '/songs', '/lessons', '/straws', '/together', '/ears', '/post'];
const SETTINGS = ['/settings', '/settings/coaches', '/settings/log', '/settings/account'];

/** Addresses of all that a coach sees by pressing what stands at the top; of a singer's views by name, spoken English. */
export async function coachPages(page: Page, name: string) {
  const views: Record<string, string> = {};
  for (const view of VIEWS) {
    await openSinger(page, name, view);
    views[view] = new URL(page.url()).pathname;
  }
  return { views, all: ['/', ...Object.values(views), ...ROOMS, ...SETTINGS] };
}

/** Assign the suggested week and make a link to the singer's own page: its address. */
export async function practiceLink(page: Page, name: string): Promise<string> {
  await openSinger(page, name, 'Plan');
  await page.getByRole('button', { name: 'Assign week' }).click();
  await page.getByRole('button', { name: `Assign to ${name}` }).click();
  await page.waitForURL(/\/assignments\//);
  await page.getByRole('button', { name: /phone$/ }).click();
  await page.getByRole('button', { name: 'Make a new link' }).click();
  return (await page.getByTestId('practice-link').getAttribute('href'))!;
}

/** On a singer's page: the voice is well today, unless another test has said so already. */
export async function answerWell(page: Page): Promise<void> {
  const well = page.getByRole('button', { name: 'All well' });
  await expect(well.or(page.getByTestId('practice-item').first())).toBeVisible();
  if (await well.isVisible()) await well.click();
}

/** Until a singer's page has kept an address for a time without a network. */
export const kept = (page: Page, part: string) =>
  expect
    .poll(() =>
      page.evaluate(async (wanted) => (await (await caches.open('wendel-practice-1')).keys()).some((k) => k.url.includes(wanted)), part),
    )
    .toBe(true);

export const found = (page: Page) => page.getByRole('region', { name: 'What was found' });
