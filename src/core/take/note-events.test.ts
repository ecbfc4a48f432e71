import { midiToHz } from '../music/pitch';
import { sing } from '../sim/sing';
import { additiveTone } from '../sim/tones';
import { typicalProfile } from '../sim/typical';
import { analyseTake } from './analyse';

const FIVE = [0, 2, 4, 5, 7, 5, 4, 2, 0];
const NOTE_S = 0.32;
const KEY_S = 9 * NOTE_S + 0.5;
const TONICS = [57, 58, 59, 60, 61, 62];

/** Five-note scales of sinusoids in six keys; above `change` the harmonics fall more steeply, and each crossing hitches by so much. */
function scales(change: number, steeper: number, hitchDb: number) {
  const at = (t: number) => {
    const key = Math.min(TONICS.length - 1, Math.floor(t / KEY_S));
    const own = t - key * KEY_S;
    const note = Math.min(8, Math.floor(own / NOTE_S));
    return {
      midi: TONICS[key] + FIVE[note],
      before: TONICS[key] + FIVE[Math.max(0, note - 1)],
      into: own - note * NOTE_S,
      rests: own > 9 * NOTE_S,
    };
  };
  return additiveTone({
    seconds: TONICS.length * KEY_S,
    sampleRate: 22050,
    hz: (t) => midiToHz(at(t).midi),
    gain: (t) => {
      const { midi, before, into, rests } = at(t);
      const crossed = midi > change !== before > change;
      return rests ? 0 : crossed ? 10 ** ((-hitchDb * Math.exp(-0.5 * ((into - 0.03) / 0.03) ** 2)) / 20) : 1;
    },
    amplitude: (k, _, t) => k ** -(1.1 + (at(t).midi > change ? steeper : 0)),
    snrDb: 40,
  });
}

test('a change between two notes is heard in every key that steps over it, both ways, at the note before', () => {
  const { events, notes } = analyseTake(scales(64.5, 0.6, 4), 'scale').findings;
  const crossing = TONICS.filter((tonic) => FIVE.some((n) => tonic + n > 64.5) && tonic < 64.5).length;
  expect(events.filter((e) => e.direction === 'up').length).toBe(crossing);
  expect(events.filter((e) => e.direction === 'down').length).toBe(crossing);
  for (const e of events) {
    expect(Math.abs(e.midi - 64.5)).toBeLessThan(2.6);
    expect(e.direction === 'up' ? e.midi < 64.5 : e.midi > 64.5).toBe(true);
    expect(notes[e.note!].midi > 64.5).toBe(e.direction === 'up');
  }
});

test('a scale without a change has none, in one key or in six', () => {
  expect(analyseTake(scales(200, 0, 0), 'scale').findings.events).toEqual([]);
});

test('the simulated singer’s flips and toggles are heard in scales', () => {
  for (const style of ['flip', 'toggle'] as const) {
    const profile = typicalProfile('tenor', style);
    const place = Math.round(profile.crossings[0].upMidi);
    const tonics = [-8, -7, -6, -5, -4, -3, -2].map((d) => place + d);
    const { pcm, truth } = sing(profile, { kind: 'pattern', degrees: [1, 2, 3, 4, 5, 4, 3, 2, 1], tonics }, { seed: 5, sampleRate: 22050 });
    const { events } = analyseTake(pcm, 'scale').findings;
    const near = (t: number) => events.some((e) => Math.abs(e.timeS - t) < 0.15);
    expect(truth.events.length).toBeGreaterThan(5);
    expect(truth.events.filter((t) => near(t.timeS)).length / truth.events.length).toBeGreaterThanOrEqual(0.8);
    expect(events.filter((e) => !truth.events.some((t) => Math.abs(e.timeS - t.timeS) < 0.15)).length).toBeLessThanOrEqual(2);
  }
});
