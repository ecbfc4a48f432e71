import fc from 'fast-check';
import { mayBeSerious, ruleForSign, ruleForToday, SAFETY, SEE_DOCTOR, SIGNS, troubling, worst } from './safety';

const WELL = { hoarse: false, ill: false, pain: false };

test('pain outweighs being hoarse, that being ill, and nothing is said to whoever is well or was not asked', () => {
  expect(ruleForToday({ hoarse: true, ill: true, pain: true })?.id).toBe('pain-today');
  expect(ruleForToday({ hoarse: true, ill: true, pain: false })?.id).toBe('hoarse-today');
  expect(ruleForToday({ ...WELL, ill: true })?.id).toBe('ill-today');
  expect(ruleForToday(WELL)).toBeNull();
  expect(ruleForToday(null)).toBeNull();
});

test('pain means nothing is sung; hoarse or ill leaves the range alone', () => {
  expect(ruleForToday({ ...WELL, pain: true })?.does).toBe('rest-today');
  for (const what of ['hoarse', 'ill'] as const) expect(ruleForToday({ ...WELL, [what]: true })?.does).toBe('leave-range');
});

test('of a day’s answers whatever was said once holds, in whatever order', () => {
  const Answer = fc.option(fc.record({ hoarse: fc.boolean(), ill: fc.boolean(), pain: fc.boolean() }));
  fc.assert(
    fc.property(fc.array(Answer, { maxLength: 6 }), (answers) => {
      const day = worst(answers);
      expect(worst([...answers].reverse())).toEqual(day);
      // Nobody is well who wasn't asked.
      expect(day === null).toBe(answers.every((a) => a === null));
      for (const what of ['hoarse', 'ill', 'pain'] as const) expect(day?.[what] ?? false).toBe(answers.some((a) => a?.[what]));
    }),
  );
});

test('every sign that can be told has one rule; only a tickle asks for no more than care', () => {
  for (const sign of SIGNS) expect(SAFETY.filter((r) => r.when.sign === sign)).toHaveLength(1);
  expect(SIGNS.filter((sign) => !troubling(sign))).toEqual(['tickle']);
  // Common practice, no source: these end singing for the day.
  expect(SIGNS.filter((sign) => ruleForSign(sign).does === 'rest-today')).toEqual(['hoarse', 'soft-gone', 'pain']);
});

test('ids are their own, and each rule is brought on by one thing', () => {
  expect(new Set(SAFETY.map((r) => r.id)).size).toBe(SAFETY.length);
  for (const { when } of SAFETY) expect(Object.keys(when)).toHaveLength(1);
});

// AAO-HNSF, Clinical Practice Guideline: Hoarseness (Dysphonia), update 2018, statements 3 and 4 (from memory): the larynx is looked at
// when dysphonia hasn't gone within four weeks, and at once, whatever its length, after surgery or intubation, with a neck mass, with
// breathing in distress or stridor, in smokers, and in those who live by their voice.
test('when to see a doctor is what the guideline says', () => {
  expect(SAFETY.find((r) => r.when.hoarseWeeks)?.when.hoarseWeeks).toBe(4);
  const words = SEE_DOCTOR.map((r) => r.says).join(' ');
  for (const sign of [
    'lump in the neck',
    'blood',
    'swallow',
    'operation',
    'tube in the throat',
    'smoker',
    'breathing',
    'live by their voice',
  ])
    expect(words).toContain(sign);
  // Trouble breathing doesn't wait for an appointment.
  expect(SEE_DOCTOR.find((r) => r.says.startsWith('Trouble breathing'))?.says).toContain('emergency');
  for (const { says } of SEE_DOCTOR) expect(says).toMatch(/doctor|larynx|emergency/);
});

test('the list of reasons to see a doctor comes after what may be serious, and frightens nobody after an effort or a tickle', () => {
  const told = [...SIGNS.map(ruleForSign), ...SAFETY.filter((r) => r.when.today)];
  expect(told.filter(mayBeSerious).map((r) => r.id)).toEqual(['hoarse-after', 'soft-gone', 'pain', 'pain-today', 'hoarse-today']);
});
