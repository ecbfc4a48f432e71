import { answerWell, expect, kept, openSinger, practiceLink, sirenFile, test, withMicrophone } from './browser';

test('the coach’s voice is heard on the phone, also without a network; the singer hears their own last key, asks, and is answered', async ({
  baseURL,
}) => {
  test.setTimeout(480_000);
  await withMicrophone(
    sirenFile('models.wav', 'baritone', 'blend', 9, 2.4).path,
    async (page) => {
      // The first of the week is shown beside it: the coach sings how it should sound.
      await openSinger(page, 'Bram Toller', 'Plan');
      const like = page.getByTestId('model-like-this');
      await like.getByRole('button', { name: 'Record “like this”' }).click();
      await expect(like.getByText(/[2-9] of 10 s/)).toBeVisible();
      await like.getByRole('button', { name: 'That is it' }).click();
      await like.getByRole('button', { name: 'Play “like this”' }).click();
      await expect(like.getByRole('button', { name: 'Stop' })).toBeVisible();
      await expect(like.getByRole('button', { name: 'Stop' })).toHaveCount(0);

      // A phrase of a song, in this singer's key.
      await openSinger(page, 'Bram Toller', 'Songs');
      await page.getByRole('link', { name: /The Heron’s Song/ }).click();
      await page.getByRole('button', { name: /^Choose / }).click();
      await like.getByRole('button', { name: 'Record “like this”' }).click();
      await expect(like.getByText(/[2-9] of 10 s/)).toBeVisible();
      await like.getByRole('button', { name: 'That is it' }).click();
      await expect(like.getByRole('button', { name: 'Play “like this”' })).toBeVisible();
      // In another key it would be no model.
      await page.keyboard.press('ArrowUp');
      await expect(like.getByRole('button', { name: 'Play “like this”' })).toHaveCount(0);
      await page.keyboard.press('ArrowDown');
      await expect(like.getByRole('button', { name: 'Play “like this”' })).toBeVisible();
      const bars = (await page.getByRole('navigation', { name: 'Phrases' }).locator('[aria-current=true]').innerText()).match(
        /\d+–\d+/,
      )![0];

      const address = await practiceLink(page, 'Bram Toller');
      await page.goto(address);
      await answerWell(page);
      await page.evaluate(() => navigator.serviceWorker.ready);
      await page.reload();
      // The answer is kept; the sound is kept with the page.
      const item = page.getByTestId('practice-item').first();
      await expect(item).toBeVisible();
      await kept(page, '/models/');
      await page.context().setOffline(true);
      await page.reload();
      await item.click();
      const heard = page.getByRole('button', { name: 'Like this', exact: true });
      await heard.click();
      await expect(heard).toHaveAttribute('aria-pressed', 'true');
      await expect(heard).toHaveAttribute('aria-pressed', 'false');
      await expect(page.getByText(/Your coach’s voice/)).toBeVisible();
      await expect(page.getByText(/could not be played/)).toHaveCount(0);

      await page.getByRole('button', { name: 'Back to today' }).click();
      await page.getByText('Songs', { exact: true }).click();
      await page.getByRole('button', { name: /^The Heron’s Song in / }).click();
      await page.getByRole('navigation', { name: 'Phrases' }).getByRole('button').filter({ hasText: bars }).click();
      await heard.click();
      await expect(heard).toHaveAttribute('aria-pressed', 'true');
      await expect(heard).toHaveAttribute('aria-pressed', 'false');
      await expect(page.getByText(/Your coach’s voice/)).toBeVisible();
      await page.getByRole('button', { name: 'Back to today' }).click();
      await item.click();

      await page.getByRole('button', { name: 'Let the phone listen' }).click();
      await page.getByRole('button', { name: 'Begin' }).click();
      await expect(page.getByRole('button', { name: 'Enough' })).toBeVisible();
      await page.waitForTimeout(4000);
      await page.getByRole('button', { name: 'Enough' }).click();
      const own = page.getByTestId('hear-yourself');
      await own.getByRole('button', { name: 'Hear your last key' }).click();
      await expect(own.getByText(/could not be played/)).toHaveCount(0);
      await page.getByRole('button', { name: 'Crown' }).click();
      await page.getByLabel(/A word to your coach/).fill('Is the last key too low?');
      // The same in their own voice, said anew when it has been heard.
      const say = page.getByTestId('say-it');
      for (const press of [/^Or say it/, 'Anew']) {
        await say.getByRole('button', { name: press }).click();
        await expect(page.getByRole('button', { name: 'Tell it' })).toBeDisabled();
        await expect(say.getByText(/[2-9] of 10 s/)).toBeVisible();
        await say.getByRole('button', { name: 'That is it' }).click();
        await say.getByRole('button', { name: 'Hear it back' }).click();
      }
      await page.getByRole('button', { name: 'Tell it' }).click();
      await expect(page.getByRole('status')).toContainText('Kept here');
      await page.context().setOffline(false);
      await expect(page.getByRole('status')).toHaveCount(0);

      await page.goto('/');
      await expect(page.getByTestId('needing')).toContainText(/Bram Toller [^,]*writes “Is the last key too low\?”/);
      await openSinger(page, 'Bram Toller', 'Progress');
      const entry = page.getByTestId('entry').filter({ hasText: 'Is the last key too low?' });
      await expect(entry).toContainText('buzzed at the crown');
      await entry.getByRole('button', { name: /^Spoken, [2-9] s$/ }).click();
      await expect(entry.getByRole('button', { name: 'Stop' })).toBeVisible();
      await expect(entry.getByRole('button', { name: 'Stop' })).toHaveCount(0);
      await expect(page.getByText(/could not be played/)).toHaveCount(0);
      // Heard and done with: what was said can be deleted, what was written stays.
      await entry.getByRole('button', { name: 'Delete what was spoken' }).click();
      await entry.getByRole('button', { name: 'Delete for good' }).click();
      await expect(entry).toContainText('its sound isn’t here');
      await entry.getByLabel(/Your answer/).fill('A tone higher next week.');
      await page.keyboard.press('Tab');
      await expect(entry.getByRole('status')).toHaveText('Kept.');
      await page.goto(address);
      await expect(page.getByTestId('answer')).toContainText('A tone higher next week.');
      await page.goto('/');
      await expect(page.getByText('Is the last key too low?')).toHaveCount(0);
    },
    baseURL!,
  );
});

test('a microphone that gives nothing is told, and nothing is kept of it', async ({ baseURL }) => {
  await withMicrophone(
    sirenFile('mute.wav', 'baritone', 'blend', 9, 2.4).path,
    async (page) => {
      // Nothing that is sent to the audio thread arrives: it never learns where sound is wanted.
      await page.addInitScript(() => Object.defineProperty(AudioWorkletNode.prototype, 'port', { get: () => new MessageChannel().port1 }));
      await openSinger(page, 'Bram Toller', 'Plan');
      const unlike = page.getByTestId('model-not-like-this');
      await unlike.getByRole('button', { name: 'Record “not like this”' }).click();
      await unlike.getByRole('button', { name: 'That is it' }).click();
      await expect(page.getByText(/No sound came from the microphone/)).toBeVisible();
      await expect(unlike.getByRole('button', { name: 'Record “not like this”' })).toBeEnabled();
      await expect(unlike.getByRole('button', { name: 'Play “not like this”' })).toHaveCount(0);
    },
    baseURL!,
  );
});
