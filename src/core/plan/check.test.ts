import type { Exercise } from '../exercise/types';
import { SHELF } from '../exercise/shelf';
import type { VoiceMap } from '../map/types';
import { conflicts, Planning } from './check';
import { bareMap } from './made-map';
import { planning } from './plan';
import { usualRequest } from './request';
import type { RuleId } from './rules';
import type { PlanItem } from './types';

/** A tenor's map, as far as the rules look at it: A2 to C5. */
const map = { ...bareMap(45, 72), usable: bareMap(45, 72).extreme } as VoiceMap;

/** An easy five-note scale that nothing speaks against; each rule's case changes what it is about. */
const plain: Exercise = {
  ...SHELF[0],
  steps: [1, 2, 3, 4, 5, 4, 3, 2, 1].map((degree) => ({ degree, beats: 1 })),
  family: 'scale',
  strand: 'crossing',
  role: 'work',
  weight: 0,
  grade: 1,
  place: 'across',
  after: [],
  needs: [],
  schools: [],
  avoid: [],
  suits: [],
  loudness: 'even',
  sounds: ['oo', 'oh', 'ah', 'eh'],
};
const own = (id: string, more: Partial<Exercise> = {}): Exercise => ({ ...plain, id, name: id, ...more });
const item = (e: Exercise, more: Partial<PlanItem> = {}): PlanItem => ({
  exerciseId: e.id,
  part: 'work',
  keys: [50],
  sound: e.sounds[0],
  tempo: 80,
  minutes: 1,
  timesADay: 1,
  days: [0, 2, 4],
  reason: '',
  caution: '',
  rules: [],
  advance: '',
  ...more,
});

const warm = own('warm');
const warmUp = item(warm, { part: 'warm-up' });
/** Rules broken by items after a warm-up, in a voice made for the case. */
function broken(shelf: Exercise[], items: PlanItem[], more: Partial<Planning> = {}): RuleId[] {
  const p = planning(
    usualRequest({ map, voiceType: 'tenor', school: 'classical', shelf: [warm, ...shelf], materials: ['straw', 'water'] }),
  )!;
  return conflicts(items, { ...p, ...more }).map((c) => c.rule);
}

interface Case {
  rule: RuleId;
  shelf: Exercise[];
  more?: Partial<Planning>;
  breaks: PlanItem[];
  keeps: PlanItem[];
  /** What else is another voice's or another day's. */
  keepsWith?: Partial<Planning>;
}

const [a, b] = [own('a'), own('b')];
const heavy = own('heavy', { weight: 1 });
const light = own('light', { weight: -1 });
const rising = own('rising', {
  family: 'siren',
  steps: [
    { degree: 1, beats: 1, slide: true },
    { degree: 8, beats: 1 },
  ],
});
const falling = own('falling', {
  family: 'siren',
  steps: [
    { degree: 8, beats: 1, slide: true },
    { degree: 1, beats: 1 },
  ],
});
const later = own('later', { after: ['a'], grade: 1 });
const hard = own('hard', { grade: 5 });
const still = own('still', { place: 'at' });
const needy = own('needy', { needs: ['balloon' as Exercise['needs'][number]] });
const elsewhere = own('elsewhere', { schools: ['bridges'] });
const wide = own('wide', { strand: 'range' });
const chest = own('chest', { strand: 'chest', aim: 'chest' });
const worse = own('worse', { avoid: ['flip'] });
const ladder = own('ladder', { grade: 3 });

const CASES: Case[] = [
  { rule: 'warm-first', shelf: [a], breaks: [item(a), warmUp], keeps: [warmUp, item(a)] },
  { rule: 'warm-first', shelf: [a], breaks: [item(a)], keeps: [] },
  { rule: 'voice', shelf: [a], breaks: [warmUp, item(a, { keys: [70] })], keeps: [warmUp, item(a, { keys: [50] })] },
  // A fifth from 65 ends at 72, which is usable.
  { rule: 'voice', shelf: [a], breaks: [warmUp, item(a, { keys: [66] })], keeps: [warmUp, item(a, { keys: [65] })] },
  // Chest: nobody spoke, so 50 is taken for the speaking pitch; a fourth under the expected change of a tenor is 60.
  { rule: 'chest-ceiling', shelf: [chest], breaks: [warmUp, item(chest, { keys: [52] })], keeps: [warmUp, item(chest, { keys: [50] })] },
  {
    rule: 'intake',
    shelf: [heavy],
    more: { limits: ['no-weight'] },
    breaks: [warmUp, item(heavy)],
    keeps: [warmUp, item(heavy)],
    keepsWith: { limits: [] },
  },
  { rule: 'narrow', shelf: [a], more: { narrow: true }, breaks: [warmUp, item(a)], keeps: [warmUp, item(a)], keepsWith: { narrow: false } },
  // The work twice a day, the warm-up once: the second set is cold.
  {
    rule: 'warm-first',
    shelf: [a],
    breaks: [warmUp, item(a, { timesADay: 2 })],
    keeps: [{ ...warmUp, timesADay: 2 }, item(a, { timesADay: 2 })],
  },
  { rule: 'light-first', shelf: [heavy, light], breaks: [warmUp, item(heavy), item(light)], keeps: [warmUp, item(light), item(heavy)] },
  {
    rule: 'falling-first',
    shelf: [rising, falling],
    breaks: [warmUp, item(rising), item(falling)],
    keeps: [warmUp, item(falling), item(rising)],
  },
  {
    rule: 'light-voice',
    shelf: [light, heavy],
    more: { lean: 'light' },
    breaks: [warmUp, item(light, { minutes: 3 }), item(heavy)],
    keeps: [warmUp, item(light), item(heavy)],
  },
  {
    rule: 'pushing-voice',
    shelf: [light, heavy],
    more: { lean: 'pushes', phase: 1 },
    breaks: [warmUp, item(heavy)],
    keeps: [warmUp, item(light), item(heavy)],
  },
  {
    rule: 'pushing-voice',
    shelf: [light, heavy],
    more: { lean: 'pushes', phase: 0 },
    breaks: [warmUp, item(light), item(heavy)],
    keeps: [warmUp, item(light)],
  },
  { rule: 'needs-first', shelf: [a, later], breaks: [warmUp, item(later)], keeps: [warmUp, item(a), item(later)] },
  { rule: 'needs-first', shelf: [a, later], breaks: [warmUp, item(later), item(a)], keeps: [warmUp, item(a), item(later)] },
  { rule: 'grade', shelf: [a, hard], breaks: [warmUp, item(hard)], keeps: [warmUp, item(a)] },
  {
    rule: 'through-the-change',
    shelf: [still],
    breaks: [warmUp, item(still)],
    keeps: [warmUp, item(still)],
    keepsWith: { grades: grades(3) },
  },
  {
    rule: 'easy-sounds',
    shelf: [ladder],
    more: { grades: grades(2) },
    breaks: [warmUp, item(ladder, { sound: 'ah' })],
    keeps: [warmUp, item(ladder, { sound: 'oh' })],
  },
  {
    rule: 'materials',
    shelf: [needy],
    breaks: [warmUp, item(needy)],
    keeps: [warmUp, item(needy)],
    keepsWith: { materials: ['straw', 'water', ...needy.needs] },
  },
  {
    rule: 'school',
    shelf: [elsewhere],
    breaks: [warmUp, item(elsewhere)],
    keeps: [warmUp, item(elsewhere)],
    keepsWith: { school: 'bridges' },
  },
  {
    rule: 'minor',
    shelf: [wide],
    more: { minor: true },
    breaks: [warmUp, item(wide)],
    keeps: [warmUp, item(wide)],
    keepsWith: { minor: false },
  },
  {
    rule: 'avoid',
    shelf: [worse],
    more: { map: { ...map, findings: [{ name: 'flip' }] as VoiceMap['findings'] } },
    breaks: [warmUp, item(worse)],
    keeps: [warmUp, item(worse)],
    keepsWith: { map },
  },
  { rule: 'dose', shelf: [a], breaks: [warmUp, item(a, { minutes: 14 })], keeps: [warmUp, item(a, { minutes: 5 })] },
  {
    rule: 'dose',
    shelf: [a],
    more: { minutesADay: 10 },
    breaks: [warmUp, item(a, { timesADay: 12 })],
    keeps: [{ ...warmUp, timesADay: 3 }, item(a, { timesADay: 3 })],
  },
];

function grades(n: number): Planning['grades'] {
  return { crossing: n, head: n, chest: n, range: n, evenness: n, straw: n } as unknown as Planning['grades'];
}

test.each(CASES.map((c) => [c.rule, c] as const))(
  '%s: told where it is broken, and only there',
  (rule, { shelf, more, breaks, keeps, keepsWith }) => {
    expect(broken([...shelf, b], breaks, more)).toContain(rule);
    expect(broken([...shelf, b], keeps, { ...more, ...keepsWith })).not.toContain(rule);
  },
);

test('a plan that keeps them all has nothing said of it', () => {
  expect(broken([light, heavy], [warmUp, item(light), item(heavy)])).toEqual([]);
});
