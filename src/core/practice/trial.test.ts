import { gaussian, mean, seededRandom } from '../signal/stats';
import { sing } from '../sim/sing';
import { typicalProfile } from '../sim/typical';
import { analyseTake } from '../take/analyse';
import { dayLater } from '../plan/days';
import { lineOn } from './made-log';
import { armOn, brokeIn, laterDue, LOOKS, shownTrial, trialOf } from './trial';
import { ARMS, type Arm, type Entry } from './types';

const ID = '6f1c8f0e-7a43-4b0a-9a55-0d4f35c1b001';
const FROM = '2026-09-01';

/** Days of a trial as the phone would have them, one after another: what each arm does to the leap, and what days scatter by. */
function sung(days: number, does: Record<Arm, number>, scatterSt: number, seed: number, later?: Record<Arm, number>): Entry[] {
  const normal = gaussian(seededRandom(seed));
  const log: Entry[] = [];
  for (let i = 0; i < days; i++) {
    const day = dayLater(FROM, i);
    const arm = armOn(log, ID, day);
    if (arm === null) break;
    // The voice opens by itself within a session, and comes nearer to itself over the weeks.
    const before = Math.max(0, 4 - 0.02 * i + 0.5 * normal());
    const after = (effect: number) => ({ leapSt: Math.max(0, before - 0.3 + effect + scatterSt * normal()), heard: 100 });
    const line = { kind: 'trial' as const, trial: ID, arm, before: { leapSt: before, heard: 100 } };
    log.push(lineOn(day, { ...line, minutes: 0, after: after(does[arm]) }));
    if (later) log.push({ ...lineOn(day, { ...line, minutes: 12, after: after(later[arm]) }), at: `${day}T09:12:00.000Z` });
  }
  return log;
}
const NONE = { straw: 0, hum: 0, nothing: 0 };
const told = (log: Entry[]) => Object.fromEntries(trialOf(log, ID).effects.map((e) => [e.arm, e.told]));

test('every round of three days has each once, in an order that differs from round to round and that nobody chooses', () => {
  const log = sung(36, NONE, 2, 1);
  const arms = log.map((e) => (e.what as { arm: Arm }).arm);
  const rounds = Array.from({ length: 12 }, (_, r) => arms.slice(3 * r, 3 * r + 3));
  for (const round of rounds) expect([...round].sort()).toEqual([...ARMS].sort());
  expect(new Set(rounds.map((r) => r.join())).size).toBeGreaterThan(3);
  // Once a day; and the same wherever it is asked.
  expect(armOn(log.slice(0, 4), ID, log[3].day)).toBeNull();
  expect(armOn(log.slice(0, 4), ID, log[4].day)).toBe(arms[4]);
});

test('nothing is read before its day, and no days are waited for once it has told', () => {
  const strong = { straw: -3, hum: 0, nothing: 0 };
  expect(trialOf(sung(17, strong, 0.2, 3), ID)).toMatchObject({ days: 17, of: 18, effects: [], over: false });
  const read = trialOf(sung(60, strong, 0.1, 3), ID);
  expect(read).toMatchObject({ days: 18, of: 18, over: true });
  expect(read.effects.map((e) => e.told)).toEqual(['smaller', 'no difference']);
  expect(read.effects[0].lowBy).toBeLessThan(-3);
  expect(read.effects[0].highBy).toBeGreaterThan(-3);
  const unsure = trialOf(sung(20, NONE, 1.5, 4), ID);
  expect(unsure).toMatchObject({ days: 20, of: 36, over: false });
});

test('an arm that does nothing is told to do something in at most one trial of twenty, both readings and both arms together', () => {
  for (const scatterSt of [0.2, 0.4, 1]) {
    let wrong = 0;
    const trials = 600;
    for (let seed = 0; seed < trials; seed++) {
      // Read at the first reading, and again at the second if it goes on.
      const at = [LOOKS[0], LOOKS[1]].map((rounds) => Object.values(told(sung(3 * rounds, NONE, scatterSt, seed))));
      if (at.flat().some((t) => t === 'smaller' || t === 'larger')) wrong++;
    }
    // Five per cent, and three standard deviations of the count.
    expect(wrong / trials).toBeLessThan(0.05 + 3 * Math.sqrt((0.05 * 0.95) / trials));
  }
});

test('a straw that takes a semitone off the leap is told in eight trials of ten; nothing, mostly as no difference', () => {
  let found = 0;
  let none = 0;
  const trials = 200;
  for (let seed = 0; seed < trials; seed++) {
    const of = told(sung(36, { straw: -1, hum: 0, nothing: 0 }, 0.4, 1000 + seed));
    if (of.straw === 'smaller') found++;
    if (of.hum === 'no difference') none++;
  }
  expect(found / trials).toBeGreaterThan(0.8);
  expect(none / trials).toBeGreaterThan(0.5);
});

test('a fall over the weeks, or a voice that opens by itself, is nobody’s doing', () => {
  // Means of effects over many trials: drift and opening cancel against nothing.
  const bys = Array.from({ length: 100 }, (_, seed) => trialOf(sung(36, NONE, 0.4, 5000 + seed), ID).effects[0].by);
  expect(Math.abs(mean(bys))).toBeLessThan(0.06);
});

test('what lasts is told apart, and only where it was sung as often', () => {
  const straw = { straw: -2, hum: 0, nothing: 0 };
  const both = trialOf(sung(36, straw, 0.2, 9, NONE), ID);
  expect(both.effects[0].told).toBe('smaller');
  expect(both.later[0].told).not.toBe('smaller');
  const log = sung(36, straw, 0.2, 9, straw);
  expect(trialOf(log, ID).later[0].told).toBe('smaller');
  const missing = log.filter((e, i) => i !== log.findIndex((x) => (x.what as { minutes: number }).minutes > 8));
  expect(trialOf(missing, ID).later).toEqual([]);
});

test('the later slides are offered from eight minutes to half an hour after, once', () => {
  const log = sung(1, NONE, 0.2, 2);
  const at = (minutes: number) => new Date(Date.parse(log[0].at) + minutes * 60_000);
  expect(laterDue(log, ID, FROM, at(7))).toBeNull();
  expect(laterDue(log, ID, FROM, at(10))).toMatchObject({ minutes: 10, line: { arm: (log[0].what as { arm: Arm }).arm } });
  expect(laterDue(log, ID, FROM, at(31))).toBeNull();
  expect(laterDue(sung(1, NONE, 0.2, 2, NONE), ID, FROM, at(13))).toBeNull();
});

test('the trial under way is shown, else the newest', () => {
  expect(shownTrial([], undefined)).toBeNull();
  expect(shownTrial([], ID)).toMatchObject({ days: 0, of: 18, underWay: true });
  expect(shownTrial(sung(3, NONE, 0.3, 1), undefined)).toMatchObject({ days: 3, underWay: false });
});

test('two slides by sound: the leap a flip was made with, and none in a blend', () => {
  const heard = (style: 'flip' | 'blend', leapSt: number) => {
    const profile = typicalProfile('tenor', style);
    const [first] = profile.crossings;
    const made = { ...profile, scatterSt: 0, crossings: [{ ...first, leapSt }] };
    const { pcm } = sing(made, { kind: 'siren', sirens: 2 }, { seed: 5, sampleRate: 22050, snrDb: 45 });
    return brokeIn(analyseTake(pcm, 'siren').findings, first.upMidi)!;
  };
  const flip = heard('flip', 4);
  expect(Math.abs(flip.leapSt - 4)).toBeLessThan(1);
  expect(flip.heard).toBe(100);
  expect(heard('blend', 0).leapSt).toBeLessThan(0.5);
  // A voice that never went over its change tells nothing of it.
  const low = sing(typicalProfile('tenor', 'flip'), { kind: 'siren', bottomMidi: 48, topMidi: 58 }, { seed: 5, sampleRate: 22050 }).pcm;
  expect(brokeIn(analyseTake(low, 'siren').findings, 64)).toBeNull();
});
