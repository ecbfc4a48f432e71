import { inEnglish } from '../format/say';
import { drawRoom, heardIn } from '../sim/room';
import { sing } from '../sim/sing';
import { additiveTone } from '../sim/tones';
import { typicalProfile } from '../sim/typical';
import type { Pcm } from '../voice/types';
import { analyseTake } from './analyse';
import type { Task } from './types';

const RATE = 22050;
const LIVING_ROOM = drawRoom(9, 12);
const tone = (seconds: number, hz: (t: number) => number, pure = false): Pcm =>
  additiveTone({ seconds, sampleRate: RATE, hz, amplitude: (k) => (pure ? Number(k === 1) : 1 / k), snrDb: 45 });
const heard = (pcm: Pcm, task: Task) => analyseTake(heardIn(LIVING_ROOM, pcm), task).findings;

const drone = tone(6, () => 196);
const beeps: Pcm = { sampleRate: RATE, samples: new Float32Array(4 * RATE) };
for (let i = 0; i < beeps.samples.length; i++)
  if (i % (RATE / 2) < RATE / 10) beeps.samples[i] = 0.3 * Math.sin((2 * Math.PI * 1000 * i) / RATE);
const whistle = tone(5, (t) => 900 * 2 ** (1.2 * Math.sin(0.6 * t)), true);

test.each<[string, Pcm, RegExp]>([
  ['a drone', drone, /one pitch.*metronome/],
  ['a metronome’s beeps', beeps, /pure tones|one pitch/],
  ['a whistle', whistle, /pure tones.*whistle/],
])('%s in a room is said to be what it is, and nothing is made of it', (_, pcm, words) => {
  for (const task of ['siren', 'scale', 'free'] as const) {
    const { quality, notes, events, range } = heard(pcm, task);
    expect(quality.usable).toBe(false);
    expect(quality.reasons.map(inEnglish).join(' ')).toMatch(words);
    expect({ notes, events, range }).toEqual({ notes: [], events: [], range: null });
  }
});

test('a note that was asked for may be held very still; a high voice on “oo” is no whistle', () => {
  expect(heard(drone, 'sustain').quality.usable).toBe(true);
  const { pcm } = sing(
    typicalProfile('soprano', 'flip'),
    { kind: 'siren', bottomMidi: 74, topMidi: 84 },
    { seed: 8, vowel: 'oo', sampleRate: RATE },
  );
  expect(heard(pcm, 'siren').quality.usable).toBe(true);
});
