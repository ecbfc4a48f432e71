import { expect, test } from '@playwright/test';
import { writeWav } from '../src/core/format/wav';
import { advance, anchorsFor, askOf, beginCourse, isOver } from '../src/core/lesson/course';
import { notesAsked } from '../src/core/lesson/pattern';
import { PROTOCOLS } from '../src/core/lesson/protocols';
import type { Ask, Course } from '../src/core/lesson/types';
import { hzToMidi, parseNote } from '../src/core/music/pitch';
import type { SimTask } from '../src/core/sim/score';
import { seededRandom } from '../src/core/signal/stats';
import { sing } from '../src/core/sim/sing';
import { typicalProfile } from '../src/core/sim/typical';
import { COLOURS } from '../src/core/take/types';
import { addSinger, soundFile, withMicrophone } from './browser';

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

/** A whole first listening as one recording, by the same rules the lesson goes by: what is sung, and rests for the coach. */
function firstListening() {
  const parts: Float32Array[] = [new Float32Array(RATE)];
  let low = Infinity;
  let high = -Infinity;
  let takes = 0;
  let course: Course = advance(beginCourse(PROTOCOLS[0], anchorsFor(null, 'tenor')), { kind: 'health', answers: WELL });
  for (let seed = 1; !isOver(course); seed++) {
    const ask = askOf(course)!;
    const notes = notesAsked(ask);
    const beyond = notes && (notes.highest > profile.highMidi || notes.lowest < profile.lowMidi);
    if (ask.step.keys?.until === 'stop' && beyond) {
      parts.push(new Float32Array(2.5 * RATE));
      course = advance(course, { kind: 'stop' });
      continue;
    }
    const { pcm, truth } = sing(profile, performs(ask)!, { seed, sampleRate: RATE, vowel: (ask.vowel || 'ah') as 'ah', snrDb: 50 });
    if (ask.step.task !== 'speech')
      for (const hz of truth.f0) {
        if (hz > 0) low = Math.min(low, hzToMidi(hz));
        if (hz > 0) high = Math.max(high, hzToMidi(hz));
      }
    parts.push(pcm.samples, new Float32Array((ask.step.task === 'speech' ? 3 : 2) * RATE));
    takes++;
    course = advance(course, { kind: 'taken' });
  }
  const samples = new Float32Array(parts.reduce((n, p) => n + p.length, 0));
  let at = 0;
  for (const part of parts) {
    samples.set(part, at);
    at += part.length;
  }
  // The room's own noise lies under the rests too.
  const room = seededRandom(3);
  for (let i = 0; i < samples.length; i++) samples[i] += 4e-4 * (room() - 0.5);
  return {
    wav: `${soundFile('lesson.wav', writeWav({ samples, sampleRate: RATE }, 16))}%noloop`,
    seconds: samples.length / RATE,
    low,
    high,
    takes,
  };
}

test('a whole first listening through the microphone, by keyboard alone, ends in a map that is true', async ({ baseURL }, info) => {
  test.setTimeout(420_000);
  const sung = firstListening();
  await withMicrophone(
    sung.wav,
    async (page) => {
      await addSinger(page, 'Hale Orrin', 'Tenor');
      // The piano is heard in other tests; here the recording sets the time.
      await page.evaluate(() => localStorage.setItem('wendel-reference', 'none'));
      await page.getByRole('button', { name: 'First listening' }).press('Enter');
      await page.getByRole('button', { name: 'Begin' }).press('Enter');
      const started = Date.now();
      const body = page.locator('body');
      const ask = page.getByTestId('ask');
      const key = page.getByTestId('ask-key');
      await expect(ask).toHaveText('Count aloud');
      let moved = { what: '', at: Date.now() };
      for (; (await ask.count()) > 0; await page.waitForTimeout(100)) {
        const [name, at] = [await ask.innerText({ timeout: 1000 }).catch(() => ''), await key.innerText({ timeout: 1000 }).catch(() => '')];
        if (moved.what !== name + at) moved = { what: name + at, at: Date.now() };
        if (Date.now() - moved.at > 40_000) throw new Error(`The lesson is stuck at ${name} ${at}.`);
        // As the coach hears that the next key is beyond the voice.
        const note = /^from ([A-G]#?\d)/.exec(at)?.[1];
        if (note && !at.includes('once more')) {
          const first = parseNote(note);
          const over = name.startsWith('Five notes up')
            ? first + 7 > profile.highMidi
            : name.startsWith('Five notes down') && first < profile.lowMidi;
          if (over) {
            await body.press('t');
            await page.waitForTimeout(200);
            continue;
          }
        }
        if (await page.getByRole('button', { name: /^(Start|Go on)$/ }).count()) await body.press('Space');
      }
      await expect(page.getByRole('heading', { name: 'That was the lesson' })).toBeVisible();
      info.annotations.push({ type: 'lesson', description: `${((Date.now() - started) / 1000).toFixed(0)} s for ${sung.takes} takes` });
      // Each take is there, once, and listened to.
      await expect(page.locator('[data-testid=made][data-state=found]')).toHaveCount(sung.takes, { timeout: 60_000 });

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
    },
    baseURL!,
  );
});
