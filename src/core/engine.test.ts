import { createHash } from 'node:crypto';
import { ENGINE, POOLING } from './engine';
import { blendVotes } from './map/blends';
import { ceilingOf } from './map/ceiling';
import { Made, madeSlide } from './map/made-slide';
import { mapVoice } from './map/pool';
import type { Passaggio, TakeEvidence } from './map/types';
import { mainChange, sungDays } from './practice/measures';
import { midiToHz } from './music/pitch';
import { decayingNoise, convolve } from './sim/room';
import { additiveTone } from './sim/tones';
import { analyseTake } from './take/analyse';
import type { Pcm } from './voice/types';

/**
 * What each engine makes of the takes below, and what is pooled of blended slides. Stored findings are read again only where `ENGINE`
 * differs, maps only where `POOLING` does: whoever changes a result raises it, and puts the new digest here.
 */
const DIGESTS: Record<string, string> = {
  'wendel-12': '197096c34f906f8a',
  'wendel-12/5': 'b9a4a253cb018755',
  'wendel-12/5, by day': '9e4c38493262ada7',
};

const RATE = 16000;
const inRoom = (pcm: Pcm): Pcm => ({ ...pcm, samples: convolve(pcm.samples, decayingNoise(0.4, 12, RATE)) });

/** A slide over two octaves and back that leaps by three semitones near its middle and darkens there, in a room. */
const slide = (): Pcm => {
  const midi = (t: number) => (t < 3 ? 48 + 7 * t : 69 - 7 * (t - 3));
  const above = (t: number) => t > 1.6 && t < 4.3;
  return inRoom(
    additiveTone({
      seconds: 6,
      sampleRate: RATE,
      hz: (t) => midiToHz(midi(t) + (above(t) ? 3 : 0)),
      amplitude: (k, _, t) => k ** (above(t) ? -1.8 : -1.2),
      snrDb: 40,
    }),
  );
};

/** The same way up and back, with a hitch and a darker colour instead of a leap, and so much noise that few harmonics stand out of it. */
const toggling = (): Pcm => {
  const hitch = (t: number, at: number) => 4 * Math.exp(-0.5 * ((t - at) / 0.025) ** 2);
  return inRoom(
    additiveTone({
      seconds: 6,
      sampleRate: RATE,
      hz: (t) => midiToHz(t < 3 ? 48 + 7 * t : 69 - 7 * (t - 3)),
      gain: (t) => 10 ** (-(hitch(t, 1.6) + hitch(t, 4.3)) / 20),
      amplitude: (k, _, t) => k ** (t > 1.6 && t < 4.3 ? -3 : -2.2),
      snrDb: 25,
    }),
  );
};

/** Five notes up and down in three keys, steps joined, with vibrato and a breath between. */
const scale = (): Pcm =>
  inRoom(
    additiveTone({
      seconds: 9.6,
      sampleRate: RATE,
      hz: (t) =>
        midiToHz(
          0.3 * Math.sin(2 * Math.PI * 5.5 * t) +
            52 +
            2 * Math.floor(t / 3.2) +
            [0, 2, 4, 5, 7, 5, 4, 2, 0, 0, 0][Math.floor((t % 3.2) / 0.3)],
        ),
      gain: (t) => (t % 3.2 > 2.7 ? 1e-6 : 1),
      snrDb: 40,
    }),
  );

/** A held note of pulses that alternate, as a rough voice's do, and a string that is struck before it. */
const rough = (): Pcm =>
  inRoom(
    additiveTone({
      seconds: 4,
      sampleRate: RATE,
      hz: (t) => (t < 1.5 ? 523.25 : midiToHz(38)),
      amplitude: (k, _, t) => (t < 1.5 ? k ** -2 * 10 ** (-k * (t / 4)) : (k % 2 === 0 ? 1 : 0.2) * k ** -1.2),
      gain: (t) => (t > 1.4 && t < 1.6 ? 1e-6 : 1),
      snrDb: 45,
    }),
  );

test('the same takes give the same findings and the same map, unless the engine is raised', () => {
  const takes = [
    analyseTake(slide(), 'siren'),
    analyseTake(scale(), 'scale', { asked: { degrees: [1, 2, 3, 4, 5, 4, 3, 2, 1], tonicMidi: 52 } }),
    analyseTake(slide(), 'free'),
    analyseTake(rough(), 'sustain'),
    analyseTake(toggling(), 'siren'),
  ];
  const findings = takes.map((t) => ({ ...t.findings, engine: '' }));
  // What the digest stands for must be something: a leap each way, three keys, a hitch each way.
  expect(findings[0].events.map((e) => e.kind)).toEqual(['flip', 'flip']);
  expect(findings[1].pattern?.keys).toHaveLength(3);
  expect(findings[3].notes.map((n) => Math.round(n.midi))).toEqual([50]);
  expect(findings[4].events.map((e) => e.kind)).toEqual(['dip', 'dip']);
  const map = mapVoice(findings.map((f, i) => ({ takeId: String(i), findings: f, marks: [] })));
  expect({ [ENGINE]: digestOf([findings, { ...map, engine: '' }]) }).toEqual({ [ENGINE]: DIGESTS[ENGINE] });
  // What the days measured is kept beside the map.
  const days = sungDays(
    findings.map((f, i) => ({ takeId: String(i), findings: f, marks: [], day: '2026-01-01' })),
    mainChange(map)!.midi,
  );
  expect(Object.keys(days.measured[0].values)).toEqual(expect.arrayContaining(['high', 'leap', 'off']));
  expect({ [POOLING]: digestOf(days) }).toEqual({ [POOLING]: DIGESTS[`${POOLING}, by day`] });
});

/** The same slide up ever louder, flipping the lower the louder it is, and softer where it flips. */
const slidesUnderCeiling = () =>
  [60, 63, 66, 69, 72].map((loud, k) => {
    const flipsAt = 66 - k;
    const levels = Array.from({ length: 16 }, (_, i) => ({ midi: 52 + i, db: loud + 0.5 * i - (52 + i === flipsAt ? 2 : 0) }));
    const event = { kind: 'flip', timeS: 1, midi: flipsAt, direction: 'up', leapSt: 3, widthSt: 0, confidence: 1 };
    const leg = { direction: 'up', startS: 0, endS: 2, lowestMidi: 52, highestMidi: 67, levels, crossOvers: [] };
    return {
      takeId: String(k),
      together: 'one',
      marks: [],
      findings: { task: 'siren', quality: { usable: true }, legs: [leg], events: [event] },
    };
  });

/** Slides on three vowels, as takes: constructed, only what pooling looks at. */
const slidesThat = (made: Made) =>
  (['ah', 'oh', 'eh'] as const).map((vowel, i) => ({
    takeId: String(i),
    marks: [],
    findings: { legs: madeSlide({ vowel, seed: i, ...made }), vowelTurnMidi: 58 + i },
  })) as unknown as TakeEvidence[];

test('the same slides give the same blends and the same ceiling, unless pooling is raised', () => {
  const blend = { noiseDb: -30, rise: { upMidi: 62.5, downMidi: 61.5, widthSt: 5 } };
  const votes = blendVotes(slidesThat(blend), [], new Map());
  expect(votes).toHaveLength(6);
  const second = { midi: 78, upMidi: 78.5, downMidi: 77.5 } as Passaggio;
  const first = blendVotes(slidesThat({ low: 55, rise: { upMidi: 65.5, downMidi: 64.5, widthSt: 4 } }), [second], new Map());
  expect(first).toHaveLength(6);
  const ceiling = ceilingOf(slidesUnderCeiling() as unknown as TakeEvidence[])!;
  expect(ceiling.notes.map((n) => n.midi)).toEqual([62, 63, 64, 65, 66]);
  expect({ [POOLING]: digestOf([votes, first, ceiling.notes]) }).toEqual({ [POOLING]: DIGESTS[POOLING] });
});

const digestOf = (told: unknown): string =>
  createHash('sha256')
    .update(JSON.stringify(told, (_, v: unknown) => (typeof v === 'number' ? Math.round(v * 1000) / 1000 : v)))
    .digest('hex')
    .slice(0, 16);
