import { midiToHz } from '../music/pitch';
import { additiveTone } from '../sim/tones';
import { convolve, decayingNoise } from '../sim/room';
import { HOP_S } from '../voice/types';
import { analyseTake } from './analyse';
import { sirenEvents } from './events';
import type { Source } from './source';
import type { Leg } from './types';

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

test('a slide that is heard a little way back for a moment, and goes on where it would have been, has not leapt', () => {
  // What a room holds of the pitches before drowns a voice where the room takes its own pitch away.
  for (const [back, s] of [
    [1.3, 0.05],
    [1.6, 0.08],
    [2, 0.1],
  ])
    expect(hear({ bend: (t) => (t > AT - s && t < AT ? -back : 0) }).filter((e) => e.kind === 'flip' || e.kind === 'crack')).toEqual([]);
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

describe('what other legs and other moments say', () => {
  const FRAMES = 800;
  const still = new Float32Array(FRAMES).fill(-20);
  /** No colour but a hole of so many dB around some frames. */
  const source = (holes: number[], deepDb: number): Source => {
    const stepAt = (frame: number) => ({
      slope: 0,
      noiseDb: 0,
      levelDb: 0,
      dipDb: holes.reduce((s, at) => s + deepDb * Math.exp(-0.5 * ((frame - at) / 8) ** 2), 0),
    });
    return { stepAt, briefStepAt: stepAt };
  };
  const leg = (direction: 'up' | 'down', from: number, to: number): Leg => ({
    startS: from * HOP_S,
    endS: to * HOP_S,
    direction,
    lowestMidi: 50,
    highestMidi: 74,
    crossOvers: [],
  });
  /** Up and down, with a wavering of a few cents, and a leap up at a frame if asked. */
  const contour = (leapAt: number | null) =>
    Float64Array.from({ length: FRAMES }, (_, i) => {
      const way = i < 400 ? i : 800 - i;
      return 50 + 0.055 * way + 0.02 * Math.sin(i) + (leapAt !== null && i >= leapAt && i < 400 ? 3 : 0);
    });

  test('a leap to and fro is a tracker that can’t tell the voice from its echo', () => {
    const leaping = contour(200);
    const slipping = leaping.map((m, i) => (i > 160 && i < 240 && Math.floor(i / 10) % 2 ? m - 3 : m));
    const events = (of: Float64Array) => sirenEvents(of, still, source([], 0), [leg('up', 0, 400), leg('down', 400, 800)], Infinity);
    expect(events(leaping).map((e) => e.kind)).toEqual(['flip']);
    expect(events(slipping)).toEqual([]);
  });

  test('colour alone is a change where the whole series falls toward head, not where a formant’s passing lifts some harmonics and lowers others', () => {
    const kinds = (levelDb: number) => {
      const stepAt = (frame: number) => {
        const near = Math.exp(-0.5 * ((frame - 200) / 8) ** 2);
        return { slope: 7 * near, levelDb: levelDb * near, noiseDb: 0, dipDb: 1.2 * near };
      };
      const legs = [leg('up', 0, 400), leg('down', 400, 800)];
      return sirenEvents(contour(null), still, { stepAt, briefStepAt: stepAt }, legs, Infinity).map((e) => e.kind);
    };
    expect(kinds(-6)).toEqual(['timbre']);
    expect(kinds(-1.5)).toEqual([]);
  });

  test('a hitch too slight to be heard alone is heard where the other leg’s change would come again', () => {
    // The leg down passes the leap's place at frame 600; the change comes a semitone lower.
    const kinds = (leapAt: number | null) =>
      sirenEvents(contour(leapAt), still, source([625], 2.9), [leg('up', 0, 400), leg('down', 400, 800)], Infinity);
    const down = (leapAt: number | null) => kinds(leapAt).filter((e) => e.direction === 'down');
    expect(down(null)).toHaveLength(0);
    expect(down(200)).toHaveLength(1);
  });
});
