import { sing } from '../sim/sing';
import { typicalProfile } from '../sim/typical';
import { analyseTake } from '../take/analyse';
import { blendVotes } from './blends';
import { Made, madeSlide } from './made-slide';
import { CoachMark, Passaggio, TakeEvidence } from './types';

/** Where the second harmonic meets the first formant of the vowels of `madeSlide`. */
const TURNS = { ah: 67.3, oh: 60.8, eh: 62.3 };
const RISE = { upMidi: 62.5, downMidi: 61.5, widthSt: 5 };

/** Slides that blend at D4, one a vowel, as takes: constructed, only what is looked at. */
const takes = (made: Made[], marks: CoachMark[] = []): TakeEvidence[] =>
  made.map((of, i) => ({
    takeId: `take-${i}`,
    marks,
    findings: { legs: madeSlide({ seed: i + 1, ...of }), vowelTurnMidi: TURNS[of.vowel ?? 'ah'] } as unknown as TakeEvidence['findings'],
  }));

const vowels = ['ah', 'oh', 'eh'] as const;
const blended = vowels.map((vowel): Made => ({ vowel, rise: RISE }));
const votes = (of: TakeEvidence[], heard: Passaggio[] = []) => blendVotes(of, heard, new Map());

test('a blend on several vowels is said by every pass, at its place going that way', () => {
  const found = votes(takes(blended));
  expect(found).toHaveLength(6);
  for (const { midi, direction, kind, weight } of found) {
    expect(kind).toBe('blend');
    expect(Math.abs(midi - (direction === 'up' ? RISE.upMidi : RISE.downMidi))).toBeLessThan(1);
    expect(weight).toBeGreaterThan(0.6);
  }
});

test('slides without one say nothing, and neither does a single take', () => {
  expect(votes(takes(vowels.map((vowel) => ({ vowel }))))).toEqual([]);
  expect(votes(takes(blended.slice(0, 1)))).toEqual([]);
});

test('what two vowels show and a third denies is no change of register', () => {
  expect(votes(takes([...blended.slice(0, 2), { vowel: 'eh' }, { vowel: 'eh', seed: 9 }]))).toEqual([]);
});

test('where the coach said that there is nothing, nothing is said', () => {
  const mark = { id: 'm', timeS: 1, midi: 62, direction: 'up', verdict: 'reject', by: 'coach' } as CoachMark;
  expect(votes(takes(blended, [mark]))).toEqual([]);
});

test('a blend less than a fifth from a change that is heard is that change', () => {
  const heard = { midi: 65, upMidi: 66, downMidi: 64 } as Passaggio;
  expect(votes(takes(blended), [heard]).every((v) => Math.abs(v.midi - 65) >= 6)).toBe(true);
});

test('colour that turns where no chest hands over to head, as far up its own slide, is no blend', () => {
  const at = (midi: number, low: number) =>
    votes(takes(vowels.map((vowel): Made => ({ vowel, low, rise: { upMidi: midi + 0.5, downMidi: midi - 0.5, widthSt: 5 } }))));
  expect(at(56, 45)).toHaveLength(6);
  expect(at(47, 36)).toEqual([]);
});

test('a blend is heard although noise hides the upper harmonics and sticks out in their place', () => {
  const noisy = blended.map((made) => ({ ...made, noiseDb: -25 }));
  expect(votes(takes(noisy))).toHaveLength(6);
  expect(votes(takes(noisy.map((made) => ({ ...made, rise: null }))))).toEqual([]);
});

test('where a vowel turns under all that is sung, what comes near its first formant tells nothing', () => {
  const high = vowels.map((vowel): Made => ({ vowel, low: 61, rise: { upMidi: 74.5, downMidi: 73.5, widthSt: 5 } }));
  const of = (findings: object) =>
    votes(takes(high).map((t) => ({ ...t, findings: { ...t.findings, vowelTurnMidi: null, ...findings } as TakeEvidence['findings'] })));
  expect(of({})).toHaveLength(6);
  expect(of({ range: { lowestMidi: 61, highestMidi: 89 } })).toEqual([]);
});

/** 600 Hz: what lies under it is looked at. */
const FORMANT_OF_EH = 74.3;

test('a woman’s blend is found where her slide goes on over it up to the first formant and no further', () => {
  const at = (midi: number) =>
    votes(
      takes(
        [1, 2, 3].map((seed): Made => ({ vowel: 'eh', low: 57, seed, rise: { upMidi: midi + 0.5, downMidi: midi - 0.5, widthSt: 4 } })),
      ),
    );
  const found = at(FORMANT_OF_EH - 6);
  expect(found).toHaveLength(6);
  for (const { midi } of found) expect(Math.abs(midi - (FORMANT_OF_EH - 6))).toBeLessThan(1.5);
  expect(at(FORMANT_OF_EH + 2)).toEqual([]);
});

test('beside a change that is heard none is made of colour that turns near the first formant', () => {
  const second = takes([1, 2, 3].map((seed): Made => ({ vowel: 'eh', low: 53, seed, rise: { upMidi: 69, downMidi: 68, widthSt: 4 } })));
  expect(votes(second)).toHaveLength(6);
  expect(votes(second, [{ midi: 60, upMidi: 60.5, downMidi: 59.5 } as Passaggio])).toEqual([]);
});

test('under a second change that is heard the first is looked for on open vowels, whatever else was slid', () => {
  const women = takes(vowels.map((vowel): Made => ({ vowel, low: 57, rise: { upMidi: 67.5, downMidi: 66.5, widthSt: 4 } })));
  // On "oo" the first formant lies at D#4, under the change.
  const onOo = takes([{ vowel: 'oh', low: 57, seed: 7 }]).map((t) => ({
    ...t,
    takeId: 'oo',
    findings: { ...t.findings, vowelTurnMidi: 51 },
  }));
  const second = [{ midi: 78, upMidi: 78.5, downMidi: 77.5 } as Passaggio];
  const found = votes([...women, ...onOo], second);
  expect(found.length).toBeGreaterThanOrEqual(6);
  for (const { midi } of found) expect(Math.abs(midi - 67)).toBeLessThan(1.5);
  expect(votes([...takes(vowels.map((vowel): Made => ({ vowel, low: 57 }))), ...onOo], second)).toEqual([]);
});

test('one take of three that goes by a change tells of none', () => {
  const turnsAt = (take: TakeEvidence, vowelTurnMidi: number) => ({ ...take, findings: { ...take.findings, vowelTurnMidi } });
  const [first, ...others] = takes(blended);
  expect(votes([first, ...others.map((take) => turnsAt(take, 46))])).toEqual([]);
});

test('a soprano who flips once is given no second change for singing some slides on another vowel', () => {
  const flips = typicalProfile('soprano', 'flip');
  const sung = (['ah', 'ah', 'ah', 'oo', 'oo'] as const).map((vowel, i): TakeEvidence => {
    const { pcm } = sing(flips, { kind: 'siren' }, { seed: 100 + i, vowel, snrDb: 34, sampleRate: 22050 });
    return { takeId: `take-${i}`, marks: [], vowel, findings: analyseTake(pcm, 'siren').findings };
  });
  const { upMidi, downMidi } = flips.crossings[0];
  expect(votes(sung, [{ midi: (upMidi + downMidi) / 2, upMidi, downMidi } as Passaggio])).toEqual([]);
});
