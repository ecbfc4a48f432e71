import type { Grades } from '../plan/types';
import { chaptersOf } from './chapters';

const grades = (head: number): Grades => ({ chest: 2, head, mix: 1, flexibility: 1, stamina: 1 }) as unknown as Grades;
const week = (startsOn: string, phase: string, head: number) => ({ startsOn, stand: { phase, grades: grades(head) } });

test('weeks in one phase are one chapter with the grades of its last; weeks without a stand are passed over; a phase may come again', () => {
  const chapters = chaptersOf([
    week('2026-11-16', 'Join', 3),
    week('2026-11-02', 'Release', 1),
    { startsOn: '2026-10-26', stand: null },
    week('2026-11-09', 'Release', 2),
    // Assigned again in mid-week: still one week.
    week('2026-11-09', 'Release', 2),
    week('2026-11-23', 'Release', 3),
  ]);
  expect(chapters.map(({ phase, from, to, weeks }) => [phase, from, to, weeks])).toEqual([
    ['Release', '2026-11-02', '2026-11-09', 2],
    ['Join', '2026-11-16', '2026-11-16', 1],
    ['Release', '2026-11-23', '2026-11-23', 1],
  ]);
  expect(chapters[0].grades).toEqual(grades(2));
  expect(chaptersOf([])).toEqual([]);
});
