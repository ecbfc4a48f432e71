import { inEnglish } from '../format/say';
import { SongsNow, waits } from './waits';

const release = { name: 'Release', carryShare: 0.1 };
const now = (of: Partial<SongsNow> = {}): SongsNow => ({ phase: null, show: null, ...of });
const inWords = (...asked: Parameters<typeof waits>) => inEnglish(waits(...asked)!);
const [risky, safe] = [{ level: 'risky' }, { level: 'safe' }] as const;

// That heavy songs wait early, and that nothing new begins within six weeks of a show: common practice, no source.
test('what is risky waits in a phase with little room for songs, and no longer than that', () => {
  expect(inWords('The Weir', risky, false, now({ phase: release }))).toContain('in “Release”');
  expect(inWords('The Weir', risky, true, now({ phase: release }))).toContain('in “Release”');
  expect(waits('The Weir', safe, false, now({ phase: release }))).toBeNull();
  expect(waits('The Weir', null, false, now({ phase: release }))).toBeNull();
  expect(waits('The Weir', risky, false, now({ phase: { name: 'Into songs', carryShare: 0.5 } }))).toBeNull();
});

test('nothing new begins within six weeks of a show but its own songs', () => {
  const show = (days: number) => now({ show: { days, songs: ['Ferryman, Wait'] } });
  expect(inWords('The Weir', safe, false, show(42))).toContain('42 days');
  expect(inWords('The Weir', safe, false, show(1))).toContain('1 day to');
  expect(waits('The Weir', safe, false, show(43))).toBeNull();
  expect(waits('The Weir', safe, true, show(10))).toBeNull();
  expect(waits('Ferryman, Wait', risky, false, { ...show(10), phase: release })).toBeNull();
});
