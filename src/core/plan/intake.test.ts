import { exerciseById, SHELF } from '../exercise/shelf';
import { ANSWERS, heldByIntake, INTAKE_QUESTIONS, Limit, saidYes } from './intake';
import { bareMap } from './made-map';
import { planFor } from './plan';
import { usualRequest } from './request';

const mezzo = (intake: Record<string, (typeof ANSWERS)[number]>) =>
  planFor(
    usualRequest({
      map: {
        ...bareMap(53, 81),
        usable: bareMap(55, 79).extreme,
        findings: [{ name: 'weak-first-head', midi: 69, confidence: 0.9, because: '', impression: false, takeIds: [] }],
      },
      voiceType: 'mezzo',
      school: 'classical',
      shelf: SHELF,
      intake,
    }),
  )!;

test('each question has a sentence, and at most one limit; ids are its own', () => {
  expect(new Set(INTAKE_QUESTIONS.map((q) => q.id)).size).toBe(INTAKE_QUESTIONS.length);
  for (const q of INTAKE_QUESTIONS) expect([q.id, q.asks.endsWith('?'), q.says.endsWith('.')]).toEqual([q.id, true, true]);
});

test('a limit holds back what it is about and nothing else', () => {
  const held = (limit: Limit) => SHELF.filter((e) => heldByIntake(e, [limit]));
  expect(held('nothing-yet')).toHaveLength(SHELF.length);
  expect(held('no-weight').every((e) => e.weight > 0)).toBe(true);
  expect(held('no-range').every((e) => e.strand === 'range')).toBe(true);
  expect(held('no-long-breath')).toContain(exerciseById('long-breath'));
  expect(heldByIntake(exerciseById('five-note-warm-up'), ['no-range', 'no-weight', 'no-long-breath'])).toBeNull();
});

test('a yes is said in the plan and keeps to its limit; no, and rather not, change nothing', () => {
  const usual = mezzo({});
  expect(mezzo({ nodules: 'no', reflux: 'rather-not' })).toEqual(usual);
  const careful = mezzo({ nodules: 'yes' });
  expect(careful.notes).toContain(saidYes({ nodules: 'yes' })[0].says);
  expect(usual.items.some((it) => exerciseById(it.exerciseId).weight > 0)).toBe(true);
  expect(careful.items.some((it) => exerciseById(it.exerciseId).weight > 0)).toBe(false);
  expect(mezzo({ 'voice-operation': 'yes' }).items).toEqual([]);
});
