import { datesIn } from './dates';

test('an evening lesson belongs to its own day, and a day by itself to none but itself', () => {
  const { dateOf, dateTimeOf, dayOf } = datesIn('America/New_York');
  // UTC is five hours ahead of New York in November, four in July (IANA time zone database).
  expect(dateTimeOf('2026-11-26T01:14:00Z')).toBe('25 Nov, 20:14');
  expect(dateTimeOf('2026-07-26T01:14:00Z')).toBe('25 Jul, 21:14');
  expect(dateOf('2026-11-26T01:14:00Z')).toBe('25 Nov');
  expect(dayOf(new Date('2026-11-26T01:14:00Z'))).toBe('2026-11-25');
  expect(dateOf('2026-11-26')).toBe('26 Nov');
  expect(datesIn('Pacific/Kiritimati').dateOf('2026-11-26')).toBe('26 Nov');
});
