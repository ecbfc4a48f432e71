import { exerciseById, SHELF } from './shelf';
import { weightOn } from './weight';

// Common practice, no source.
test('the sound decides with the pattern: what is bubbled takes off, what is open or bright adds', () => {
  const five = exerciseById('five-note-ah');
  expect(['straw', 'oo', 'ah'].map((sound) => weightOn(five, sound))).toEqual([-1, 0, 1]);
  expect(weightOn(exerciseById('release-siren'), 'breathy oo')).toBe(-1);
  expect(weightOn(exerciseById('bratty-five'), 'nyeh')).toBe(1);
  // What is sung through a straw or on a trill never adds.
  for (const e of SHELF) for (const s of e.sounds) if (/straw|trill|hum/.test(s)) expect(weightOn(e, s)).toBeLessThanOrEqual(0);
});
