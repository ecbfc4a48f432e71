import { randomUUID } from 'node:crypto';
import { Page } from '@playwright/test';
import { writeWav } from '../src/core/format/wav';
import { seededRandom } from '../src/core/signal/stats';
import { songToMidi } from '../src/core/format/song-midi';
import { songToMusicXml } from '../src/core/format/song-musicxml';
import { sing } from '../src/core/sim/sing';
import { songTask } from '../src/core/sim/song';
import { typicalProfile } from '../src/core/sim/typical';
import { typedSong } from '../src/core/song/typed';
import { DEMO_SONGS } from '../src/core/song/demo-songs';
import { drawnSong } from '../src/core/song/made-song';
import { partOf } from '../src/core/song/part';
import { phrasesOf } from '../src/core/song/phrases';
import { answerWell, expect, NOBODY, openSinger, practiceLink, singsOnCue, soundFile, test } from './browser';

const [HERON] = DEMO_SONGS;

/** A song of sixty bars, drawn. */
const SIXTY = { ...drawnSong(seededRandom(3), { bars: 60, low: 60, high: 77 }), title: 'Sixty bars' };

/** Six bars that go over a tenor's change and back; ours. */
const SONG = typedSong({
  title: 'The Weir',
  tempo: 112,
  meter: [4, 4],
  language: 'en',
  melody: 'C4 E4 G4:2 | A4:2 G4 E4 | F4 A4 C5:2 | D5:2 C5 A4, | G4 B4 D5:2 | C5:4',
  words: 'O- ver the weir goes the wa- ter and down goes my boat and I',
});

const chosenKey = async (page: Page) =>
  (await page.getByRole('heading', { level: 2, name: /^The Weir/ }).innerText()).replace('The Weir', '').trim();

test('a song by mouse: brought in, laid on the ladder, its key chosen, a hard bar into the week and onto the phone, sung, and told what came true', async ({
  page,
}) => {
  test.setTimeout(480_000);
  await page.goto('/songs');
  await page.getByLabel('File with a song').setInputFiles(soundFile('weir.musicxml', Buffer.from(songToMusicXml(SONG))));
  const editor = page.getByRole('form', { name: 'The song' });
  await expect(editor.getByLabel('Title')).toHaveValue('The Weir');
  await expect(editor.getByTestId('song-staff').locator('svg')).toHaveCount(1);
  await editor.getByRole('button', { name: 'Save the song' }).click();
  await expect(page.getByRole('heading', { level: 1, name: /The Weir/ })).toBeVisible();
  // Whom it fits, each in a key; one press opens it there.
  const fits = page.getByRole('region', { name: 'Whom it fits' });
  await expect(fits.getByRole('link', { name: /Maren Quill/ })).toBeVisible();
  await fits.getByRole('link', { name: /Lio Fenn/ }).click();
  const picture = page.getByRole('group', { name: 'The Weir beside the voice' });
  await expect(picture).toBeVisible();
  // All keys, the best first, each with the bars that decide it.
  const keys = page.getByRole('list', { name: 'Keys, best first' }).getByRole('button');
  await expect(keys).toHaveCount(15);
  await expect(keys.first()).toContainText(/bar \d/);
  const before = await chosenKey(page);
  // Another key than the one that is shown.
  await keys.nth(1).click();
  await expect.poll(() => chosenKey(page)).not.toBe(before);
  await page.getByRole('button', { name: /^Choose / }).click();
  await expect(page.getByRole('status').filter({ hasText: 'Lio Fenn’s key' })).toBeVisible();
  await page.getByRole('navigation', { name: 'Phrases' }).getByRole('button', { name: /▲/ }).first().click();
  const phrase = page.getByRole('region', { name: 'The phrase' });
  await expect(phrase).toContainText(/where this voice flips/);
  // Opens into what says so.
  await expect(phrase.getByRole('link', { name: 'take 1' })).toBeVisible();
  await phrase.locator('summary').click();
  await phrase.getByRole('radio', { name: /^Mix/ }).check();
  await phrase.getByRole('button', { name: 'On ng' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'is in the week' })).toContainText(/The Weir, bars? \d.*: On ng/);
  const song = page.url();
  await page.getByRole('link', { name: 'See the week' }).click();
  await expect(page.getByTestId('item').filter({ hasText: 'The Weir' })).toHaveCount(1);
  // It stands where the plan leaves a line of a song open.
  await expect(page.getByTestId('item').filter({ hasText: 'One line of your song' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Assign week' }).click();
  await page.getByRole('button', { name: 'Assign to Lio Fenn' }).click();
  await page.waitForURL(/\/assignments\//);
  await expect(page.getByTestId('sheet-item').filter({ hasText: 'The Weir' })).toHaveCount(1);
  await page.getByRole('button', { name: /phone$/ }).click();
  await page.getByRole('button', { name: 'Make a new link' }).click();
  await page.goto((await page.getByTestId('practice-link').getAttribute('href'))!);
  await answerWell(page);
  await expect(page.getByTestId('practice-item').filter({ hasText: 'The Weir' })).toBeVisible();

  // Sung: what was chosen is still chosen, and what was predicted is marked.
  await page.goto(song);
  await expect(page.getByRole('button', { name: /is chosen$/ })).toBeDisabled();
  await page.getByLabel('Listen to').selectOption({ label: 'Simulated singer' });
  await page.getByRole('button', { name: 'Record', exact: true }).click();
  const takes = page.getByRole('region', { name: 'Takes of this song' });
  await expect(takes.getByRole('listitem').first()).toContainText(/6 bars, \d broke/, { timeout: 90_000 });
  await expect(takes.getByTestId('record')).toContainText(/of \d+ bars called risky \d+ broke/);
  await openSinger(page, 'Lio Fenn', 'Songs');
  await expect(page.getByRole('link', { name: /The Weir/ })).toContainText(/of 6 bars broke/);

  // Taken away again, for every singer; its takes stay.
  await page.goto('/songs');
  await page.getByRole('link', { name: /The Weir/ }).click();
  await page.getByRole('button', { name: 'Delete' }).click();
  await page.getByRole('button', { name: 'Delete for good' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Songs' })).toBeVisible();
  await expect(page.getByRole('link', { name: /The Weir/ })).toHaveCount(0);
});

test('a song by keyboard: found, its key walked through and chosen, a phrase into the week, sung into the microphone', async ({ page }) => {
  test.setTimeout(480_000);
  const sings = await singsOnCue(page);
  await openSinger(page, 'Maren Quill', 'Songs');
  await page.getByRole('link', { name: /Ferryman/ }).focus();
  await page.keyboard.press('Enter');
  const title = page.getByRole('heading', { level: 2, name: /^Ferryman/ });
  await expect(title).toBeVisible();
  const was = await title.innerText();
  await page.keyboard.press('ArrowDown');
  await expect(title).not.toHaveText(was);
  await page.keyboard.press('c');
  await expect(page.getByRole('status').filter({ hasText: 'Maren Quill’s key' })).toBeVisible();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('w');
  await expect(page.getByRole('status').filter({ hasText: 'is in the week' })).toContainText('Ferryman, Wait, bar');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('chooses this key');
  await page.keyboard.press('Escape');
  // The first two phrases, by another voice, in whatever key it likes: the page finds it.
  await page.keyboard.press('r');
  await expect(page.getByRole('button', { name: 'Stop' }).last()).toBeVisible();
  const ferryman = typedSong({
    title: 'x',
    tempo: 66,
    meter: [4, 4],
    melody: 'E4:1.5 D4:0.5 C4 G3 | A3:2 C4:2, | D4:1.5 C4:0.5 D4 E4 | G4:4',
  });
  const { pcm } = sing(typicalProfile('mezzo', 'toggle'), songTask(ferryman), { seed: 2, sampleRate: 44100, snrDb: 45 });
  await sings(writeWav(pcm, 16));
  await page.keyboard.press('r');
  const takes = page.getByRole('region', { name: 'Takes of this song' });
  await expect(takes.getByRole('listitem').first()).toContainText(/[3-5] bars, \d broke/, { timeout: 60_000 });
});

test('files that are no song get words and leave nothing behind', async ({ page }) => {
  await page.goto('/songs');
  const songs = page.getByRole('main').getByRole('list').getByRole('link');
  const before = await songs.count();
  const chords = songToMusicXml(SONG)
    .replace('</pitch>', '</pitch>')
    .replace(/(<note>(?:(?!<\/note>)[\s\S])*<\/note>)/, (note) => note + note.replace('<note>', '<note><chord/>'));
  for (const [name, bytes, says] of [
    ['broken.musicxml', Buffer.from(songToMusicXml(SONG).slice(0, 900)), /not a MusicXML file/],
    ['empty.mid', Buffer.alloc(0), /is empty/],
    ['chords.musicxml', Buffer.from(chords), /more than one note at once/],
    ['huge.xml', Buffer.alloc(10e6, 32), /larger than 8 MB/],
    ['cut.mid', Buffer.from(songToMidi(SONG).slice(0, 50)), /MIDI/],
    [
      'entities.xml',
      Buffer.from('<!DOCTYPE a [<!ENTITY x SYSTEM "file:///etc/passwd">]><score-partwise>&x;</score-partwise>'),
      /MusicXML|no notes/,
    ],
  ] as const) {
    await page.getByLabel('File with a song').setInputFiles(soundFile(name, bytes));
    await expect(page.getByRole('main').getByRole('alert')).toContainText(says);
    await expect(page.getByRole('form', { name: 'The song' })).toHaveCount(0);
  }
  await page.reload();
  await expect(songs).toHaveCount(before);
  // A part can be chosen; what was typed wrong says where.
  await page.getByRole('button', { name: 'Write a song' }).click();
  await page.getByLabel(/^Notes: C4/).fill('C4 D4 H4');
  await expect(page.getByRole('main').getByRole('alert')).toContainText('“H4” can’t be read');
  // On the staff the notes are pressed and walked to; the text follows, and leads.
  const text = page.getByLabel(/^Notes: C4/);
  await text.fill('C4 D4 E4:2 | F4:4');
  await page.getByLabel(/^Words: a syllable/).fill('one two three four');
  const note = page.getByTestId('staff-note');
  await expect(note).toContainText('bar 1: C4, 1 crotchet on “one”');
  await page.locator('.sheet-of-song [data-note="2"]').click();
  await expect(note).toContainText('bar 1: E4, 2 crotchets on “three”');
  await page.getByRole('button', { name: 'A semitone higher' }).click();
  await expect(text).toHaveValue('C4 D4 F4:2 | F4:4');
  await page.getByRole('group', { name: /^The staff: arrows/ }).focus();
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('Shift+ArrowUp');
  await page.keyboard.press('-');
  await page.keyboard.press('Enter');
  await expect(text).toHaveValue('C4 D5:0.5 D5:0.5 F4:2 | F4:4');
  await expect(note).toContainText('bar 1: D5, 0.5 crotchets');
  await page.keyboard.press('Delete');
  await page.keyboard.press('Delete');
  await expect(text).toHaveValue('C4 D5:0.5 F4:4');
});

test('a song on the phone: its phrase heard and sung, what broke told there, and sent only where it is ticked', async ({
  page,
  browser,
  baseURL,
}) => {
  test.setTimeout(240_000);
  const address = await practiceLink(page, 'Lio Fenn');
  const context = await browser.newContext({ baseURL, viewport: { width: 390, height: 844 }, storageState: NOBODY });
  const phone = await context.newPage();
  const sings = await singsOnCue(phone);
  const sent: string[] = [];
  phone.on('request', (r) => r.method() !== 'GET' && sent.push(new URL(r.url()).pathname));
  await phone.goto(address);
  await answerWell(phone);
  await phone.getByText('Songs', { exact: true }).click();
  await phone.getByRole('button', { name: /^The Heron’s Song in / }).click();
  const song = phone.getByRole('region', { name: 'The Heron’s Song' });
  await expect(song.getByTestId('song-staff').locator('svg')).toHaveCount(1);
  const phrases = phrasesOf(HERON);
  await expect(song.getByRole('navigation', { name: 'Phrases' }).getByRole('button')).toHaveCount(phrases.length);
  await song.getByRole('button', { name: 'Hear it' }).click();
  // The piano waits, and goes on from the phrase.
  const piano = song.getByRole('group', { name: 'The piano' });
  await piano.getByRole('button', { name: 'Wait' }).click();
  await expect(song.getByRole('button', { name: 'Hear it' })).toBeVisible();
  await piano.getByRole('button', { name: 'Go on' }).click();
  await expect(song.getByRole('button', { name: 'Stop' })).toBeVisible();
  await piano.getByRole('button', { name: 'Once more' }).click();
  await song.getByRole('button', { name: 'Stop' }).click();
  await expect(piano).toHaveCount(0);
  const { pcm } = sing(typicalProfile('tenor', 'flip'), songTask(partOf(HERON, phrases[0]), -12), {
    seed: 4,
    sampleRate: 44100,
    snrDb: 45,
  });
  const singIt = async () => {
    await song.getByRole('button', { name: 'Sing it' }).click();
    await expect(song.getByRole('button', { name: 'Enough' })).toBeVisible();
    await sings(writeWav(pcm, 16));
    await song.getByRole('button', { name: 'Enough' }).click();
    await expect(song.getByTestId('tried')).toContainText(/Nothing broke|leapt|changed|stopped|reached/, { timeout: 60_000 });
    await expect(song.getByTestId('hear-yourself')).toBeVisible();
  };
  await singIt();
  // Nothing is ticked: nothing goes.
  expect(sent.filter((path) => path.includes('/takes'))).toEqual([]);
  await song.getByLabel('Send what I sing to my coach').check();
  await singIt();
  await expect.poll(() => sent.filter((path) => path.includes('/takes')).length, { timeout: 60_000 }).toBe(1);
  await song.getByRole('button', { name: 'That was it' }).click();
  await phone.getByRole('button', { name: 'Fine' }).click();
  await expect(phone.getByTestId('practice-item').first()).toBeVisible();
  await expect.poll(() => sent.filter((path) => path.endsWith('/entries')).length).toBeGreaterThan(0);
  await openSinger(page, 'Lio Fenn', 'Progress');
  await expect(page.getByTestId('entry').filter({ hasText: 'The Heron’s Song' }).first()).toBeVisible();
  // The coach hears the one that was sent, beside an earlier one.
  await openSinger(page, 'Lio Fenn', 'Songs');
  await page.getByRole('link', { name: /The Heron’s Song/ }).click();
  const takes = page.getByRole('region', { name: 'Takes of this song' }).getByRole('listitem').filter({ hasText: 'broke' });
  await expect(takes.nth(1)).toBeVisible({ timeout: 60_000 });
  await page.getByRole('navigation', { name: 'Phrases' }).getByRole('button').first().click();
  await expect(page.getByRole('list', { name: 'This phrase in takes' }).getByRole('listitem').nth(1)).toBeVisible();
  const beside = takes.getByRole('button', { name: /^Lay the take of/ }).first();
  await beside.click();
  await expect(beside).toHaveAttribute('aria-pressed', 'true');
  await context.close();
});

test('a song of sixty bars prints on one page, for the studio and in a singer’s key, A4 and Letter', async ({ page, baseURL }) => {
  const id = randomUUID();
  const put = await page.request.put(`/api/songs/${id}`, { data: { song: SIXTY, note: '' }, headers: { origin: baseURL! } });
  expect(put.status()).toBe(200);
  await openSinger(page, 'Maren Quill', 'Songs');
  const own = new URL(page.url()).pathname;
  for (const path of [`/songs/${id}`, `${own}/${id}`]) {
    await page.goto(path);
    await expect(page.getByTestId('song-staff').locator('svg').first()).toBeAttached();
    for (const format of ['A4', 'Letter']) {
      const pdf = (await page.pdf({ format })).toString('latin1');
      expect([path, format, pdf.match(/\/Type \/Page\b(?!s)/g)?.length]).toEqual([path, format, 1]);
    }
  }
  expect((await page.request.delete(`/api/songs/${id}`, { headers: { origin: baseURL! } })).status()).toBe(200);
});
