import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { writeWav } from '../src/core/format/wav';
import { dayLater } from '../src/core/plan/days';
import { lineOn } from '../src/core/practice/made-log';
import { armOn } from '../src/core/practice/trial';
import type { Entry } from '../src/core/practice/types';
import { sing } from '../src/core/sim/sing';
import { typicalProfile } from '../src/core/sim/typical';
import { addSinger, answerWell, expect, found, NOBODY, openSinger, practiceLink, singsOnCue, test } from './browser';

/** A singer of this test alone: a trial is only offered before anything else is sung that day. */
const SINGER = 'Wick Harrow';
const flips = typicalProfile('tenor', 'flip');
/** Two slides of a tenor who flips, by this much. */
const slides = (leapSt: number, seed = 7) =>
  writeWav(
    sing(
      { ...flips, scatterSt: 0, crossings: [{ ...flips.crossings[0], leapSt }] },
      { kind: 'siren', sirens: 2 },
      { seed, sampleRate: 44100, snrDb: 45 },
    ).pcm,
    16,
  );

async function singSlides(page: Page, sings: (wav: Uint8Array) => Promise<void>, wav: Uint8Array) {
  await page.getByRole('button', { name: 'Begin', exact: true }).click();
  const done = page.getByRole('button', { name: 'Done' });
  await expect(done).toBeVisible();
  await sings(wav);
  await done.click();
  await expect(done).toHaveCount(0);
}

test('a trial of one: agreed in the plan, sung on the phone before and after what is drawn, read on its eighteenth day', async ({
  page: coach,
  browser,
  baseURL,
}) => {
  test.setTimeout(300_000);
  await addSinger(coach, SINGER, 'Tenor');
  for (const seed of [1, 2]) {
    const file = { name: `${seed}.wav`, mimeType: 'audio/wav', buffer: Buffer.from(slides(4, seed)) };
    await coach.getByLabel('Audio file').setInputFiles(file);
    await expect(found(coach)).toContainText('leaps across');
  }
  await openSinger(coach, SINGER, 'Plan');
  await coach.getByRole('button', { name: 'At hand' }).click();
  const agreed = coach.getByRole('checkbox', { name: /A trial of one/ });
  const saved = coach.waitForResponse((r) => r.url().endsWith('/plan') && r.request().postDataJSON()?.terms?.trial);
  await agreed.check();
  expect((await saved).ok()).toBe(true);
  await coach.keyboard.press('Escape');
  const address = await practiceLink(coach, SINGER);
  const token = address.split('/p/')[1];
  await openSinger(coach, SINGER, 'Progress');
  const card = coach.getByRole('region', { name: 'Trial of one' });
  await expect(card).toContainText('Day 0 of 18');

  const singer = await (await browser.newContext({ baseURL, viewport: { width: 390, height: 844 }, storageState: NOBODY })).newPage();
  const sings = await singsOnCue(singer);
  await singer.clock.install();
  await singer.goto(address);
  await answerWell(singer);
  await singer.getByRole('button', { name: /The trial, day 1 of 18/ }).click();
  // What the day's turn is isn't said before the first slides are sung.
  await expect(singer.getByRole('heading', { name: 'Two slides first' })).toBeVisible();
  await singSlides(singer, sings, slides(4));
  await expect(singer.getByRole('heading', { name: /^(Through the straw|Humming|Silence)$/ })).toBeVisible();
  expect((await new AxeBuilder({ page: singer }).analyze()).violations).toEqual([]);
  await singer.getByRole('button', { name: 'Begin the two minutes' }).click();
  await expect(singer.getByRole('timer')).toContainText(/1:5\d|2:00/);
  await singer.clock.fastForward('02:01');
  await expect(singer.getByRole('heading', { name: 'The same slides again' })).toBeVisible();
  const sent = singer.waitForResponse((r) => r.url().includes('/entries') && r.request().method() === 'POST');
  await singSlides(singer, sings, slides(2));
  const line = (await sent).request().postDataJSON().entries.at(-1) as Entry & { what: { trial: string } };
  expect((await sent).ok()).toBe(true);
  expect(line.what).toMatchObject({ kind: 'trial', minutes: 0 });
  // Once a day; and once more when ten minutes have gone.
  await expect(singer.getByTestId('practice-item').first()).toBeVisible();
  await expect(singer.getByRole('button', { name: /The trial/ })).toHaveCount(0);
  await singer.clock.fastForward('10:00');
  await singer.getByRole('button', { name: /The trial’s slides once more/ }).click();
  await singSlides(singer, sings, slides(4));
  await expect(singer.getByRole('button', { name: /The trial/ })).toHaveCount(0);

  await openSinger(coach, SINGER, 'Progress');
  await expect(card).toContainText('Day 1 of 18');
  const heard = coach
    .getByTestId('entry')
    .filter({ hasText: /trial: leap at the change [3-5]\.\d st before .*, [1-3]\.\d st right after/ });
  await expect(heard).toHaveCount(1);

  // Seventeen days more, of which the straw's take a semitone and a half off the leap: it is read.
  const log: Entry[] = [line];
  for (let i = 1; i < 18; i++) {
    const day = dayLater(line.day, i);
    const arm = armOn(log, line.what.trial, day)!;
    const leapSt = 3 + 0.1 * ((i * 7) % 3);
    const after = { leapSt: leapSt - (arm === 'straw' ? 1.5 : 0), heard: 100 };
    log.push(lineOn(day, { kind: 'trial', trial: line.what.trial, arm, minutes: 0, before: { leapSt, heard: 100 }, after }));
  }
  expect((await singer.request.post(`/api/p/${token}/entries`, { data: { entries: log.slice(1) } })).status()).toBe(200);
  await coach.reload();
  await expect(card).toContainText(/The straw: right after, the leap at the change is \d\.\d semitones smaller than after silence/);
  expect((await new AxeBuilder({ page: coach }).analyze()).violations).toEqual([]);
  await singer.context().close();
});
