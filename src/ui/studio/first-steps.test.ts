import { firstSteps, Started } from './first-steps';

const singer = (more: Partial<Started> = {}): Started => ({
  id: 'tam',
  name: 'Tam Weir',
  lastHeard: null,
  hasWeek: false,
  practised: { last: null },
  ...more,
});
const heard = { lastHeard: new Date('2026-11-25') };
/** The step to do now, and where. */
const now = (...singers: Started[]) => {
  const step = firstSteps(singers)?.find((s) => !s.done);
  return step && [step.name, step.href];
};

test('an empty studio begins with a singer, and each step leads to the next', () => {
  expect(now()).toEqual(['Add a singer', null]);
  expect(now(singer())).toEqual(['Listen', '/singers/tam/listen']);
  expect(now(singer(heard))).toEqual(['Look at the map, and assign a week', '/singers/tam/plan']);
  expect(now(singer({ ...heard, hasWeek: true }))).toEqual(['Send the practice page', '/singers/tam/plan']);
  expect(now(singer({ ...heard, hasWeek: true, practised: { last: '2026-11-26' } }))).toBeUndefined();
});

test('it follows whoever has come furthest; practice without a week is no end of it', () => {
  const ada = singer({ id: 'ada', name: 'Ada Brook', ...heard });
  expect(now(singer(), ada)).toEqual(['Look at the map, and assign a week', '/singers/ada/plan']);
  expect(now(singer({ practised: { last: '2026-11-26' } }), ada)?.[1]).toBe('/singers/ada/plan');
  expect(firstSteps([singer(), { ...ada, hasWeek: true, practised: { last: '2026-11-26' } }])).toBeNull();
});
