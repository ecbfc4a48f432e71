import { midiToHz } from '../music/pitch';
import { additiveTone } from '../sim/tones';
import { convolve, decayingNoise } from '../sim/room';
import { analyseTake } from './analyse';

const RATE = 22050;
const LOW = 50;
const ST_PER_S = 6;
const SECONDS = 4;
/** Where what is done to a slide is done: in the middle. */
const AT = SECONDS / 2;

interface Made {
  /** What is added to the pitch, semitones. */
  bend?: (t: number) => number;
  /** Gain, dB. */
  gainDb?: (t: number) => number;
  /** How much steeper than 1/k the harmonics fall, as a power of their number. */
  steeper?: (t: number) => number;
  inRoom?: boolean;
}

/** Events of a slide of sinusoids up two octaves, six semitones a second, with what is done to it: constructed, with 40 dB of noise. */
function hear({ bend = () => 0, gainDb = () => 0, steeper = () => 0, inRoom = false }: Made) {
  const pcm = additiveTone({
    seconds: SECONDS,
    sampleRate: RATE,
    hz: (t) => midiToHz(LOW + ST_PER_S * t + bend(t)),
    gain: (t) => 10 ** (gainDb(t) / 20),
    amplitude: (k, _, t) => k ** -(1.2 + steeper(t)),
    snrDb: 40,
  });
  if (inRoom) pcm.samples = convolve(pcm.samples, decayingNoise(0.4, 10, RATE));
  // Where a voice ends its echo goes on: that moment is docs/method.md's known weakness, not this test's.
  return analyseTake(pcm, 'siren').findings.events.filter((e) => e.timeS < 0.3 + SECONDS - 0.1);
}

const after = (t: number) => (t < AT ? 0 : 1);
const hole = (deepDb: number) => (t: number) => -deepDb * Math.exp(-0.5 * ((t - AT) / 0.03) ** 2);
const MIDDLE = LOW + ST_PER_S * AT;

test('a leap along the way is a flip at the last pitch before it; under half a semitone it is none', () => {
  for (const by of [1.5, 3, 6]) {
    const [flip, ...more] = hear({ bend: (t) => by * after(t) });
    expect(more).toEqual([]);
    expect(flip).toMatchObject({ kind: 'flip', direction: 'up' });
    expect(Math.abs(flip.timeS - 0.3 - AT)).toBeLessThan(0.03);
    expect(Math.abs(flip.midi - MIDDLE)).toBeLessThan(0.4);
    expect(Math.abs(flip.toMidi - flip.fromMidi - by)).toBeLessThan(0.5);
  }
  expect(hear({ bend: (t) => 0.4 * after(t) })).toEqual([]);
});

test('a leap over a short silence is still one; an octave that was leapt on purpose is none', () => {
  const silent = (t: number) => (Math.abs(t - AT) < 0.04 ? -100 : 0);
  expect(hear({ bend: (t) => 4 * after(t), gainDb: silent }).map((e) => e.kind)).toEqual(['flip']);
  expect(hear({ bend: (t) => 12 * after(t) })).toEqual([]);
});

test('a leap against the way is a crack or nothing, never a flip', () => {
  for (const e of hear({ bend: (t) => -2.5 * after(t) })) expect(e.kind).toBe('crack');
});

test('vibrato, a tremor of half a semitone, and a slide as fast as sirens go, are no changes', () => {
  expect(hear({ bend: (t) => 0.5 * Math.sin(2 * Math.PI * 5.5 * t) })).toEqual([]);
  expect(hear({ bend: (t) => 0.5 * Math.sin(2 * Math.PI * 4.2 * t) })).toEqual([]);
  const fast = additiveTone({ seconds: 1.2, sampleRate: RATE, hz: (t) => midiToHz(48 + 22 * Math.min(1, t)), snrDb: 40 });
  expect(analyseTake(fast, 'siren').findings.events).toEqual([]);
});

test('a hitch (a hole that all harmonics share, with a colour that turns at once) is one event, in a room as well', () => {
  for (const inRoom of [false, true]) {
    const events = hear({ gainDb: hole(4), steeper: (t) => 0.6 * after(t), inRoom });
    expect(events.length).toBe(1);
    if (!inRoom) expect(['dip', 'timbre']).toContain(events[0].kind);
    expect(Math.abs(events[0].timeS - 0.3 - AT)).toBeLessThan(0.1);
    expect(Math.abs(events[0].midi - MIDDLE)).toBeLessThan(0.8);
  }
});

test('a colour that turns little by little is no event, nor is a room of its own', () => {
  expect(hear({ steeper: (t) => 0.6 / (1 + Math.exp(-(t - AT) / 0.25)) })).toEqual([]);
  expect(hear({ inRoom: true })).toEqual([]);
});

test('holes that come again and again tell nothing', () => {
  expect(hear({ gainDb: (t) => -4 * Math.max(0, Math.sin(2 * Math.PI * 3 * t)) ** 8 })).toEqual([]);
});
