import * as fc from 'fast-check';
import { keysFor } from '../exercise/keys';
import { directionOf, patternSpan } from '../exercise/pattern';
import { exerciseById, SHELF } from '../exercise/shelf';
import { Exercise } from '../exercise/types';
import { SCHOOL_IDS } from '../map/schools';
import { FINDING_NAMES } from '../map/types';
import { fitted, itemByHand, placeFor } from './arrange';
import { DAY_MINUTES, fullest, SET_MINUTES, withinDose } from './dose';
import { bareMap } from './made-map';
import { asRequest, drawnRequest, mapOf, request, voice } from './drawn-voices';
import { planFor, planning } from './plan';
import { usualRequest } from './request';
import { conflicts } from './check';
import { renderKey } from '../exercise/render';
import { weightOn } from '../exercise/weight';
import { roundOf } from '../exercise/round';
import { setsOf } from './sessions';
import { sungToday } from './today';
import { partRank, Plan, PlanItem, PlanRequest } from './types';
import { expectedChange, VOICE_TYPES } from './voice-types';
import { inEnglish } from '../format/say';

test('a voice of one tone has no plan, and that is no fault', () => {
  expect(withinDose([], 20, ['work'])).toEqual({ items: [], dropped: [] });
  const drawn = { type: 'bass' as const, findings: [], lowSt: 0, highSt: 0, changeSt: 0, lean: null };
  const map = { ...mapOf(drawn), extreme: bareMap(45, 45).extreme, usable: null };
  for (const school of SCHOOL_IDS) expect(planFor(usualRequest({ map, voiceType: 'bass', school, shelf: SHELF }))?.items ?? []).toEqual([]);
});

test('the shelf covers every family and strand, and hangs together', () => {
  expect(SHELF.length).toBeGreaterThanOrEqual(40);
  expect(new Set(SHELF.map((e) => e.id)).size).toBe(SHELF.length);
  for (const family of ['scale', 'siren', 'straw', 'trill', 'toggle', 'hold', 'speech', 'connector', 'riff', 'range', 'phrase'])
    expect(SHELF.some((e) => e.family === family)).toBe(true);
  for (const e of SHELF) {
    // What comes before exists and is no harder.
    for (const before of e.after.map(exerciseById)) expect(before.grade).toBeLessThanOrEqual(e.grade);
    // What suits a finding is not to be kept from it; tempi run from slow to fast.
    expect(e.suits.filter((f) => e.avoid.includes(f))).toEqual([]);
    expect([...e.tempo].sort((a, b) => a - b)).toEqual(e.tempo);
    // "One to two minutes an item" (common practice, no source), a test half a minute.
    expect(e.minutes).toBeGreaterThanOrEqual(0.5);
    expect(e.minutes).toBeLessThanOrEqual(2);
    // The easy sounds first: "ah" is never the easiest (common practice, no source) but in the test siren.
    if (e.role !== 'test') expect(e.sounds[0]).not.toBe('ah');
  }
  // Every finding has work that suits it in every school.
  for (const school of SCHOOL_IDS)
    for (const finding of FINDING_NAMES)
      expect(
        SHELF.filter((e) => e.role === 'work' && e.suits.includes(finding) && (!e.schools.length || e.schools.includes(school))).length,
      ).toBeGreaterThan(1);
});

test('a long siren takes about 5 to 8 seconds, five notes go at crotchet 90 to 120 (common practice, no source)', () => {
  const siren = exerciseById('long-siren');
  const seconds = (8 * 60) / siren.tempo[1];
  expect(seconds).toBeGreaterThanOrEqual(5);
  expect(seconds).toBeLessThanOrEqual(8);
  expect(exerciseById('five-note-warm-up').tempo[0]).toBeGreaterThanOrEqual(90);
  expect(exerciseById('five-note-warm-up').tempo[2]).toBeLessThanOrEqual(120);
});

/** The rules of the trade that hold for every plan, each worked out here from the plan alone (common practice, no source). */
function holdsToTheTrade(plan: Plan, asked: PlanRequest): void {
  const chosen = plan.items.map((it) => ({ it, e: exerciseById(it.exerciseId) }));
  const pushes = asked.map.findings.some((f) => f.name === 'pulled-chest');
  const light = !pushes && asked.map.findings.some((f) => f.name === 'no-chest');
  for (const { it, e } of chosen) {
    const span = patternSpan(e);
    expect(it.keys.length).toBeGreaterThan(0);
    for (const key of it.keys) {
      expect(key + span.bottom).toBeGreaterThanOrEqual(plan.anchors.low);
      expect(key + span.top).toBeLessThanOrEqual(plan.anchors.high);
    }
    expect(inEnglish(it.reason)).toMatch(/^Because .+\.$/);
    expect(it.rules.length).toBeGreaterThan(0);
    expect(e.needs.every((m) => asked.materials.includes(m))).toBe(true);
    expect(e.avoid.some((f) => asked.map.findings.some((found) => found.name === f))).toBe(false);
    expect(e.schools.length === 0 || e.schools.includes(asked.school)).toBe(true);
    if (e.role !== 'test') expect(e.grade).toBeLessThanOrEqual(plan.grades[e.strand] + 1);
    if (asked.minor) expect(e.weight > 0 || (e.strand === 'range' && e.weight >= 0) || e.loudness === 'swell').toBe(false);
    // Chest is never asked for above a fourth under the change that is expected.
    if (e.strand === 'chest' && e.aim === 'chest')
      for (const key of it.keys) expect(key + span.top).toBeLessThanOrEqual(expectedChange(asked.voiceType) - 4);
  }
  // Never over dose.
  for (let day = 0; day < 7; day++) {
    const today = plan.items.filter((it) => it.days.includes(day));
    expect(today.reduce((sum, it) => sum + it.minutes, 0)).toBeLessThanOrEqual(10);
    expect(today.reduce((sum, it) => sum + it.minutes * it.timesADay, 0)).toBeLessThanOrEqual(asked.minutesADay);
  }
  // The long siren before the narrow slide, wherever the voice has room for it.
  const at = (id: string) => plan.items.findIndex((it) => it.exerciseId === id);
  const roomy = keysFor(exerciseById('long-siren'), plan.anchors).length > 0;
  if (roomy && at('narrow-slide') >= 0 && asked.grades.crossing === undefined && plan.grades.crossing < 4) {
    expect(at('long-siren')).toBeGreaterThanOrEqual(0);
    expect(at('long-siren')).toBeLessThan(at('narrow-slide'));
  }
  const work = chosen.filter(({ it }) => it.part === 'work' || it.part === 'counterweight');
  const week = (some: typeof work) => some.reduce((sum, { it }) => sum + it.minutes * it.timesADay * it.days.length, 0);
  if (light) {
    expect(week(work.filter(({ e }) => e.weight < 0))).toBeLessThanOrEqual(week(work) / 2);
    // Straws and trills count too, as far as they can be sung less.
    const removing = chosen.filter(({ it, e }) => e.weight < 0 || weightOn(e, it.sound) < 0);
    const least = removing.every(({ it }) => it.part === 'work' || it.part === 'counterweight' || it.minutes === 0.5);
    if (!least) expect(week(removing)).toBeLessThanOrEqual(week(chosen) / 2);
  }
  const adds = work.findIndex(({ e }) => e.weight > 0);
  if (pushes && adds >= 0) {
    expect(plan.phase).toBeGreaterThan(0);
    expect(work.slice(0, adds).some(({ e }) => e.weight < 0)).toBe(true);
  }
  // Light before full and falling before rising, but for what another needs first.
  work.forEach(({ e }, i) => {
    for (const { e: later } of work.slice(i + 1)) {
      if (needs(later, e)) continue;
      expect(later.weight).toBeGreaterThanOrEqual(e.weight);
      if (later.weight === e.weight && e.family === 'siren' && later.family === 'siren' && directionOf(later) === 'down')
        expect(directionOf(e)).toBe('down');
    }
  });
  // Today's answer decides today: the week is that of a day that is well, and what may be sung today says so.
  expect(planFor({ ...asked, today: null })!.items).toEqual(plan.items);
  if (asked.today && (asked.today.hoarse || asked.today.ill || asked.today.pain)) {
    expect(plan.notes[0]).toContain('doctor');
    for (const { it, e } of chosen) {
      const { keys } = sungToday(e, it.keys, asked.today, plan.anchors.change);
      if (asked.today.pain || it.part === 'test' || e.strand === 'range' || e.weight > 0) expect(keys).toEqual([]);
      for (const key of keys) expect(key + patternSpan(e).top).toBeLessThanOrEqual(plan.anchors.change);
    }
  }
  // Every set begins warm and ends cool.
  for (const { items } of setsOf(plan.items)) {
    if (items.length === 0) continue;
    expect(['warm-up', 'straw-before']).toContain(items[0].part);
    if (plan.items.some((it) => it.part === 'straw-after')) expect(items[items.length - 1].part).toBe('straw-after');
  }
  // What is prescribed is what is played, within a tenth and half a key.
  for (const { it, e } of chosen) {
    const keyS = renderKey(e, it.keys[0], it.tempo).totalS;
    const played = roundOf(e, it.keys, it.tempo, it.minutes).length * keyS;
    expect(Math.abs(played - it.minutes * 60)).toBeLessThanOrEqual(Math.max(it.minutes * 6, keyS / 2) + 1e-9);
  }
  // Nothing is lost sight of: each exercise of the shelf is in the plan or left out with a reason.
  const named = new Set([...plan.items.map((it) => it.exerciseId), ...plan.leftOut.map((l) => l.exerciseId)]);
  expect(named.size).toBe(SHELF.length);
  expect(plan.leftOut.every((l) => inEnglish(l.because).length > 5)).toBe(true);
}

const needs = (later: Exercise, e: Exercise): boolean => later.after.some((id) => id === e.id || needs(exerciseById(id), e));

test('1,000 random voices: every plan holds to the rules of the trade, and its own checker finds nothing', () => {
  fc.assert(
    fc.property(drawnRequest, (drawn) => {
      const asked = asRequest(drawn);
      const plan = planFor(asked)!;
      holdsToTheTrade(plan, asked);
      const said = conflicts(plan.items, planning(asked)!);
      // A voice in which no warm-up has a key is told so.
      const warmed = plan.items.some((it) => it.part === 'warm-up');
      expect(said.filter((c) => warmed || c.rule !== 'warm-first')).toEqual([]);
      expect(planFor(asked)).toEqual(plan);
    }),
    { numRuns: 1000, seed: 20261125 },
  );
});

test.each(VOICE_TYPES.flatMap((t) => FINDING_NAMES.map((f) => [t.id, f] as const)))(
  '%s, %s: a full set with work for the finding, warm-up first, straw around it, test and straw last',
  (type, finding) => {
    const plan = planFor(request(type, voice(type, finding)))!;
    const parts = plan.items.map((it) => it.part);
    expect(parts[0]).toBe('warm-up');
    expect(parts).toContain('straw-before');
    expect(parts[parts.length - 1]).toBe('straw-after');
    expect(parts).toContain('test');
    const work = plan.items.filter((it) => it.part === 'work').map((it) => exerciseById(it.exerciseId));
    expect(work.some((e) => e.suits.includes(finding))).toBe(true);
  },
);

test('warm-up stays below the change; holds go from three semitones above down to it (common practice, no source)', () => {
  const p = planning(request('mezzo', voice('mezzo', 'flip')))!;
  const warm = exerciseById('five-note-warm-up');
  expect(Math.max(...keysFor(warm, p.anchors)) + patternSpan(warm).top).toBeLessThan(p.anchors.change);
  expect(keysFor(exerciseById('first-head-hold'), p.anchors)).toEqual([3, 2, 1, 0].map((s) => p.anchors.change + s));
});

test('the school moves keys and vowels: belt above, early connect below, classical rounds', () => {
  const flips = (school: PlanRequest['school']) => planFor(request('tenor', voice('tenor', 'toggle'), { school, phase: 1 }))!;
  const keys = (plan: Plan) => plan.items.find((it) => it.part === 'work' && exerciseById(it.exerciseId).family === 'scale')?.keys;
  expect(flips('classical').items.map((it) => it.exerciseId)).not.toEqual(flips('chest-first').items.map((it) => it.exerciseId));
  expect(keys(flips('early-connect'))).not.toEqual(keys(flips('chest-first')));
});

test('pulled chest: weeks of release before core is rebuilt (common practice, no source)', () => {
  const plan = planFor(request('baritone', voice('baritone', 'pulled-chest')))!;
  expect(plan.phases[0]).toMatchObject({ id: 'release', weeks: [4, 6] });
  expect(plan.phases[1].id).toBe('core');
  const later = planFor(request('baritone', voice('baritone', 'pulled-chest'), { phase: 1, grades: { head: 3 } }))!;
  expect(later.items.map((it) => it.exerciseId)).not.toEqual(plan.items.map((it) => it.exerciseId));
});

test('a voice that pushes isn’t loaded where nothing on the shelf lets go first, however well a coach’s own exercise suits', () => {
  const heavy = { ...exerciseById('say-then-sustain'), id: 'own', suits: ['pulled-chest' as const], avoid: [], grade: 2 };
  const shelf = [...SHELF.filter((e) => e.role !== 'work'), heavy];
  const plan = planFor(request('baritone', voice('baritone', 'pulled-chest'), { phase: 1, shelf }))!;
  expect(plan.items.map((it) => it.exerciseId)).not.toContain('own');
  const both = planFor(request('baritone', voice('baritone', 'pulled-chest'), { phase: 1, shelf: [...SHELF, heavy] }))!;
  expect(
    conflicts(both.items, planning(request('baritone', voice('baritone', 'pulled-chest'), { phase: 1, shelf: [...SHELF, heavy] }))!),
  ).toEqual([]);
});

test('no takes, no plan; an expected change is said to be one', () => {
  expect(planFor(request('tenor', { ...voice('tenor'), extreme: null }))).toBeNull();
  const plan = planFor(request('tenor', voice('tenor', 'pulled-chest')))!;
  expect(plan.changeMeasured).toBe(false);
});

describe('what a coach may break is said at once', () => {
  const p = planning(request('baritone', voice('baritone', 'pulled-chest')))!;
  const items = planFor(request('baritone', voice('baritone', 'pulled-chest')))!.items;
  const withItem = (id: string, more: Partial<PlanItem> = {}) => [
    ...items,
    {
      ...items[items.length - 1],
      exerciseId: id,
      part: 'work' as const,
      sound: exerciseById(id).sounds[0],
      keys: [p.anchors.low],
      ...more,
    },
  ];
  test.each([
    ['crosses the usable limit', items.map((it, i) => (i === 0 ? { ...it, keys: [p.anchors.high] } : it)), 'voice'],
    ['too heavy for this voice', withItem('call-out'), 'avoid'],
    ['stays at the change too early', withItem('toggle-light'), 'through-the-change'],
    ['needs another first', withItem('lip-trill-siren'), 'needs-first'],
    ['over dose', items.map((it) => ({ ...it, timesADay: 6 })), 'dose'],
    ['a hard sound too soon', items.map((it) => ({ ...it, sound: exerciseById(it.exerciseId).sounds.slice(-1)[0] })), 'easy-sounds'],
    ['no warm-up', items.slice(2), 'warm-first'],
  ])('%s', (_, changed, rule) => {
    expect(conflicts(items, p)).toEqual([]);
    expect(conflicts(changed, p).map((c) => c.rule)).toContain(rule);
  });
});

test('a set made for one voice fits another in its own keys, or says what it leaves out', () =>
  fc.assert(
    fc.property(drawnRequest, drawnRequest, (from, to) => {
      const items = planFor(asRequest(from))!.items;
      const p = planning(asRequest(to))!;
      const there = fitted([...items, { ...items[0], exerciseId: 'gone from the shelf' }], p);
      expect(there.without).toContain('gone from the shelf');
      expect(there.items.length + there.without.length).toBe(items.length + 1);
      for (const it of there.items) {
        const was = items.find((i) => i.exerciseId === it.exerciseId)!;
        // How it is sung goes along; where is this voice's own.
        expect(it).toMatchObject({ sound: was.sound, tempo: was.tempo, minutes: was.minutes, timesADay: was.timesADay, days: was.days });
        const { bottom, top } = patternSpan(exerciseById(it.exerciseId));
        for (const key of it.keys) expect(key + bottom >= p.anchors.low && key + top <= p.anchors.high).toBe(true);
      }
    }),
    { seed: 21, numRuns: 60 },
  ));

test('what a coach puts in by hand comes after all that is sung no later', () => {
  const p = planning(request('mezzo', voice('mezzo', 'toggle')))!;
  const items = planFor(request('mezzo', voice('mezzo', 'toggle')))!.items;
  for (const e of SHELF) {
    const item = itemByHand(e, items, p);
    if (!item) continue;
    const at = placeFor(item, items);
    expect(items.slice(0, at).every((it) => partRank(it) <= partRank(item))).toBe(true);
    expect(at === items.length || partRank(items[at]) > partRank(item)).toBe(true);
  }
});

test('a week is brought within the dose by shortening first; what goes is the expendable, last in first', () =>
  fc.assert(
    fc.property(
      fc.array(fc.record({ halves: fc.integer({ min: 1, max: 6 }), timesADay: fc.integer({ min: 1, max: 6 }), work: fc.boolean() }), {
        minLength: 1,
        maxLength: 14,
      }),
      fc.constantFrom(5, 10, 15, DAY_MINUTES),
      (drawn, minutesADay) => {
        const like = planFor(request('tenor', voice('tenor', 'flip')))!.items[0];
        const items = drawn.map(({ halves, timesADay, work }, i): PlanItem => ({
          ...like,
          exerciseId: `e${i}`,
          part: work ? 'work' : 'warm-up',
          minutes: halves / 2,
          timesADay,
          days: [0, 1, 2, 3, 4, 5, 6],
        }));
        const before = structuredClone(items);
        const { items: kept, dropped } = withinDose(items, minutesADay, ['work']);
        expect([...kept, ...dropped].map((it) => it.exerciseId).sort()).toEqual(items.map((it) => it.exerciseId).sort());
        for (const it of kept) {
          const was = items.find((i) => i.exerciseId === it.exerciseId)!;
          expect(it.minutes >= 0.5 && it.minutes <= was.minutes && it.timesADay >= 1 && it.timesADay <= was.timesADay).toBe(true);
        }
        expect(dropped.every((it) => it.part === 'work' && it.minutes === 0.5 && it.timesADay === 1)).toBe(true);
        const { set, day } = fullest(kept);
        // Only what may not go can still be too much.
        if (set > SET_MINUTES || day > minutesADay) expect(kept.every((it) => it.part === 'warm-up' && it.minutes === 0.5)).toBe(true);
        expect(items).toEqual(before);
      },
    ),
    { seed: 22 },
  ));
