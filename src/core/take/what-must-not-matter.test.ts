// How loud a take is, which way round the microphone is wired, at which rate and in how many bits it was stored and what stands
// before it must not change what is found. No truth is needed for that: a take is compared with itself.
import { WaveFile } from 'wavefile';
import { readWav, writeWav } from '../format/wav';
import type { VoiceTypeId } from '../plan/voice-types';
import type { CrossingStyle } from '../sim/profile';
import { gaussian, seededRandom } from '../signal/stats';
import { sing } from '../sim/sing';
import { typicalProfile } from '../sim/typical';
import type { Pcm } from '../voice/types';
import { analyseTake } from './analyse';
import { changesOf } from './changes';

const RATE = 44100;
const LEAST_S = 0.06;
const LEAST_ST = 0.5;
const LEAST_RANGE_ST = 0.3;

const each = (pcm: Pcm, by: (sample: number) => number): Pcm => ({ ...pcm, samples: pcm.samples.map(by) });

/** As quiet as the room the voices stand in. */
function room(seconds: number): Float32Array {
  const normal = gaussian(seededRandom(3));
  return Float32Array.from({ length: Math.round(seconds * RATE) }, () => 4e-4 * normal());
}
const joined = (pcm: Pcm, ...parts: Float32Array[]): Pcm => {
  const samples = new Float32Array(parts.reduce((n, p) => n + p.length, 0));
  let at = 0;
  for (const part of parts) {
    samples.set(part, at);
    at += part.length;
  }
  return { ...pcm, samples };
};

/** Converted by a library of the registry, not by our own resampler. */
function atRate(pcm: Pcm, rate: number): Pcm {
  const file = new WaveFile(writeWav(pcm, 24));
  file.toSampleRate(rate, { method: 'sinc' });
  return readWav(file.toBuffer());
}
function inStereo(pcm: Pcm): Pcm {
  const file = new WaveFile();
  const both = Array.from(pcm.samples, (s) => Math.round(32767 * s));
  file.fromScratch(2, RATE, '16', [both, both]);
  return readWav(file.toBuffer());
}

const SEEDS = [12, 13];
const VOICES: [VoiceTypeId, CrossingStyle][] = [
  ['baritone', 'flip'],
  ['tenor', 'toggle'],
  ['mezzo', 'blend'],
  ['soprano', 'flip'],
];

/** What is done to a take, and by how much later everything is then. */
type Case = [string, (pcm: Pcm) => Pcm, number];
const CASES: Case[] = [
  ['twelve decibels softer', (pcm) => each(pcm, (s) => s / 4), 0],
  ['a little louder', (pcm) => each(pcm, (s) => s * 1.1), 0],
  ['the wires swapped', (pcm) => each(pcm, (s) => -s), 0],
  ['with an offset', (pcm) => each(pcm, (s) => s + 0.01), 0],
  ['after a pause', (pcm) => joined(pcm, room(0.7), pcm.samples), 0.7],
  ['before a pause', (pcm) => joined(pcm, pcm.samples, room(0.7)), 0],
  ['in 16 bits', (pcm) => readWav(writeWav(pcm, 16)), 0],
  ['in stereo', inStereo, 0],
];
/** The library takes its time: one voice only. */
const RATES: Case[] = [48000, 22050].map((rate) => [`at ${rate} Hz`, (pcm) => atRate(pcm, rate), 0]);

describe.each(VOICES.flatMap(([type, style], v) => SEEDS.map((seed) => [type, style, seed, v === 0 && seed === SEEDS[0]] as const)))(
  'a %s’s siren that has a %s (%i)',
  (type, style, seed, rates) => {
    const { pcm } = sing(typicalProfile(type, style), { kind: 'siren', legS: 3 }, { seed, sampleRate: RATE, snrDb: 50 });
    const { findings } = analyseTake(pcm, 'siren');
    const changes = changesOf(findings);

    test.each(rates ? [...CASES, ...RATES] : CASES)('is the same %s', (_, altered, laterS) => {
      const now = analyseTake(altered(pcm), 'siren').findings;
      expect(now.quality.usable).toBe(true);
      expect(changes.length).toBeGreaterThan(0);
      expect(changesOf(now).map((c) => [c.kind, c.direction])).toEqual(changes.map((c) => [c.kind, c.direction]));
      changesOf(now).forEach((c, i) => {
        expect(Math.abs(c.timeS - laterS - changes[i].timeS)).toBeLessThan(LEAST_S);
        expect(Math.abs(c.midi - changes[i].midi)).toBeLessThan(LEAST_ST);
      });
      for (const end of ['lowestMidi', 'highestMidi'] as const)
        expect(Math.abs(now.range![end] - findings.range![end])).toBeLessThan(LEAST_RANGE_ST);
    });
  },
);
