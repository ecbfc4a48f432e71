// npm run bench -- page [lesson minutes] [10 s takes] [60 s takes] [verdicts, 0 or 1]: what a coach waits for, measured in the browser through the fake microphone.
import { Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { writeWav } from '../../src/core/format/wav';
import { exerciseById } from '../../src/core/exercise/shelf';
import { renderKey } from '../../src/core/exercise/render';
import { anchorsFor, beginCourse } from '../../src/core/lesson/course';
import { exerciseStep } from '../../src/core/lesson/exercise-step';
import { STEPS } from '../../src/core/lesson/protocols';
import { PERFORMERS } from '../../src/cli/bench/performers';
import type { SingerProfile } from '../../src/core/sim/profile';
import type { SimTask } from '../../src/core/sim/score';
import { resample } from '../../src/core/signal/resample';
import { typicalProfile } from '../../src/core/sim/typical';
import { addSinger, signInOnce, singsOnCue, soundFile, withMicrophone } from '../browser';

const baseURL = `http://localhost:${process.env.WENDEL_PORT}`;
const [lessonMinutes = 10, shortTakes = 20, longTakes = 20, verdicts = 1] = process.argv.slice(2).map(Number);
const RATE = 44100;

/** Who sings here: people's own pulses where Debian has them, else whoever is least ours. */
const performer = PERFORMERS.findLast(({ there }) => there)!;
const SINGER = 1;
function sung(profile: SingerProfile, task: SimTask, seed: number): Float32Array {
  const { samples, sampleRate } = performer.performs(profile, task, seed, SINGER);
  return resample(samples, sampleRate, RATE);
}

const ticks = () => readFileSync('/proc/stat', 'utf8').split('\n')[0].split(/\s+/).slice(1, 9).map(Number);
let before = ticks();
/** A line of results, with the share of the processor that others on the same host took meanwhile: it explains outliers. */
const say = (line: string) => {
  const now = ticks();
  const passed = now.map((t, i) => t - before[i]);
  before = now;
  process.stdout.write(`${line} [stolen ${((100 * passed[7]) / passed.reduce((a, b) => a + b, 0)).toFixed(0)} %]\n`);
};
const sorted = (values: number[]) => [...values].sort((a, b) => a - b);
const spread = (values: number[]) => {
  const s = sorted(values);
  return `median ${s[s.length >> 1]?.toFixed(0)} ms of ${s.length} (${s[0]?.toFixed(0)} to ${s[s.length - 1]?.toFixed(0)})`;
};

/** From the key that ends a take to its findings painted, milliseconds, for `count` takes of `seconds`. */
async function endToFindings(page: Page, seconds: number, count: number): Promise<number[]> {
  const times: number[] = [];
  for (let i = 0; i < count; i++) {
    await page.locator('body').press('Space');
    await page.getByRole('button', { name: 'Stop' }).waitFor();
    await page.waitForTimeout(1000 * seconds);
    const wait = page.evaluate(
      () =>
        new Promise<number>((resolve) => {
          let pressed = 0;
          addEventListener('keydown', () => (pressed ||= performance.now()), { capture: true, once: true });
          const look = () => {
            if (pressed && document.querySelector('section[aria-label="What was found"]'))
              requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - pressed)));
            else requestAnimationFrame(look);
          };
          look();
        }),
    );
    await page.locator('body').press('Space');
    times.push(await wait);
    await page.waitForTimeout(1500);
  }
  return times;
}

/** Tones a second apart, each a fourth from the last: a picture that grows can be told from one that stands. */
function beeps(): string {
  const samples = new Float32Array(10 * RATE);
  for (let n = 1; n < 10; n++)
    for (let i = 0; i < 0.5 * RATE; i++) {
      const edge = Math.min(1, i / 40, (0.5 * RATE - i) / 400);
      for (let k = 1; k < 12; k++)
        samples[n * RATE + i] += (0.15 / k) * edge * Math.sin((2 * Math.PI * k * (n % 2 ? 220 : 294) * i) / RATE);
    }
  return soundFile('beeps.wav', writeWav({ samples, sampleRate: RATE }, 16));
}

/** From a tone's first sample in the audio thread to its first stroke on the picture, milliseconds. */
async function soundToPicture(page: Page, seconds: number): Promise<{ delays: number[]; frames: number }> {
  await page.locator('body').press('Space');
  await page.getByRole('button', { name: 'Stop' }).waitFor();
  const result = await page.evaluate(async (seconds) => {
    // A tap of our own on the microphone tells when a tone arrives, by the wall clock of the audio thread.
    const stream = (window as unknown as { microphone: MediaStream }).microphone;
    const context = new AudioContext({ sampleRate: stream.getAudioTracks()[0].getSettings().sampleRate });
    const tap = `registerProcessor('tap', class extends AudioWorkletProcessor {
      quiet = 1e9;
      process([[channel]]) {
        if (!channel) return true;
        for (let i = 0; i < channel.length; i++) {
          if (Math.abs(channel[i]) > 0.02) { if (this.quiet > 0.2 * sampleRate) this.port.postMessage(Date.now()); this.quiet = 0; }
          else this.quiet++;
        }
        return true;
      }
    })`;
    await context.audioWorklet.addModule(URL.createObjectURL(new Blob([tap], { type: 'text/javascript' })));
    const node = new AudioWorkletNode(context, 'tap', { numberOfOutputs: 0 });
    const arrived: number[] = [];
    node.port.onmessage = ({ data }: MessageEvent<number>) => arrived.push(data);
    context.createMediaStreamSource(stream).connect(node);

    // How far the picture is drawn: the right end of its strokes since it was last cleared.
    const picture = document.querySelector<HTMLCanvasElement>('[data-testid=live-trace]')!.getContext('2d')!;
    let drawnTo = 0;
    picture.clearRect = function (...box) {
      drawnTo = 0;
      CanvasRenderingContext2D.prototype.clearRect.apply(this, box);
    };
    picture.lineTo = function (x, y) {
      drawnTo = Math.max(drawnTo, x);
      CanvasRenderingContext2D.prototype.lineTo.call(this, x, y);
    };
    const strokes: number[] = [];
    let reached = 0;
    let still = 0;
    let frames = 0;
    const until = performance.now() + 1000 * seconds;
    await new Promise<void>((done) => {
      const look = () => {
        frames++;
        if (drawnTo > reached + 3) {
          if (performance.now() - still > 250) strokes.push(Date.now());
          still = performance.now();
          reached = drawnTo;
        }
        if (performance.now() < until) requestAnimationFrame(() => setTimeout(look));
        else done();
      };
      look();
    });
    await context.close();
    return { arrived, strokes, frames };
  }, seconds);
  await page.locator('body').press('Space');
  const delays = result.arrived
    .map((at) => result.strokes.find((s) => s >= at))
    .map((s, i) => (s === undefined ? Infinity : s - result.arrived[i]))
    .filter((d) => d < 600);
  return { delays, frames: result.frames / seconds };
}

/**
 * A task that held the page's own thread up: when, since the lesson began, how long, for how much of that it had a processor, and how much of
 * that the host took from both: it counts as work here.
 */
interface Held {
  atS: number;
  ms: number;
  cpuMs: number;
  stolenMs: number;
  /** What took most of it, as Chromium calls it; null: nothing did. */
  what: string | null;
}

const LONG_MS = 50;
/** So many of them are named, the longest first. */
const MOST_NAMED = 5;
function heldWords(long: readonly Held[]): string {
  const named = [...long]
    .sort((a, b) => b.ms - a.ms)
    .slice(0, MOST_NAMED)
    .map(
      ({ atS, ms, cpuMs, stolenMs, what }) =>
        `; ${ms.toFixed(0)} ms at ${(atS / 60).toFixed(1)} min, ${cpuMs.toFixed(0)} of them its own work${what ? ` (${what})` : ''}` +
        (stolenMs ? `, ${stolenMs.toFixed(0)} stolen` : ''),
    );
  const own = long.filter(({ cpuMs, stolenMs }) => cpuMs - stolenMs > LONG_MS).length;
  return `${long.length} tasks over ${LONG_MS} ms, ${own} of them by their own work${named.join('')}`;
}

/** What Chromium's tracing tells of a task (microseconds), and of a thread. */
interface Traced {
  name: string;
  pid: number;
  tid: number;
  ts: number;
  dur?: number;
  tdur?: number;
  args: { name?: string };
}

/** What happens inside of a task is kept from so much on, ms. */
const PART_MS = 10;
/** Most of a task is this share. */
const MOST_OF = 0.5;

/** The innermost of what took most of a task. */
function mostOf(task: Traced, parts: readonly Traced[]): string | null {
  const inside = parts.filter(
    (p) =>
      p.pid === task.pid && p.tid === task.tid && p.ts >= task.ts && p.ts + p.dur! <= task.ts + task.dur! && p.dur! >= MOST_OF * task.dur!,
  );
  return inside.sort((a, b) => a.dur! - b.dur!)[0]?.name ?? null;
}

/** How often it is asked what the host took, ms: `/proc/stat` counts in ticks of 10. */
const ASK_MS = 20;
const TICK_MS = 10;

/** From now on what the host takes of the processors is written down; called with two times (microseconds, as tracing's), how much between. */
function watchStolen(): { between: (fromUs: number, toUs: number) => number; end: () => void } {
  const seen: { us: number; ticks: number }[] = [];
  const timer = setInterval(() => seen.push({ us: Number(process.hrtime.bigint() / 1000n), ticks: ticks()[7] }), ASK_MS);
  const at = (time: number, after: boolean) =>
    (after ? seen.find(({ us }) => us >= time) : seen.findLast(({ us }) => us <= time))?.ticks ?? 0;
  return { between: (from, to) => TICK_MS * Math.max(0, at(to, true) - at(from, false)), end: () => clearInterval(timer) };
}

/** From now on every task of the page is written down; called, it gives the long ones. What other programs take of the processors is told apart. */
async function watchTasks(page: Page): Promise<() => Promise<Held[]>> {
  const browser = await page.context().browser()!.newBrowserCDPSession();
  const kept: Traced[] = [];
  const parts: Traced[] = [];
  let beganUs = Infinity;
  const stolen = watchStolen();
  browser.on('Tracing.dataCollected', ({ value }) => {
    for (const e of value as unknown as Traced[]) {
      if (e.ts > 0) beganUs = Math.min(beganUs, e.ts);
      if (e.name === 'thread_name' || (e.name.endsWith('RunTask') && (e.dur ?? 0) > 1000 * LONG_MS)) kept.push(e);
      else if (!e.name.endsWith('RunTask') && (e.dur ?? 0) > 1000 * PART_MS) parts.push(e);
    }
  });
  await browser.send('Tracing.start', {
    transferMode: 'ReportEvents',
    traceConfig: { includedCategories: ['toplevel', 'devtools.timeline', 'v8'] },
  });
  return async () => {
    const complete = new Promise((resolve) => browser.once('Tracing.tracingComplete', resolve));
    await browser.send('Tracing.end');
    await complete;
    stolen.end();
    const pages = kept.filter((e) => e.args.name === 'CrRendererMain');
    return kept
      .filter((e) => e.name !== 'thread_name' && pages.some(({ pid, tid }) => e.pid === pid && e.tid === tid))
      .map((task) => {
        const { ts, dur = 0, tdur = 0 } = task;
        const stolenMs = stolen.between(ts, ts + dur);
        return { atS: (ts - beganUs) / 1e6, ms: dur / 1000, cpuMs: tdur / 1000, stolenMs, what: mostOf(task, parts) };
      });
  };
}

/** A lesson of sirens that follow one another: how long the page's own thread was ever held up, and how often it painted. */
async function heldUp(page: Page, singerId: string, minutes: number): Promise<{ long: Held[]; frames: number; takes: number }> {
  const steps = Array.from({ length: 8 }, () => ({ ...STEPS.sirens, times: 20 }));
  const course = beginCourse({ id: 'sirens', name: 'Sirens', purpose: '', asksHealth: false, steps }, anchorsFor(null, 'tenor'));
  const id = crypto.randomUUID();
  const made = await page.request.post('/api/lessons', { data: { id, singerId, name: 'Sirens', course } });
  if (!made.ok()) throw new Error(`The lesson was not made: ${await made.text()}`);
  await page.goto(`/singers/${singerId}/lessons/${id}`);
  await page.waitForTimeout(3000);
  const longTasks = await watchTasks(page);
  const frames = await page.evaluate(
    (ms) =>
      new Promise<number>((resolve) => {
        // A new step waits for the coach, who is in the page: asked from outside, the question itself would hold the page up.
        const coach = setInterval(() => {
          const says = document.querySelector('[data-testid=main-key]')?.textContent?.trim() ?? '';
          if (/^(Start|Go on)$/.test(says)) dispatchEvent(new KeyboardEvent('keydown', { key: ' ' }));
        }, 1000);
        let count = 0;
        const next = () => (count++, requestAnimationFrame(next));
        requestAnimationFrame(next);
        setTimeout(() => (clearInterval(coach), resolve((1000 * count) / ms)), ms);
      }),
    60_000 * minutes,
  );
  const long = await longTasks();
  const takes = await page.locator('[data-testid=made]').count();
  return { long, frames, takes };
}

/** Exercises a verdict is waited for in, ten keys each, the lowest from here. */
const JUDGED = [
  { id: 'five-note-ah', from: 50 },
  { id: 'octave-arpeggio', from: 48 },
];
const KEYS_EACH = 10;

/** From the end of a key's last note to its verdict painted, milliseconds, for every key of two exercises sung into the microphone. */
async function lastNoteToVerdict(page: Page, singerId: string, sings: (wav: Uint8Array) => Promise<void>) {
  const profile = typicalProfile('tenor', 'blend');
  const offers = JUDGED.map(({ id, from }) => {
    const exercise = exerciseById(id);
    const keys = Array.from({ length: KEYS_EACH }, (_, i) => from + i);
    return { exercise, keys, sound: exercise.sounds[0], tempo: exercise.tempo[1] };
  });
  const course = beginCourse(
    { id: 'judged', name: 'Judged', purpose: '', asksHealth: false, steps: offers.map(exerciseStep) },
    anchorsFor(null, 'tenor'),
  );
  const id = crypto.randomUUID();
  const made = await page.request.post('/api/lessons', { data: { id, singerId, name: 'Judged', course } });
  if (!made.ok()) throw new Error(`The lesson was not made: ${await made.text()}`);
  await page.addInitScript(() => localStorage.setItem('wendel-reference', 'none'));
  await page.goto(`/singers/${singerId}/lessons/${id}`);
  const main = page.getByTestId('main-key');
  const times: number[] = [];
  const verdicts: string[] = [];
  for (const { exercise, keys, tempo } of offers) {
    await main.filter({ hasText: /Start|Go on|Once more/ }).waitFor();
    // Once all its keys are sung an exercise waits: on with the lesson.
    if (times.length > 0) await page.locator('body').press('ArrowRight');
    await page.locator('body').press('Space');
    for (const tonic of keys) {
      const samples = sung(profile, { kind: 'exercise', keys: [renderKey(exercise, tonic, tempo)] }, tonic);
      // To the end of its last note: what comes after is quiet, and the room's own.
      const last = samples.findLastIndex((x) => Math.abs(x) > 0.02);
      const wav = writeWav({ samples: samples.slice(0, last), sampleRate: RATE }, 16);
      await main.filter({ hasText: 'Stop' }).waitFor();
      const said = page.evaluate(
        () =>
          new Promise<{ at: number; words: string }>((resolve) => {
            const words = () => document.querySelector('[data-testid=verdict]')?.textContent ?? '';
            const before = words();
            const look = () => {
              if (words() && words() !== before) setTimeout(() => resolve({ at: Date.now(), words: words() }));
              else requestAnimationFrame(look);
            };
            look();
          }),
      );
      await sings(wav);
      const ended = Date.now();
      const { at, words } = await said;
      times.push(at - ended);
      verdicts.push(words);
    }
  }
  return { times, yes: verdicts.filter((words) => words.includes('It went as meant')).length };
}

/** Keep the page's own microphone where the tap finds it: another one would play the file from its start. */
const keepMicrophone = (page: Page) =>
  page.addInitScript(() => {
    const open = navigator.mediaDevices.getUserMedia.bind(navigator.mediaDevices);
    navigator.mediaDevices.getUserMedia = async (constraints) =>
      ((window as unknown as { microphone: MediaStream }).microphone = await open(constraints));
  });

async function slowed(page: Page, times: number) {
  const session = await page.context().newCDPSession(page);
  await session.send('Emulation.setCPUThrottlingRate', { rate: times });
}

/** A siren and a breath after it, again and again. */
function sirens(): string {
  const siren = sung(typicalProfile('tenor', 'flip'), { kind: 'siren', legS: 3.5 }, 5);
  const samples = new Float32Array(siren.length + 2 * RATE);
  samples.set(siren, RATE / 2);
  return soundFile('sirens.wav', writeWav({ samples, sampleRate: RATE }, 16));
}

await signInOnce(baseURL);
process.stdout.write(`Sung in the sound of ${performer.name}.\n`);
await withMicrophone(
  sirens(),
  async (page) => {
    await addSinger(page, `Bench ${Date.now()}`, 'Tenor');
    const singerId = /singers\/([^/]+)/.exec(page.url())![1];
    await page.waitForTimeout(6000);
    if (shortTakes) say(`End of a 10 s take to its findings: ${spread(await endToFindings(page, 10, shortTakes))}`);
    if (longTakes) say(`End of a 60 s take to its findings: ${spread(await endToFindings(page, 60, longTakes))}`);
    for (const times of lessonMinutes ? [1, 4] : []) {
      await slowed(page, times);
      const minutes = times === 1 ? lessonMinutes : lessonMinutes / 5;
      const { long, frames, takes } = await heldUp(page, singerId, minutes);
      say(
        `A lesson of ${minutes} min (${takes} takes)${times > 1 ? `, page slowed ${times} times` : ''}: ${frames.toFixed(0)} frames a second, ` +
          heldWords(long),
      );
    }
  },
  baseURL,
);
if (verdicts)
  await withMicrophone(
    sirens(),
    async (page) => {
      const sings = await singsOnCue(page);
      await addSinger(page, `Bench ${Date.now()}`, 'Tenor');
      const { times, yes } = await lastNoteToVerdict(page, /singers\/([^/]+)/.exec(page.url())![1], sings);
      say(`End of a key's last note to its verdict: ${spread(times)}, ${yes} of them yes`);
    },
    baseURL,
  );
for (const times of [1, 4])
  await withMicrophone(
    beeps(),
    async (page) => {
      await keepMicrophone(page);
      await addSinger(page, `Bench ${Date.now()}`, 'Tenor');
      await page.waitForTimeout(6000);
      await slowed(page, times);
      // The picture scrolls after 12 s: look at shorter takes.
      const all: number[] = [];
      let frames = 0;
      for (let i = 0; i < 3; i++) {
        const one = await soundToPicture(page, 10);
        all.push(...one.delays);
        frames = one.frames;
        await page.waitForTimeout(3000);
      }
      say(
        `Sound to picture${times > 1 ? `, page slowed ${times} times` : ''}: ${spread(all)}, looked at ${frames.toFixed(0)} times a second`,
      );
    },
    baseURL,
  );
