import { writeWav } from '../src/core/format/wav';
import { advance, anchorsFor, askOf, beginCourse, isOver } from '../src/core/lesson/course';
import { notesAsked } from '../src/core/lesson/pattern';
import { PROTOCOLS } from '../src/core/lesson/protocols';
import type { Ask, Course } from '../src/core/lesson/types';
import { hzToMidi, parseNote } from '../src/core/music/pitch';
import type { SimTask } from '../src/core/sim/score';
import { sing } from '../src/core/sim/sing';
import { typicalProfile } from '../src/core/sim/typical';
import { COLOURS } from '../src/core/take/types';
import { addSinger, expect, singsOnCue, test } from './browser';

const RATE = 44100;
const WELL = { hoarse: false, ill: false, pain: false, note: '' };
const profile = typicalProfile('tenor', 'flip');

/** What this singer does when asked; null: the voice has had enough. */
function performs({ step, tonicMidi, colour }: Ask): SimTask | null {
  const notes = tonicMidi === null ? null : { low: tonicMidi, high: tonicMidi + Math.max(...(step.degrees ?? [1])) };
  if (step.task === 'speech') return { kind: 'speech', words: 8 };
  if (step.task === 'sustain') return { kind: 'sustain', midi: tonicMidi!, seconds: 2, head: COLOURS.indexOf(colour!) / 3 };
  if (step.task === 'siren') return { kind: 'siren', ...(notes ? { bottomMidi: notes.low, topMidi: notes.low + 12, legS: 1.6 } : {}) };
  return { kind: 'pattern', degrees: step.degrees!, tonics: [tonicMidi!], noteS: 30 / step.tempo };
}

/** What is done at each ask of a whole first listening, by the same rules the lesson goes by: what is sung, or the coach's "enough". */
function firstListening() {
  const turns: ({ wav: Uint8Array } | 'enough')[] = [];
  let low = Infinity;
  let high = -Infinity;
  let course: Course = advance(beginCourse(PROTOCOLS[0], anchorsFor(null, 'tenor')), { kind: 'health', answers: WELL });
  for (let seed = 1; !isOver(course); seed++) {
    const ask = askOf(course)!;
    const notes = notesAsked(ask);
    const beyond = notes && (notes.highest > profile.highMidi || notes.lowest < profile.lowMidi);
    if (ask.step.keys?.until === 'stop' && beyond) {
      turns.push('enough');
      course = advance(course, { kind: 'stop' });
      continue;
    }
    const { pcm, truth } = sing(profile, performs(ask)!, { seed, sampleRate: RATE, vowel: (ask.vowel || 'ah') as 'ah', snrDb: 50 });
    if (ask.step.task !== 'speech')
      for (const hz of truth.f0) {
        if (hz > 0) low = Math.min(low, hzToMidi(hz));
        if (hz > 0) high = Math.max(high, hzToMidi(hz));
      }
    turns.push({ wav: writeWav(pcm, 16) });
    course = advance(course, { kind: 'taken' });
  }
  return { turns, low, high, takes: turns.filter((t) => t !== 'enough').length };
}

test('a whole first listening through the microphone, by keyboard alone, ends in a map that is true', async ({ page }, info) => {
  test.setTimeout(900_000);
  const sung = firstListening();
  const singNow = await singsOnCue(page);
  await addSinger(page, 'Hale Orrin', 'Tenor');
  // The piano is heard in other tests; here it would only take time.
  await page.evaluate(() => localStorage.setItem('wendel-reference', 'none'));
  await page.getByRole('button', { name: 'First listening' }).press('Enter');
  await page.getByRole('button', { name: 'Begin' }).press('Enter');
  const started = Date.now();
  const body = page.locator('body');
  const listening = page.getByRole('button', { name: 'Stop', exact: true });
  const waiting = page.getByRole('button', { name: /^(Start|Go on)$/ });
  const made = page.getByTestId('made');
  await expect(page.getByTestId('ask')).toHaveText('Count aloud');
  let takes = 0;
  for (const turn of sung.turns) {
    await expect(listening.or(waiting)).toBeVisible();
    if (turn === 'enough') {
      // The coach hears that the next key is beyond the voice.
      const key = await page.getByTestId('ask-key').innerText();
      await body.press('t');
      await expect(page.getByTestId('ask-key').filter({ hasText: key })).toHaveCount(0);
      continue;
    }
    if (await waiting.count()) await body.press('Space');
    await expect(listening).toBeVisible();
    await singNow(turn.wav);
    await expect(made).toHaveCount(++takes);
  }
  await expect(page.getByRole('heading', { name: 'That was the lesson' })).toBeVisible();
  info.annotations.push({ type: 'lesson', description: `${((Date.now() - started) / 1000).toFixed(0)} s for ${sung.takes} takes` });
  // Each take is there, once, and listened to.
  await expect(page.locator('[data-testid=made][data-state=found]')).toHaveCount(sung.takes, { timeout: 60_000 });
  const heard = page.waitForResponse((r) => r.url().endsWith('/audio'));
  await page
    .getByRole('button', { name: /^Play / })
    .first()
    .press('Enter');
  expect((await heard).ok()).toBe(true);
  // Back into the last step, and out again.
  await body.press('Control+z');
  await expect(page.getByTestId('ask')).toBeVisible();
  await body.press('Control+y');
  await expect(page.getByRole('heading', { name: 'That was the lesson' })).toBeVisible();

  await page.getByRole('link', { name: 'See the map' }).press('Enter');
  const touched = page.getByTestId('ranges').locator('dd').nth(1);
  const [low, high] = (await touched.locator('b').innerText()).split(' to ').map(parseNote);
  expect(Math.abs(low - sung.low)).toBeLessThanOrEqual(1);
  expect(Math.abs(high - sung.high)).toBeLessThanOrEqual(1);
  const passaggio = page.getByTestId('passaggio');
  await expect(passaggio).toHaveCount(1);
  const { upMidi, downMidi } = profile.crossings[0];
  expect(Math.abs(parseNote((await passaggio.innerText()).split('\n')[0]) - (upMidi + downMidi) / 2)).toBeLessThanOrEqual(1);
  await expect(page.getByTestId('ranges')).toContainText('Speaks near');
  await expect(page.getByTestId('ranges')).toContainText('read along this voice’s own');
});
