import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { VoiceFile } from '../core/format/voice-file';
import { examplePage } from './example-page';
import { planJson } from './plan-of';

const EXAMPLES = readdirSync('docs/examples').filter((f) => f.endsWith('.json'));
const voiceOf = (more: object = {}) =>
  VoiceFile.parse({
    range: { touched: { low: 'G3', high: 'A5' }, usable: { low: 'A3', high: 'G5' } },
    passaggi: [{ up: 'A4', down: 'G4', name: 'flip' }],
    findings: [{ name: 'flip', midi: 'A4' }],
    speaking: 'A3',
    ...more,
  });

test.each(EXAMPLES)('docs/examples/%s: the page is what the planner says', (file) => {
  const voice = VoiceFile.parse(JSON.parse(readFileSync(join('docs/examples', file), 'utf8')));
  expect(readFileSync(join('docs/examples', file.replace('.json', '.md')), 'utf8')).toContain(examplePage(voice));
});

test('there is a changing voice, an older one and a show in five weeks among eight', () => {
  const voices = EXAMPLES.map((f) => VoiceFile.parse(JSON.parse(readFileSync(join('docs/examples', f), 'utf8'))));
  expect(voices).toHaveLength(8);
  expect(voices.some((v) => v.person.changing)).toBe(true);
  expect(voices.some((v) => v.person.age === 'older' && v.dates.some((d) => d.kind === 'show'))).toBe(true);
});

// B-1 of the fifteen decisions, as far as the command line shows them; each is common practice, no source.
test('pain today: nothing is sung today, and the week stays as it is', () => {
  const well = planJson(voiceOf());
  const hurts = planJson(voiceOf({ today: { pain: true } }));
  expect(hurts.today.items).toEqual([]);
  expect(hurts.today.because).toContain('nothing is sung today');
  expect(hurts.week.items).toEqual(well.week.items);
  expect(well.today.items.length).toBeGreaterThan(3);
});

test('a pin goes before everything that was ever sung', () => {
  const { week, road } = planJson(voiceOf({ pins: { 'usable-low': 'C4', 'usable-high': 'D5' } }));
  expect(week.anchors).toMatchObject({ low: 60, high: 74 });
  expect(road.flatMap((w) => w.items).length).toBeGreaterThan(10);
});

test('a voice whose top was never heard past the change is told so, and nothing crosses', () => {
  const { week } = planJson(VoiceFile.parse({ range: { touched: { low: 'F2', high: 'D#4' } }, person: { voiceType: 'baritone' } }));
  expect(week.notes.join(' ')).toContain('look for head voice from above');
  expect(week.items.some((it) => it.exerciseId.includes('siren') && it.part === 'work')).toBe(false);
});

test('a changing voice has no findings, no test and no phase but the comfortable band', () => {
  const { week, road } = planJson(
    VoiceFile.parse({
      range: { touched: { low: 'F3', high: 'D4' } },
      findings: [{ name: 'pulled-chest', midi: 'A#3' }],
      speaking: 'A3',
      person: { voiceType: 'baritone', age: '13-15', changing: true },
    }),
  );
  expect([week.worksOn, week.phase.id]).toEqual([[], 'comfort']);
  expect(week.items.some((it) => it.part === 'test')).toBe(false);
  expect(week.items[0].part).toBe('warm-up');
  expect(new Set(road.map((w) => w.phase.id))).toEqual(new Set(['comfort']));
});

test('the day after illness a third is sung; what the log brings on is said', () => {
  const log = [{ day: '2026-01-04', ill: true }];
  expect(planJson(voiceOf({ day: '2026-01-05', log })).today).toMatchObject({
    share: 0.3,
    because: 'On the way back: 30 % of the usual minutes today, and softer.',
  });
  const hoarse = ['2025-12-30', '2026-01-01', '2026-01-03', '2026-01-05'].map((day) => ({ day, hoarse: true }));
  expect(planJson(voiceOf({ day: '2026-01-05', log: hoarse, person: { professional: true } })).notices.map((n) => n.id)).toEqual([
    'hoarse-urgent',
  ]);
});

test('where the phase’s end stands is reckoned from the log', () => {
  const voice = voiceOf({ day: '2026-01-20', findings: [{ name: 'flip', midi: 'G4' }], log: [] });
  const log = (verdicts: string[]) =>
    verdicts.map((verdict, i) => ({ day: `2026-01-1${i}`, exercise: 'falling-siren', verdict, effort: 2 }));
  const gates = (verdicts: string[]) => planJson(VoiceFile.parse({ ...voice, log: log(verdicts) })).week.gates;
  expect(gates([])).toEqual([{ sings: ['falling-siren'], days: 4, done: 0, open: true }]);
  expect(gates(['yes', 'not yet', 'yes', 'yes'])[0]).toMatchObject({ done: 2, open: true });
  expect(gates(['yes', 'yes', 'yes', 'yes'])[0]).toMatchObject({ done: 4, open: false });
});

test('a show today has its own set; a check under its good days brings today down', () => {
  const show = planJson(voiceOf({ day: '2026-01-05', dates: [{ day: '2026-01-05', kind: 'show' }] }));
  const set = show.sets.find((s) => s.id === 'show-day')!;
  expect(show.today.items.map((it) => it.exerciseId)).toEqual(set.items.map((it) => it.exerciseId));
  const good = [2, 3, 4].map((d) => ({ day: `2026-01-0${d}`, soft: 'C#5', check: { late: 0.05, airy: 20 } }));
  const today = (check: object) =>
    planJson(voiceOf({ day: '2026-01-05', log: [...good, { day: '2026-01-05', soft: 'C#5', ...check }] })).today;
  expect(today({ check: { late: 0.06, airy: 19 } })).toMatchObject({ share: 1, because: null });
  expect(today({ check: { late: 0.4, airy: 8 } })).toMatchObject({
    share: 0.4,
    because: expect.stringContaining('a tone and a half lower'),
  });
});

test('the command prints the same, and says what is wrong with a file', () => {
  const folder = mkdtempSync(join(tmpdir(), 'wendel-plan-'));
  const file = join(folder, 'voice.json');
  const run = (...args: string[]) => spawnSync(process.execPath, ['bin/core.mjs', 'plan', ...args], { encoding: 'utf8', maxBuffer: 1e8 });
  writeFileSync(file, JSON.stringify({ range: { touched: { low: 55, high: 81 } } }));
  expect(JSON.parse(run('--voice', file, '--json').stdout).week.items.length).toBeGreaterThan(3);
  expect(run('--voice', file).stdout).toContain('### The road');
  writeFileSync(file, '{"person":{"age":"forty"}}');
  const wrong = run('--voice', file);
  expect([wrong.status, wrong.stderr]).toEqual([1, expect.stringMatching(/range: .*person\.age: /s)]);
});

test('each change that is worked on has an item at its own place, and its reason names it', () => {
  const { week } = planJson(
    VoiceFile.parse({
      range: { touched: { low: 'B3', high: 'D6' }, usable: { low: 'C4', high: 'C6' } },
      passaggi: [
        { up: 'A4', name: 'flip' },
        { up: 'F#5', name: 'toggle', confidence: 0.8 },
      ],
      findings: [
        { name: 'flip', midi: 'A4' },
        { name: 'toggle', midi: 'F#5' },
      ],
      person: { voiceType: 'soprano' },
    }),
  );
  const at = (note: string) => week.items.filter((it) => it.part === 'work' && it.reason.includes(`around ${note}`));
  expect(at('A4').length).toBeGreaterThan(0);
  expect(at('F#5').length).toBeGreaterThan(0);
  // What is for the upper change is sung up there.
  for (const it of at('F#5')) expect(Math.min(...it.keys)).toBeGreaterThan(72);
});

test('songs take more of the week from phase to phase', () => {
  const shareIn = (phase: string) => {
    const { items } = planJson(voiceOf({ phase, grades: { crossing: 5 } })).week;
    const minutes = (of: typeof items) => of.reduce((sum, it) => sum + it.minutes * it.timesADay * it.days.length, 0);
    return minutes(items.filter((it) => it.part === 'carry')) / minutes(items);
  };
  const shares = ['lighten', 'cross', 'join', 'carry'].map(shareIn);
  expect(shares[0]).toBeGreaterThanOrEqual(0.08);
  expect(shares[1]).toBeGreaterThanOrEqual(0.18);
  expect(shares[3]).toBeGreaterThanOrEqual(0.35);
  expect([...shares].sort((a, b) => a - b)).toEqual(shares);
});

test('a voice that lacks chest isn’t worked on for blending as well', () => {
  const { week } = planJson(
    voiceOf({
      findings: [
        { name: 'no-chest', midi: 'A4' },
        { name: 'blended', midi: 'A4' },
      ],
    }),
  );
  expect(week.worksOn).toEqual(['no-chest']);
  for (const it of week.items.filter((i) => i.exerciseId === 'say-then-sustain')) expect(Math.max(...it.keys)).toBeLessThanOrEqual(65);
});
