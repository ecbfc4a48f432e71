import { PERFORMERS } from '../../cli/bench/performers';
import { typicalProfile } from '../sim/typical';
import { analyseTake } from '../take/analyse';
import { overlapOf } from './overlap';
import { mapVoice } from './pool';
import type { TakeEvidence } from './types';

const heard = (found: number) => ({ found, of: 4 });

test('from the last head note coming down to the last chest note going up; too few passes tell nothing', () => {
  const p = { upMidi: 67, downMidi: 63.5, up: heard(3), down: heard(3) };
  expect(overlapOf(p)).toEqual({ low: 63.5, high: 67, widthSt: 3.5 });
  expect(overlapOf({ ...p, upMidi: 63 })).toEqual({ low: 63.5, high: 63.5, widthSt: 0 });
  expect(overlapOf({ ...p, down: heard(1) })).toBeNull();
  expect(overlapOf({ ...p, downMidi: null })).toBeNull();
});

// Wanted: within a semitone and a half of what a voice was made with.
describe.each(PERFORMERS)('in the sound of $name', ({ there, performs }) => {
  (there ? test : test.skip)('a voice that was made with a hysteresis is heard to overlap by it', () => {
    const off = (
      [
        ['tenor', 1],
        ['tenor', 4],
        ['mezzo', 2],
        ['mezzo', 5],
        ['baritone', 3],
        ['contralto', 0],
      ] as const
    ).map(([type, wide], i) => {
      const usual = typicalProfile(type, i % 2 ? 'toggle' : 'flip');
      const [crossing] = usual.crossings;
      const singer = { ...usual, crossings: [{ ...crossing, downMidi: crossing.upMidi - wide }] };
      const takes = [0, 1, 2].map((k): TakeEvidence => {
        const pcm = performs(singer, { kind: 'siren' }, 40 * i + k + 1, i + 1);
        return { takeId: String(k), findings: analyseTake(pcm, 'siren').findings, marks: [] };
      });
      const [p] = mapVoice(takes).passaggi;
      const overlap = p && overlapOf(p);
      return overlap ? Math.abs(overlap.widthSt - wide) : Infinity;
    });
    expect(off.filter((by) => by <= 1.5)).toHaveLength(off.length);
  });
});
