import { Browser } from '@playwright/test';
import { spawnSync } from 'node:child_process';
import { Client } from 'pg';
import { databaseUrls } from '../bin/lib/postgres.mjs';
import { BASE_URL, COACH, COPY, expect, NOBODY, signIn, signInOnce, test } from './browser';

test.use({ storageState: NOBODY });

const QUILL = { name: 'Quill Hart', email: 'quill@barge.example', password: 'otter barge whistle' };

/** A page of a browser that knows nobody. */
const stranger = async (browser: Browser, baseURL: string | undefined) =>
  (await browser.newContext({ baseURL, storageState: NOBODY })).newPage();

/** The studio has no coach yet. */
test.beforeAll(async () => {
  const db = new Client({ connectionString: databaseUrls(COPY.data).ownerUrl });
  await db.connect();
  await db.query('delete from coach where email = $1', [COACH.email]);
  await db.end();
});

test('the first coach makes an account and has the demo studio; the door sends back to where one wanted to go', async ({ page }) => {
  await page.goto('/exercises');
  await expect(page).toHaveURL(/sign-in\?to=%2Fexercises/);
  await page.getByRole('link', { name: 'Make an account' }).click();
  await page.getByLabel('Your name').fill(COACH.name);
  await page.getByLabel('E-mail address').fill(COACH.email);
  await page.getByLabel('Password').fill('qwertyuiop12');
  await expect(page.getByRole('radio', { name: /demo studio/ })).toBeChecked();
  await page.getByRole('button', { name: 'Make the account' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'would soon be guessed' })).toBeVisible();
  await page.getByLabel('Password').fill(COACH.password);
  await page.getByRole('button', { name: 'Make the account' }).click();
  await expect(page.getByRole('link', { name: 'Lio Fenn', exact: true })).toBeVisible();

  await page.getByRole('button', { name: COACH.name }).click();
  await page.getByRole('menuitem', { name: 'Sign out' }).click();
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await page.goto('/straws');
  await signIn(page, { ...COACH, password: 'not this one at all' });
  await expect(page.getByRole('alert').filter({ hasText: 'do not go together' })).toBeVisible();
  await signIn(page, COACH);
  await expect(page).toHaveURL(/\/straws$/);
});

test('an owner asks a coach in, who looks only; changes, sessions and a forgotten password', async ({ browser, baseURL }) => {
  test.setTimeout(480_000);
  const owner = await stranger(browser, baseURL);
  await owner.goto('/sign-in?to=/settings/coaches');
  await signIn(owner, COACH);
  await expect(owner.getByRole('heading', { name: 'Coaches' })).toBeVisible();
  await owner.getByLabel('E-mail address').fill(QUILL.email);
  await owner.getByLabel('What they will do').selectOption('reader');
  await owner.getByRole('button', { name: 'Make the offer' }).click();
  const wayIn = await owner.getByTestId('invite-link').innerText();

  const quill = await stranger(browser, baseURL);
  await quill.goto(wayIn);
  await quill.getByLabel('Your name').fill(QUILL.name);
  await quill.getByLabel('Password').fill(QUILL.password);
  await quill.getByRole('button', { name: 'Join the studio' }).click();
  await expect(quill.getByText('You may look; changes are for coaches.')).toBeVisible();
  // A way in is used up.
  const late = await stranger(browser, baseURL);
  expect((await late.goto(wayIn))!.status()).toBe(404);
  await quill.getByRole('link', { name: 'Lio Fenn', exact: true }).click();
  await expect(quill.getByTestId('ranges')).toBeVisible();
  expect((await quill.request.post('/api/singers', { data: { name: 'Mine', voiceType: 'bass' } })).status()).toBe(403);
  await quill.goto('/settings/coaches');
  await expect(quill.getByRole('heading', { name: 'This page is not for your account' })).toBeVisible();

  // What a role allows changes at once, without signing in anew.
  await owner.reload();
  await owner.getByLabel(`What ${QUILL.name} does`).selectOption('coach');
  await expect
    .poll(async () => (await quill.request.put('/api/singers/none', { data: { name: 'Nobody', voiceType: 'bass' } })).status())
    .toBe(404);
  // The last owner can't be lost.
  await owner.getByLabel(`What ${COACH.name} does`).selectOption('coach');
  await expect(owner.getByRole('alert').filter({ hasText: 'at least one owner' })).toBeVisible();

  // Signed in twice; one ends the other.
  await late.goto('/sign-in');
  await signIn(late, QUILL);
  await expect(late.getByRole('link', { name: 'Lio Fenn', exact: true })).toBeVisible();
  await quill.goto('/settings/account');
  await expect(quill.getByTestId('session')).toHaveCount(2);
  await quill.getByRole('button', { name: 'Sign out there' }).click();
  await expect(quill.getByTestId('session')).toHaveCount(1);
  await late.reload();
  await expect(late.getByRole('heading', { name: 'Sign in' })).toBeVisible();

  // A new password by the post, which owners see and others don't.
  await late.goto('/forgot');
  await late.getByLabel('E-mail address').fill(QUILL.email);
  await late.getByRole('button', { name: 'Send the message' }).click();
  await expect(late.getByRole('status')).toContainText('If there is an account');
  await quill.goto('/post');
  await expect(quill.getByText('A new password for Wendel')).toHaveCount(0);
  // It is written when the answer is on its way already.
  const letter = owner.getByTestId('message').filter({ hasText: 'A new password' }).first();
  await expect(async () => {
    await owner.goto('/post');
    await expect(letter).toBeVisible({ timeout: 2000 });
  }).toPass();
  const words = await letter.innerText();
  const address = /http:\S+new-password\S+/.exec(words)![0];
  await late.goto(address);
  await late.getByLabel('New password').fill('heron reed lantern');
  await late.getByRole('button', { name: 'Set the password' }).click();
  await expect(late.getByRole('status')).toContainText('signed out everywhere');
  // They are told, in case it was somebody else; and of their place, earlier.
  await expect(async () => {
    await owner.reload();
    for (const subject of ['Your password for Wendel was changed', 'Your place in the studio was changed'])
      await expect(owner.getByTestId('message').filter({ hasText: subject }).filter({ hasText: QUILL.email })).toHaveCount(1, {
        timeout: 2000,
      });
  }).toPass();
  await quill.goto('/');
  await expect(quill.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await signIn(quill, QUILL);
  await expect(quill.getByRole('alert').filter({ hasText: 'do not go together' })).toBeVisible();
  await signIn(quill, { ...QUILL, password: 'heron reed lantern' });
  await expect(quill.getByRole('link', { name: 'Lio Fenn', exact: true })).toBeVisible();
  // The key works once.
  const again = await late.request.post('/api/door/new-password', {
    data: { token: new URL(address).searchParams.get('token'), password: 'another lantern reed' },
  });
  expect(again.status()).toBe(400);

  // Nobody left to ask: whoever runs the machine gives a way in.
  const printed = spawnSync(process.execPath, ['bin/account.mjs', 'reset', QUILL.email], {
    encoding: 'utf8',
    env: { ...process.env, WENDEL_DATA: COPY.data },
  }).stderr;
  await late.goto(new URL(/\/new-password\S+/.exec(printed)![0], baseURL).href);
  await late.getByLabel('New password').fill(QUILL.password);
  await late.getByRole('button', { name: 'Set the password' }).click();
  await expect(late.getByRole('status')).toContainText('signed out everywhere');
  await quill.goto('/');
  await signIn(quill, QUILL);
  await expect(quill.getByRole('link', { name: 'Lio Fenn', exact: true })).toBeVisible();

  // All of it is in the log.
  await owner.goto('/settings/log');
  const log = owner.getByRole('table');
  await expect(
    log.getByRole('row').filter({ hasText: QUILL.name }).filter({ hasText: 'looked at the records' }).filter({ hasText: 'Lio Fenn' }),
  ).toHaveCount(1);
  await expect(log.getByRole('row').filter({ hasText: QUILL.name }).filter({ hasText: 'could not sign in' })).toHaveCount(1);
  // And out: the account is gone, with its sessions.
  await owner.goto('/settings/coaches');
  const line = owner.getByTestId('member').filter({ hasText: QUILL.name });
  await line.getByRole('button', { name: 'Leaves the studio…' }).click();
  await line.getByRole('button', { name: /^Delete/ }).click();
  await expect(line).toHaveCount(0);
  await quill.reload();
  await expect(quill.getByRole('heading', { name: 'Sign in' })).toBeVisible();
});

test('too many wrong passwords close the door for a while, for that account only', async ({ request }) => {
  const tryOnce = async (email: string) =>
    (await request.post('/api/door/sign-in', { data: { email, password: 'a wrong one indeed' } })).status();
  const email = `nobody${Date.now()}@barge.example`;
  const answers: number[] = [];
  for (let i = 0; i < 21; i++) answers.push(await tryOnce(email));
  expect(answers).toEqual([...Array(20).fill(401), 429]);
  expect(await tryOnce('somebody@barge.example')).toBe(401);
});

/** Other tests go on as the coach of the demo. */
test.afterAll(() => signInOnce(BASE_URL));
