import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PitchDetector } from 'pitchy';
import { writeWav } from '../format/wav';
import { centsBetween } from '../music/pitch';
import { gaussian, seededRandom } from '../signal/stats';
import { additiveTone, ToneOptions } from '../sim/tones';
import { createLiveTracker } from './live';
import { createTracker, trackVoice } from './track';
import { HOP_S, Pcm, VoiceTrack } from './types';

const REST_S = 0.3;

/** Errors in cents of all voiced frames inside the tone, and how much of it was voiced. */
function against(track: VoiceTrack, hz: (t: number) => number, seconds: number) {
  const cents: number[] = [];
  let inside = 0;
  for (let i = 0; i < track.frames; i++) {
    const t = i * HOP_S - REST_S;
    if (t < 0.05 || t > seconds - 0.05) continue;
    inside++;
    if (track.f0[i] > 0) cents.push(centsBetween(hz(t), track.f0[i]));
  }
  const sorted = cents.map(Math.abs).sort((a, b) => a - b);
  return {
    voiced: cents.length / inside,
    median: sorted[sorted.length >> 1],
    within: (limit: number) => sorted.filter((c) => c <= limit).length / sorted.length,
  };
}

const tone = (options: Partial<ToneOptions> & { hz: (t: number) => number }) => additiveTone({ seconds: 1, ...options });

test.each([56, 82.41, 130, 261.63, 440, 880, 1567.98, 2050])('a steady %f Hz is right to a cent', (hz) => {
  const { voiced, median } = against(trackVoice(tone({ hz: () => hz })), () => hz, 1);
  expect(voiced).toBeGreaterThan(0.99);
  expect(median).toBeLessThan(1);
});

test.each<[string, Partial<ToneOptions> & { hz: (t: number) => number }]>([
  ['a weak fundamental', { hz: () => 196, amplitude: (k) => (k === 1 ? 0.01 : 1 / k) }],
  ['no fundamental at all', { hz: () => 147, amplitude: (k) => (k === 1 ? 0 : k < 9 ? 1 : 0) }],
  [
    'a second harmonic on the first formant',
    { hz: () => 392, amplitude: (k, f) => Math.exp(-0.5 * ((k * f - 784) / 120) ** 2) + 0.08 / k },
  ],
  ['20 dB of noise', { hz: () => 330, snrDb: 20 }],
  ['a glide of two octaves a second', { hz: (t) => 110 * 2 ** (2 * t) }],
  ['wide, fast vibrato', { hz: (t) => 440 * 2 ** ((0.8 / 12) * Math.sin(2 * Math.PI * 6 * t)) }],
  ['8 kHz sound', { hz: () => 220, sampleRate: 8000 }],
])('%s: within 50 cents in 99 frames of 100, no octave errors', (_, options) => {
  const { voiced, within } = against(trackVoice(tone(options)), options.hz, 1);
  expect(voiced).toBeGreaterThan(0.97);
  expect(within(50)).toBeGreaterThan(0.99);
  expect(within(600)).toBe(1);
});

test('a voice that goes on 14 dB softer after a leap, a little softer by and by, is no decay of a room', () => {
  const gain = (t: number) => (t < 0.6 ? 1 : 10 ** ((-14 - 2 * (t - 0.6)) / 20));
  const { f0 } = trackVoice(tone({ hz: (t) => (t < 0.6 ? 330 : 494), seconds: 2.4, gain, snrDb: 60 }));
  expect(f0.subarray((REST_S + 0.75) / HOP_S, (REST_S + 2.3) / HOP_S).every((hz) => Math.abs(centsBetween(494, hz)) < 50)).toBe(true);
});

/** Pulses that alternate by `share`: the spectrum of every second one with its odd harmonics that much under the even ones. */
const alternating = (share: number) =>
  tone({ hz: () => 110, amplitude: (k) => (k % 2 === 0 ? 1 : share) / k ** 1.2, seconds: 1, snrDb: 40 });

// Bergan & Titze 2001 (from memory): a voice is rough first, and an octave lower only when its pulses differ much.
test.each([
  [0.15, 220],
  [0.3, 220],
  [0.8, 110],
])('of pulses that alternate by %f the pitch is %f Hz', (share, hz) => {
  const { voiced, within } = against(trackVoice(alternating(share)), () => hz, 1);
  expect(voiced).toBeGreaterThan(0.97);
  expect(within(50)).toBeGreaterThan(0.99);
});

test('a G♯6 with little of its first harmonic is not heard an octave low', () => {
  const db = [-37, -15, -27, -39];
  const hz = () => 1661;
  const { voiced, within } = against(
    trackVoice(tone({ hz, amplitude: (k) => 10 ** ((db[k - 1] ?? -90) / 20), seconds: 1, snrDb: 60 })),
    hz,
    1,
  );
  expect(voiced).toBeGreaterThan(0.97);
  expect(within(50)).toBeGreaterThan(0.99);
});

// Vowels of the simulated singer at D4 (FORMANTS), the levels of their harmonics as they were measured.
test.each([
  ['an “eh” whose formants fall on the second, eighth and tenth harmonic', [-24, -12, -35, -45, -48, -50, -45, -32, -46, -42, -55, -60]],
  [
    'an “ee” whose upper formants fall on the tenth, twelfth and fourteenth',
    [-24, -43, -58, -70, -75, -80, -75, -64, -58, -41, -46, -40, -47, -46, -56, -60, -58, -57, -62, -62],
  ],
])('%s is not heard an octave up', (_, db) => {
  const { voiced, within } = against(
    trackVoice(tone({ hz: () => 293.7, amplitude: (k) => 10 ** ((db[k - 1] ?? -90) / 20), seconds: 1, snrDb: 60 })),
    () => 293.7,
    1,
  );
  expect(voiced).toBeGreaterThan(0.97);
  expect(within(50)).toBeGreaterThan(0.99);
});

test('a decay in which the pitch is lost for a moment is no second note; a soft new start is', () => {
  const after = (gain: (t: number) => number) => {
    const pcm = tone({ hz: () => 220, seconds: 1.2, restS: 0, gain: (t) => (t < 0.8 ? 1 : gain(t - 0.8)), snrDb: 70 });
    const normal = gaussian(seededRandom(4));
    const at = (t: number) => Math.round(t * pcm.sampleRate);
    const loud = Math.sqrt(pcm.samples.subarray(at(0.2), at(0.6)).reduce((s, x) => s + x * x, 0) / (at(0.6) - at(0.2)));
    for (let i = at(0.85); i < at(0.91); i++) pcm.samples[i] = loud * gain(i / pcm.sampleRate - 0.8) * normal();
    return trackVoice(pcm)
      .f0.subarray(0.91 / HOP_S)
      .filter((hz) => hz > 0).length;
  };
  const decay = (t: number) => 10 ** (-6 * t);
  expect(after(decay)).toBe(0);
  expect(after((t) => (t < 0.11 ? decay(t) : 0.2 * Math.min(1, (t - 0.11) / 0.06)))).toBeGreaterThan(20);
});

test('frames are centred where they say: a step and a start come out in time', () => {
  const step = tone({ hz: (t) => (t < 0.5 ? 300 : 400), amplitude: (k) => (k < 6 ? 1 : 0) });
  const track = trackVoice(step);
  const crossed = track.f0.findIndex((hz) => hz > 346) * HOP_S - REST_S;
  expect(Math.abs(crossed - 0.5)).toBeLessThan(0.012);
  const begins = track.f0.findIndex((hz) => hz > 0) * HOP_S - REST_S;
  expect(Math.abs(begins)).toBeLessThan(0.03);
});

test('neither silence, noise, hum of the mains under the range, nor an offset is a voice', () => {
  const noise = tone({ hz: () => 200, amplitude: () => 1e-6, snrDb: -60 });
  const offset: Pcm = { samples: new Float32Array(44100).fill(0.3), sampleRate: 44100 };
  for (const pcm of [{ samples: new Float32Array(44100), sampleRate: 44100 }, offset, noise]) {
    const track = trackVoice(pcm);
    expect(track.f0.filter((hz) => hz > 0).length / track.frames).toBeLessThan(0.02);
  }
});

test('hum is no voice from the first moment, and a glide through its lines keeps pitch and level', () => {
  const glide = tone({ seconds: 2, hz: (t) => 90 * 2 ** (t / 1.2), amplitude: (k) => (k < 8 ? 1 / k : 0), snrDb: 60 });
  const rms = Math.sqrt(glide.samples.reduce((s, v) => s + v * v, 0) / glide.samples.length);
  const hum = (i: number) => [1, 2, 3, 4].reduce((s, k) => s + Math.sin((2 * Math.PI * 60 * k * i) / glide.sampleRate + k) / k, 0);
  const samples = glide.samples.map((v, i) => v + 0.04 * rms * hum(i));
  const [clean, humming] = [glide, { ...glide, samples }].map(trackVoice);
  let differ = 0;
  for (let i = 0; i < clean.frames; i++) {
    if (Math.abs(centsBetween(clean.f0[i] || 1, humming.f0[i] || 1)) > 50) differ++;
    else if (clean.f0[i] > 0) expect(Math.abs(clean.levelDb[i] - humming.levelDb[i])).toBeLessThan(1.5);
  }
  expect(differ).toBeLessThan(5);
});

test('rates and lengths that make no sense are refused in plain words', () => {
  expect(() => trackVoice({ samples: new Float32Array(100), sampleRate: 4000 })).toThrow(/8000 to 192000/);
  expect(() => trackVoice({ samples: new Float32Array(10), sampleRate: 44100 })).toThrow(/shorter than/);
});

test.each([44100, 16000])('at %i Hz, blocks of any size give the same bytes as the whole, hum or not', (sampleRate) => {
  const clean = tone({ seconds: 2, sampleRate, hz: (t) => 180 * 2 ** t, snrDb: 50, amplitude: (k) => (k < 9 ? 2 / k : 0) });
  const humming = clean.samples.map((x, i) => x + 0.03 * Math.sin((2 * Math.PI * 50 * i) / sampleRate));
  for (const samples of [clean.samples, humming]) {
    const tracker = createTracker(sampleRate);
    for (let at = 0, size = 1; at < samples.length; at += size, size = (size * 7 + 300) % 5000)
      tracker.push(samples.subarray(at, at + size));
    expect(tracker.finish()).toEqual(trackVoice({ samples, sampleRate }));
  }
});

test('the live view hears the same within 50 ms', () => {
  const hz = (t: number) => 150 * 2 ** (t / 2);
  const pcm = tone({ seconds: 3, hz });
  const live = createLiveTracker(pcm.sampleRate);
  const whole = trackVoice(pcm);
  let worstDelay = 0;
  let agree = 0;
  let both = 0;
  for (let at = 0; at < pcm.samples.length; at += 512) {
    const frames = live.push(pcm.samples.slice(at, at + 512));
    const now = (at + 512) / pcm.sampleRate;
    for (const frame of frames) {
      const i = Math.round(frame.timeS / HOP_S);
      if (frame.hz === 0 || whole.f0[i] === 0) continue;
      both++;
      if (Math.abs(centsBetween(whole.f0[i], frame.hz)) < 20) agree++;
    }
    // A block ends at any time: what is due by now less 50 ms must be out.
    if (frames.length) worstDelay = Math.max(worstDelay, now - 512 / pcm.sampleRate - frames[frames.length - 1].timeS);
  }
  expect(both).toBeGreaterThan(500);
  expect(agree / both).toBeGreaterThan(0.99);
  expect(worstDelay).toBeLessThan(0.05);
});

describe('beside other trackers, on a vowel-like glide', () => {
  const hz = (t: number) => 140 * 2 ** (t / 3);
  const vowel = (k: number, f: number) => 1 / k / (1 + ((k * f - 700) / 250) ** 2) + 0.05 / k;
  const pcm = tone({ seconds: 3, hz, amplitude: vowel });
  const ours = trackVoice(pcm);

  test('pitchy (McLeod method) agrees to a few cents where it is sure', () => {
    const detector = PitchDetector.forFloat32Array(2048);
    const differences: number[] = [];
    for (let i = 60; i < 600; i += 3) {
      const centre = Math.round(i * HOP_S * pcm.sampleRate);
      const [theirs, clarity] = detector.findPitch(pcm.samples.slice(centre - 1024, centre + 1024), pcm.sampleRate);
      if (clarity > 0.95 && ours.f0[i] > 0) differences.push(Math.abs(centsBetween(theirs, ours.f0[i])));
    }
    differences.sort((a, b) => a - b);
    expect(differences.length).toBeGreaterThan(100);
    expect(differences[differences.length >> 1]).toBeLessThan(8);
  });

  (existsSync('/usr/bin/aubiopitch') ? test : test.skip)('aubio (yinfft) agrees within a quarter tone', () => {
    const path = join(mkdtempSync(join(tmpdir(), 'wendel-aubio-')), 'glide.wav');
    writeFileSync(path, writeWav(pcm, 16));
    const lines = execFileSync('aubiopitch', ['-i', path, '-p', 'yinfft', '-H', '256', '-B', '2048'], { encoding: 'utf8' })
      .trim()
      .split('\n');
    const differences = lines
      .map((line) => line.split(/\s+/).map(Number))
      .filter(([t, f]) => t > 0.6 && t < 3 && f > 0)
      // Its frame is stamped at the window's end.
      .map(([t, f]) => Math.abs(centsBetween(hz(t - REST_S - 1024 / pcm.sampleRate), f)));
    const own = against(ours, hz, 3);
    differences.sort((a, b) => a - b);
    expect(differences[differences.length >> 1]).toBeLessThan(50);
    expect(own.median).toBeLessThan(differences[differences.length >> 1]);
  });
});

test.each([
  [65, 0.06, false],
  [65, 0.3, true],
  [400, 0.06, true],
])('%i Hz for %f s: fewer than five periods are no pitch', (hz, seconds, sung) => {
  const { f0 } = trackVoice(additiveTone({ seconds, sampleRate: 16000, hz: () => hz, restS: 0.4, snrDb: 50 }));
  expect(f0.some((f) => f > 0)).toBe(sung);
});
