import { exerciseById } from '../exercise/shelf';
import { SCHOOL_IDS } from '../map/schools';
import { FINDING_NAMES } from '../map/types';
import { request, voice } from '../plan/drawn-voices';
import { planFor } from '../plan/plan';
import { phasesFor } from '../plan/ways';
import { gatesOf, phaseDone } from './gates';
import { practisedOf } from './log';
import { done, lineOn } from './made-log';
import { Done, Entry } from './types';

const on = (day: number, success: boolean | null, more: Partial<Done> = {}) =>
  lineOn(`2026-11-${String(day).padStart(2, '0')}`, done({ success, ...more }));
const PHASE = { ends: [{ sings: ['falling-siren'], days: 3 }] };
const days = (log: Entry[], since?: string) => gatesOf(PHASE, log, since)[0].done;

test('days in a row: a day that failed ends the row, one that wasn’t sung or judged doesn’t', () => {
  expect(days([])).toBe(0);
  expect(days([on(1, true), on(2, true)])).toBe(2);
  expect(days([on(1, true), on(2, false), on(3, true)])).toBe(1);
  expect(days([on(1, true), on(4, null), on(5, true)])).toBe(2);
  expect(days([on(1, true), on(2, true), on(3, false)])).toBe(0);
  expect(days([on(1, true), on(2, true), on(3, true), on(4, true)])).toBe(3);
});

test('a day counts when most of its takes went as meant, easily and without a scratch', () => {
  expect(days([on(1, true), on(1, true), on(1, false)])).toBe(1);
  expect(days([on(1, true), on(1, false)])).toBe(0);
  expect(days([on(1, true, { effort: 6 })])).toBe(0);
  expect(days([on(1, true, { signs: ['scratch'] })])).toBe(0);
  expect(days([on(1, true, { signs: ['tickle'] })])).toBe(1);
});

test('what was told by hand counts once the coach says that it went as meant', () => {
  const told = on(1, null, { byHand: true });
  expect(days([told, on(2, true)])).toBe(1);
  expect(days([{ ...told, granted: true }, on(2, true)])).toBe(2);
  // What was heard to fail isn't granted away.
  expect(days([{ ...on(1, false), granted: true }])).toBe(0);
  expect(practisedOf([{ ...told, granted: true }], 'falling-siren')[0].success).toBe(true);
});

test('only what was sung since the phase began, and only what ends it', () => {
  expect(days([on(1, true), on(5, true)], '2026-11-03')).toBe(1);
  expect(days([on(1, true, { exerciseId: 'long-siren' })])).toBe(0);
  const log = [on(1, true), on(2, true), on(3, true)];
  expect(phaseDone(gatesOf(PHASE, log))).toBe(true);
  expect(phaseDone(gatesOf(PHASE, log.slice(1)))).toBe(false);
  expect(phaseDone(gatesOf({ ends: [] }, log))).toBe(false);
});

test('what ends a phase is on the shelf, taught by its school, and in the week of an ordinary voice that is ready for it', () => {
  const missing: string[] = [];
  for (const school of SCHOOL_IDS)
    for (const finding of FINDING_NAMES) {
      const phases = phasesFor(school, finding, { light: false, minor: false });
      for (const phase of phases) {
        for (const id of phase.ends.flatMap((g) => g.sings)) {
          const e = exerciseById(id);
          expect([id, e.schools.length === 0 || e.schools.includes(school)]).toEqual([id, true]);
        }
        const grades = { crossing: 5, head: 4, chest: 4, evenness: 4, range: 4, straw: 3 };
        const plan = planFor(request('mezzo', voice('mezzo', finding), { school, phaseId: phase.id, grades, minutesADay: 30 }))!;
        for (const gate of phase.ends)
          if (!gate.sings.some((id) => plan.items.some((it) => it.exerciseId === id)))
            missing.push(`${school} ${finding} ${phase.id}: ${gate.sings}`);
      }
    }
  expect(missing).toEqual([]);
});
