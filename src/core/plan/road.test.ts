import * as fc from 'fast-check';
import { patternSpan } from '../exercise/pattern';
import { exerciseById, SHELF } from '../exercise/shelf';
import { FINDING_NAMES } from '../map/types';
import { anchorsOf } from './voice';
import { bareMap } from './made-map';
import { usualRequest } from './request';
import { DATE_KINDS, dateLater, dayBent, nextShow, RoadDate } from './dates';
import { planFor, SONG_LINE } from './plan';
import { roadOf, shifted } from './road';
import { isWork } from './types';
import { allInEnglish } from '../format/say';

const FROM = '2026-11-30';
const day = (n: number) => new Date(Date.parse(FROM) + n * 86_400_000).toISOString().slice(0, 10);
const mezzo = (finding: (typeof FINDING_NAMES)[number] = 'flip') =>
  usualRequest({
    map: {
      ...bareMap(53, 81),
      usable: bareMap(55, 79).extreme,
      findings: [{ name: finding, midi: 69, confidence: 0.9, because: '', impression: false, takeIds: [] }],
    },
    voiceType: 'mezzo',
    school: 'classical',
    shelf: SHELF,
  });
const road = (dates: RoadDate[] = [], weeks = 12) => roadOf({ plan: mezzo(), from: FROM, weeks, dates });

// Countdown, lighter weeks and rotation: common practice, no source.
test('without dates: one work item changes each week, every fourth is lighter and listened to, phases follow one another', () => {
  const weeks = road();
  expect(weeks).toHaveLength(12);
  expect(weeks.map((w) => w.startsOn)[1]).toBe(day(7));
  expect(weeks.filter((w) => w.load < 1).map((w) => w.number)).toEqual([4, 8, 12]);
  expect(weeks.filter((w) => w.listening).map((w) => w.number)).toEqual([4, 8, 12]);
  expect([...new Set(weeks.map((w) => w.phase.name))]).toEqual(['Lighten both sides', 'Cross slowly', 'Round in time']);
  const turned = weeks.slice(1).filter((w, i) => w.phase.id === weeks[i].phase.id && w.comesIn.length > 0);
  expect(turned.length).toBeGreaterThan(3);
  for (const w of weeks) expect(w.items[0].part).toBe('warm-up');
});

test('a show in five weeks bends the road to it', () => {
  const weeks = road([{ day: day(35), kind: 'show', name: 'the premiere' }], 7);
  const [first, , third, fourth, fifth, sixth] = weeks;
  expect(allInEnglish(first.because).join(' ')).toContain('no new technique');
  for (const w of weeks.slice(1, 6)) expect([w.number, w.comesIn]).toEqual([w.number, []]);
  expect(allInEnglish(third.because).join(' ')).toContain('run-throughs');
  expect([fourth.load, fifth.load]).toEqual([0.7, 0.7]);
  expect(allInEnglish(fifth.because).join(' ')).toContain('nothing new, no test');
  expect(fifth.test).toBe(false);
  // The last three days, the day, the day after.
  expect(fifth.days.map((d) => [d.day, d.load])).toEqual([
    [day(32), 0.5],
    [day(33), 0.5],
    [day(34), 0.5],
  ]);
  expect(sixth.days.map((d) => [d.day, d.load])).toEqual([
    [day(35), 0.4],
    [day(36), 0.3],
  ]);
  expect(sixth.days[0].only!.length).toBeGreaterThan(2);
});

test('holidays, tours and rehearsals take load away and bring nothing new', () => {
  const weeks = road(
    [
      { day: day(7), until: day(13), kind: 'holiday' },
      { day: day(14), until: day(27), kind: 'rehearsals', name: 'the block' },
    ],
    5,
  );
  expect(weeks.map((w) => w.load)).toEqual([1, 0.3, 0.6, 0.6, 1]);
  expect(weeks[1].days).toHaveLength(7);
  expect(allInEnglish(weeks[2].because)).toEqual(['The voice is needed for the block: three fifths of the load, nothing new.']);
  expect(weeks.slice(1, 4).flatMap((w) => w.comesIn)).toEqual([]);
});

test('whatever comes, no key leaves the voice, nothing is over dose, no test falls into the last week before a show', () =>
  fc.assert(
    fc.property(
      fc.constantFrom(...FINDING_NAMES),
      fc.array(
        fc.record({ at: fc.integer({ min: 0, max: 80 }), lasts: fc.integer({ min: 0, max: 14 }), kind: fc.constantFrom(...DATE_KINDS) }),
        {
          maxLength: 3,
        },
      ),
      (finding, drawn) => {
        const plan = mezzo(finding);
        const dates = drawn.map(({ at, lasts, kind }) => ({ day: day(at), until: day(at + lasts), kind }));
        const weeks = roadOf({ plan, from: FROM, weeks: 10, dates });
        const { low, high } = anchorsOf(plan.map, plan.voiceType)!.anchors;
        for (const w of weeks) {
          expect(w.minutesADay).toBeLessThanOrEqual(plan.minutesADay);
          for (const it of w.items) {
            const { bottom, top } = patternSpan(exerciseById(it.exerciseId));
            for (const key of it.keys) expect(key + bottom >= low && key + top <= high).toBe(true);
          }
          const soon = dates.some(
            (d) => ['recital', 'show', 'audition', 'exam'].includes(d.kind) && d.day >= w.startsOn && d.day <= day(7 * w.number),
          );
          if (soon) expect(w.items.some((it) => it.part === 'test')).toBe(false);
          expect(w.items.some(isWork)).toBe(true);
        }
        expect(roadOf({ plan, from: FROM, weeks: 10, dates })).toEqual(weeks);
      },
    ),
    { numRuns: 25, seed: 15 },
  ));

test('songs: by turns where nothing is planned, and those of a recital by how far it is away', () => {
  const songs = ['Ferryman, Wait', 'The Weir'];
  const own = roadOf({ plan: mezzo(), from: FROM, weeks: 4, dates: [], songs });
  const lined = own.filter((w) => w.items.some((it) => it.exerciseId === SONG_LINE));
  expect(lined.length).toBeGreaterThan(1);
  expect(own.flatMap((w) => w.songs.map((s) => [w.number, s.titles]))).toEqual(lined.map((w) => [w.number, [songs[(w.number - 1) % 2]]]));
  const recital: RoadDate = { day: day(52), kind: 'recital', songs: ['The Weir', 'Ferryman, Wait'] };
  const weeks = roadOf({ plan: mezzo(), from: FROM, weeks: 9, dates: [recital, { day: day(3), kind: 'holiday', songs }], songs });
  expect(weeks.map((w) => w.songs.map((s) => s.says.split(/[ ,:]/)[0]))).toEqual([
    ['their'],
    ['their'],
    ['in'],
    ['in'],
    ['in'],
    ['run'],
    ['run'],
    ['marked'],
    // It is over: the singer's own again.
    weeks[8].items.some((it) => it.exerciseId === SONG_LINE) ? ['a'] : [],
  ]);
  for (const w of weeks.slice(0, 8)) expect(w.songs[0].titles).toEqual(recital.songs);
});

test('a run of shows: each of its days has the show set, the day after the last is for recovery, its second week brings nothing new', () => {
  const run: RoadDate[] = [{ day: day(3), until: day(9), kind: 'show' }];
  expect([2, 3, 6, 9, 10, 11].map((n) => dayBent(day(n), run)?.set)).toEqual([
    null,
    'show-day',
    'show-day',
    'show-day',
    'recovery',
    undefined,
  ]);
  const [, second] = roadOf({ plan: mezzo(), from: FROM, weeks: 2, dates: run });
  expect([second.load, second.test, second.comesIn]).toEqual([0.6, false, []]);
});

test('of two dates on one day the show decides', () => {
  const both: RoadDate[] = [
    { day: day(4), until: day(8), kind: 'holiday' },
    { day: day(5), kind: 'audition' },
  ];
  expect([4, 5, 6, 8].map((n) => dayBent(day(n), both)?.set)).toEqual(['holiday', 'show-day', 'holiday', 'holiday']);
});

test('a phase begins in another week when the one before is made longer or shorter', () => {
  const weeks = road();
  const begins = weeks.find((w) => w.phase.id === 'cross')!.number;
  const later = shifted(weeks, begins, begins + 2, {})!;
  expect(later).toEqual({ lighten: begins + 1 });
  const moved = roadOf({ plan: mezzo(), from: FROM, weeks: 12, dates: [], phaseWeeks: later });
  expect(moved.find((w) => w.phase.id === 'cross')!.number).toBe(begins + 2);
  expect(moved.find((w) => w.phase.id === 'join')!.number).toBe(weeks.find((w) => w.phase.id === 'join')!.number + 2);
  // No phase begins in the second week, and none can begin before the road does.
  expect(shifted(weeks, 2, 4, {})).toBeNull();
  expect(shifted(weeks, begins, 1, {})).toBeNull();
});

test('what ends a phase is sung in each of its weeks, whatever else is turned', () => {
  for (const finding of FINDING_NAMES) {
    const plan = mezzo(finding);
    const { phases } = planFor(plan)!;
    const weeks = roadOf({ plan, from: FROM, weeks: 16, dates: [] });
    for (const phase of phases)
      for (const gate of phase.ends) {
        const of = weeks.filter((w) => w.phase.id === phase.id).map((w) => w.items.some((it) => gate.sings.includes(it.exerciseId)));
        // What this voice isn't ready for can't be sung in any of them.
        if (of[0]) expect([finding, phase.id, gate.sings, of]).toEqual([finding, phase.id, gate.sings, of.map(() => true)]);
      }
  }
});

test('two things sung in public on one day are one day, with the songs of both; what is over is not to come', () => {
  const dates: RoadDate[] = [
    { day: '2026-12-05', kind: 'show', songs: ['Lantern', 'Ferryman, Wait'] },
    { day: '2026-12-05', kind: 'audition', songs: ['Ferryman, Wait', 'Reeds'] },
    { day: '2026-12-01', kind: 'rehearsals', songs: ['Mud'] },
    { day: '2026-11-20', kind: 'recital', songs: ['Old'] },
  ];
  expect(nextShow(dates, '2026-11-28')).toEqual({ days: 7, songs: ['Lantern', 'Ferryman, Wait', 'Reeds'] });
  expect(nextShow(dates, '2026-12-06')).toBeNull();
});

test('a date that is put off keeps its length, its name and its songs, over the end of a year as well', () => {
  const tour = { day: '2026-12-28', until: '2027-01-02', kind: 'tour' as const, name: 'The coast', songs: ['Ferryman, Wait'] };
  expect(dateLater(tour, 7)).toEqual({ ...tour, day: '2027-01-04', until: '2027-01-09' });
  expect(dateLater(dateLater(tour, 7), -7)).toEqual(tour);
  expect(dateLater({ day: '2027-03-01', kind: 'show' }, -7)).toEqual({ day: '2027-02-22', kind: 'show' });
});
