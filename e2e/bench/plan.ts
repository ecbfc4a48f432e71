// npm run bench -- plan: how soon a plan is there, how soon playback starts and whether it keeps time, how long sound takes to make.
import { chromium, Page } from '@playwright/test';
import { followAlong, pianoNotes } from '../../src/core/exercise/follow-along';
import { keyLadder } from '../../src/core/music/scale';
import { exerciseById, SHELF } from '../../src/core/exercise/shelf';
import { renderKey } from '../../src/core/exercise/render';
import { SCHOOL_IDS } from '../../src/core/map/schools';
import type { VoiceMap } from '../../src/core/map/types';
import { planFor } from '../../src/core/plan/plan';
import { usualRequest } from '../../src/core/plan/request';
import type { PlanItem } from '../../src/core/plan/types';
import { FINDING_NAMES } from '../../src/core/map/types';
import { expectedChange, VOICE_TYPES } from '../../src/core/plan/voice-types';
import { CHROMIUM, LAUNCH_ARGS, SIGNED_IN, signInOnce } from '../browser';

const [presses = 20, sounds = 3] = process.argv.slice(2).map(Number);
const baseURL = `http://localhost:${process.env.WENDEL_PORT}`;
const say = (line: string) => process.stdout.write(`${line}\n`);
const spread = (values: number[]) => {
  const s = [...values].sort((a, b) => a - b);
  return `median ${s[s.length >> 1].toFixed(1)} ms of ${s.length} (${s[0].toFixed(1)} to ${s[s.length - 1].toFixed(1)})`;
};

const limit = (midi: number) => ({ midi, takeIds: [] });
const times: number[] = [];
for (const { id, low, high } of VOICE_TYPES)
  for (const name of FINDING_NAMES)
    for (const school of SCHOOL_IDS) {
      const midi = expectedChange(id);
      const map = {
        extreme: { low: limit(low), high: limit(high) },
        usable: null,
        passaggi: [],
        findings: [{ name, midi, confidence: 0.9, because: '', takeIds: [] }],
        weight: null,
      } as unknown as VoiceMap;
      const at = performance.now();
      planFor(usualRequest({ map, voiceType: id, school, shelf: SHELF }));
      times.push(performance.now() - at);
    }
say(`A plan: ${spread(times)}`);

const item = (exerciseId: string, keys: number[], minutes: number): PlanItem => ({
  exerciseId,
  part: 'work',
  keys,
  sound: 'oo',
  tempo: exerciseById(exerciseId).tempo[1],
  minutes,
  timesADay: 1,
  days: [0],
  reason: 'Because it is measured.',
  caution: '',
  rules: [],
  advance: '',
});

await signInOnce(baseURL);
const browser = await chromium.launch({ executablePath: CHROMIUM, args: LAUNCH_ARGS });
const page = await browser.newPage({ baseURL, viewport: { width: 1280, height: 800 }, storageState: SIGNED_IN });
await page.addInitScript(() => {
  const w = window as unknown as { started: { when: number; now: number; at: number }[] };
  w.started = [];
  const start = AudioBufferSourceNode.prototype.start;
  AudioBufferSourceNode.prototype.start = function (this: AudioBufferSourceNode, when = 0, ...rest: number[]) {
    w.started.push({ when, now: this.context.currentTime, at: performance.now() });
    return start.call(this, when, ...rest);
  };
});

async function openSheet(page: Page, items: PlanItem[]): Promise<void> {
  await page.goto('/');
  await page.getByRole('link', { name: 'Maren Quill', exact: true }).click();
  await page.waitForURL(/\/singers\//);
  const singerId = page.url().match(/singers\/([0-9a-f-]+)/)![1];
  const made = await page.request.post('/api/assignments', { data: { singerId, note: '', startsOn: '2027-01-04', items } });
  await page.goto(`/assignments/${(await made.json()).id}`);
  await page.waitForLoadState('networkidle');
}

// Thirty keys of a slow siren last over five minutes.
const keys = keyLadder(45, 74);
const scale = exerciseById('long-siren');
const long = { ...item(scale.id, keys, 10), tempo: scale.tempo[0] };
await openSheet(page, [long, item('five-note-warm-up', keyLadder(50, 60), 7), item('octave-arpeggio', keyLadder(50, 60), 3)]);

/** From a press on Play to the first sound put on the clock, milliseconds (the device's own delay not counted). */
async function pressToSound(): Promise<number> {
  return page.evaluate(
    () =>
      new Promise<number>((resolve) => {
        const w = window as unknown as { started: { when: number; now: number; at: number }[] };
        w.started.length = 0;
        const button = [...document.querySelectorAll('button')].find((b) => b.textContent?.includes('Play through'))!;
        const pressed = performance.now();
        button.click();
        const look = () => {
          const first = w.started[0];
          if (first) resolve(first.at + 1000 * Math.max(0, first.when - first.now) - pressed);
          else setTimeout(look, 1);
        };
        look();
      }),
  );
}
await page.getByRole('button', { name: 'Whole week' }).click();
await page.waitForTimeout(2000);
const starts: number[] = [];
for (let i = 0; i < presses; i++) {
  starts.push(await pressToSound());
  await page.getByRole('button', { name: 'Stop' }).click();
  await page.waitForTimeout(150);
}
say(`From the press to the first sound: ${spread(starts)}`);

await pressToSound();
const expected = pianoNotes(keys.map((k) => renderKey(scale, k, long.tempo))).map((n) => n.startS);
const began = performance.now();
// To its end by the audio clock: a machine without a sound card may run that a little slower than the wall's.
await page.getByRole('button', { name: 'Stop' }).waitFor({ state: 'detached', timeout: 15 * 60_000 });
const lasted = (performance.now() - began) / 1000;
const played = await page.evaluate(() => (window as unknown as { started: { when: number; now: number }[] }).started);
const whens = played.map((p) => p.when).sort((a, b) => a - b);
const due = [...expected].sort((a, b) => a - b);
const off = due.map((s, i) => Math.abs(whens[i] - whens[0] - s) * 1000);
const late = played.map((p) => Math.max(0, p.now - p.when) * 1000);
say(
  `${whens.length} of ${due.length} notes over ${(lasted / 60).toFixed(1)} min by the wall (${(Math.max(...expected) / 60).toFixed(1)} by the music): at most ${Math.max(...off).toFixed(2)} ms from their time, at most ${Math.max(...late).toFixed(1)} ms late on the clock`,
);

const follow = followAlong(
  [long, item('five-note-warm-up', keyLadder(50, 60), 7), item('octave-arpeggio', keyLadder(50, 60), 3)].map((it) => ({
    exercise: exerciseById(it.exerciseId),
    keys: it.keys,
    tempo: it.tempo,
    minutes: it.minutes,
  })),
);
const rendered: number[] = [];
for (let i = 0; i < sounds; i++) {
  await page.getByRole('button', { name: 'Take along' }).click();
  const file = page.waitForEvent('download');
  const at = performance.now();
  await page.getByRole('button', { name: /WAV/ }).click();
  await file;
  rendered.push(performance.now() - at);
  await page.keyboard.press('Escape');
}
say(`A follow-along of ${(follow.totalS / 60).toFixed(1)} min as a sound file: ${spread(rendered)}`);
await browser.close();
