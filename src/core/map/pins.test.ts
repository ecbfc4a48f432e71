import fc from 'fast-check';
import { withPinnedChanges, withPins } from './pins';
import { mapVoice } from './pool';
import { Passaggio, PIN_NAMES, VoiceMap } from './types';

const limit = (midi: number) => ({ midi, takeIds: ['t'] });
const passaggio = (midi: number): Passaggio => ({
  midi,
  lowMidi: midi - 1.5,
  highMidi: midi + 1.5,
  upMidi: midi + 1,
  downMidi: midi - 1,
  up: { found: 3, of: 4 },
  down: { found: 2, of: 4 },
  widthSt: 4,
  name: 'flip',
  confidence: 0.7,
  impression: true,
  vowels: [],
  votes: [],
});
const map = (...changes: number[]): VoiceMap => ({
  ...mapVoice([]),
  extreme: { low: limit(41), high: limit(79) },
  usable: { low: limit(43), high: limit(74) },
  speakingMidi: 50,
  passaggi: changes.map(passaggio),
});

test('a pinned value stands, the machine’s is kept beside it, and the rest is as it was', () => {
  const heard = map(62, 69);
  const pinned = withPins(heard, [
    { what: 'second-change', midi: 71 },
    { what: 'usable-high', midi: 76 },
    { what: 'speaking', midi: 48 },
  ]);
  expect(pinned.passaggi.map((p) => p.midi)).toEqual([62, 71]);
  // What a hand set is certain; how it was heard stays with it.
  expect(pinned.passaggi[1]).toMatchObject({ lowMidi: 71, highMidi: 71, confidence: 1, name: 'flip', up: { found: 3, of: 4 } });
  expect(pinned.usable).toEqual({ low: limit(43), high: { midi: 76, takeIds: [] } });
  expect(pinned.speakingMidi).toBe(48);
  expect(pinned.pinned).toEqual({ 'second-change': 69, 'usable-high': 74, speaking: 50 });
  expect(pinned.passaggi[0]).toBe(heard.passaggi[0]);
  expect(heard.passaggi[1].midi).toBe(69);
});

test('what was never heard can be pinned; a second change only beside a first', () => {
  const nothing: VoiceMap = { ...map(), usable: null };
  expect(withPins(nothing, [{ what: 'change', midi: 64 }]).passaggi).toMatchObject([{ midi: 64, confidence: 1, votes: [], up: { of: 0 } }]);
  expect(withPins(nothing, [{ what: 'second-change', midi: 70 }]).passaggi).toEqual([]);
  const both = withPins(nothing, [
    { what: 'second-change', midi: 70 },
    { what: 'change', midi: 64 },
  ]);
  expect(both.passaggi.map((p) => p.midi)).toEqual([64, 70]);
  expect(both.pinned).toEqual({ change: null, 'second-change': null });
  // One end of a range that isn't known yet: the other is what was touched.
  expect(withPins(nothing, [{ what: 'usable-low', midi: 45 }]).usable).toMatchObject({ low: { midi: 45 }, high: { midi: 79 } });
});

test('the order of pins changes nothing, and a summary’s changes are the map’s', () =>
  fc.assert(
    fc.property(
      fc.uniqueArray(fc.record({ what: fc.constantFrom(...PIN_NAMES), midi: fc.integer({ min: 40, max: 80 }) }), {
        selector: (p) => p.what,
      }),
      fc.subarray([62, 69]),
      (pins, changes) => {
        const pinned = withPins(map(...changes), pins);
        expect(withPins(map(...changes), [...pins].reverse())).toEqual(pinned);
        const summary = map(...changes).passaggi.map(({ midi, lowMidi, highMidi, confidence, impression }) => ({
          midi,
          lowMidi,
          highMidi,
          confidence,
          impression,
        }));
        expect(withPinnedChanges(summary, pins, {}).map((p) => p.midi)).toEqual(pinned.passaggi.map((p) => p.midi));
      },
    ),
    { seed: 6 },
  ));
