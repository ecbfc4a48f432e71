import * as fc from 'fast-check';
import { keyboardMessage, KeyboardMessage, NOTHING_PLAYED, played, soundingNotes } from './midi-message';

// Status bytes as the MIDI 1.0 detailed specification lists them (from memory).
test.each<[string, number[], KeyboardMessage | null]>([
  ['note on, channel 1', [0x90, 60, 127], { does: 'press', midi: 60, velocity: 1 }],
  ['note on, channel 16', [0x9f, 21, 64], { does: 'press', midi: 21, velocity: 64 / 127 }],
  ['note on with velocity 0 is a note off', [0x90, 60, 0], { does: 'release', midi: 60 }],
  ['note off, with a velocity of its own', [0x83, 108, 64], { does: 'release', midi: 108 }],
  ['damper pedal down', [0xb0, 64, 127], { does: 'pedal', down: true }],
  ['damper pedal just on', [0xb5, 64, 64], { does: 'pedal', down: true }],
  ['damper pedal just off', [0xb0, 64, 63], { does: 'pedal', down: false }],
  ['another controller (volume)', [0xb0, 7, 100], null],
  ['polyphonic key pressure', [0xa0, 60, 100], null],
  ['programme change', [0xc0, 5], null],
  ['pitch bend', [0xe0, 0, 64], null],
  ['timing clock', [0xf8], null],
  ['active sensing', [0xfe], null],
  ['no status', [60, 100], null],
  ['cut short', [0x90, 60], null],
  ['nothing', [], null],
  ['no data byte', [0x90, 200, 100], null],
])('%s', (_, bytes, message) => {
  expect(keyboardMessage(Uint8Array.from(bytes))).toEqual(message);
});

test('a chord is held by the pedal after the hand has gone, and ends with it', () => {
  const after = (...all: number[][]) => all.reduce((now, bytes) => played(now, keyboardMessage(bytes)!), NOTHING_PLAYED);
  const chord = [60, 64, 67].map((midi) => [0x90, midi, 80]);
  expect(soundingNotes(after(...chord))).toEqual([60, 64, 67]);
  expect(soundingNotes(after(...chord, [0x80, 64, 0]))).toEqual([60, 67]);
  const pedalled = [[0xb0, 64, 127], ...chord, [0x80, 60, 0], [0x80, 64, 0], [0x80, 67, 0]];
  expect(soundingNotes(after(...pedalled))).toEqual([60, 64, 67]);
  expect(soundingNotes(after(...pedalled, [0xb0, 64, 0]))).toEqual([]);
});

test('whatever is played, each note sounds once, and with hands and pedal away nothing does', () => {
  const message = fc.oneof(
    fc.record({ does: fc.constant('press' as const), midi: fc.integer({ min: 50, max: 55 }), velocity: fc.constant(0.5) }),
    fc.record({ does: fc.constant('release' as const), midi: fc.integer({ min: 50, max: 55 }) }),
    fc.record({ does: fc.constant('pedal' as const), down: fc.boolean() }),
  );
  fc.assert(
    fc.property(fc.array(message), (all) => {
      const end = all.reduce(played, NOTHING_PLAYED);
      const notes = soundingNotes(end);
      expect(new Set(notes).size).toBe(notes.length);
      const away = [...notes.map((midi) => ({ does: 'release' as const, midi })), { does: 'pedal' as const, down: false }];
      expect(soundingNotes(away.reduce<typeof end>(played, end))).toEqual([]);
    }),
  );
});
