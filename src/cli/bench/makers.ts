import { hzToMidi, midiToHz } from '../../core/music/pitch';
import { VOICE_TYPES } from '../../core/plan/voice-types';
import { CrossingStyle, SingerProfile } from '../../core/sim/profile';
import { CONTROL_S, perform, SimTask } from '../../core/sim/score';
import { sing } from '../../core/sim/sing';
import { additiveTone } from '../../core/sim/tones';
import { FORMANTS, Vowel } from '../../core/sim/tract';
import { typicalProfile } from '../../core/sim/typical';
import { gaussian, seededRandom } from '../../core/signal/stats';
import { Pcm } from '../../core/voice/types';

export const RATE = 22050;
/** What a maker leaves of its own noise: the recording has more (recording.ts). */
const CLEAN_DB = 70;
const VOWELS: Vowel[] = ['ah', 'ah', 'oh', 'eh'];

/** A singer to be heard: where the voice changes (null: nowhere) and how, and sirens with what is true of each. */
export interface Drawn {
  style: CrossingStyle | 'plain';
  changeMidi: number | null;
  siren(take: number): Siren;
}

interface Siren {
  pcm: Pcm;
  events: { timeS: number }[];
  lowestMidi: number;
  highestMidi: number;
}

export type Draw = (seed: number) => Drawn;

export const picker =
  (random: () => number) =>
  <T>(from: readonly T[]) =>
    from[Math.floor(random() * from.length)];

/** Any voice type, change, style, hysteresis, width, breath and scatter, sung by the simulated singer. */
export const lfSinger: Draw = (seed) => {
  const random = seededRandom(seed);
  const pick = picker(random);
  const style = pick(['flip', 'toggle', 'blend'] as const);
  const base = typicalProfile(pick(VOICE_TYPES).id, style);
  const up = base.crossings[0].upMidi + 5 * random() - 2.5;
  const vowel = pick(VOWELS);
  const breathiness = 0.4 * random();
  const scatterSt = 0.2 + 0.4 * random();
  const down = up - 3 * random();
  const crossing = { ...base.crossings[0], upMidi: up, downMidi: down, leapSt: 2 + 3 * random(), widthSt: 4 + 5 * random() };
  const profile = { ...base, breathiness, scatterSt, crossings: [crossing] };
  return {
    style,
    changeMidi: (up + down) / 2,
    siren(take) {
      const { pcm, truth } = sing(profile, { kind: 'siren' }, { seed: 10 * seed + take, vowel, snrDb: CLEAN_DB, sampleRate: RATE });
      return { pcm, ...truth };
    },
  };
};

/** A voice of the other makers: a slide up and back over its range, with one change or (one in five) none. */
interface Slide {
  style: 'flip' | 'toggle' | 'blend' | 'plain';
  low: number;
  high: number;
  /** Loudness from bottom to top, dB. */
  rise: number;
  tract: 'man' | 'woman';
  vowel: Vowel;
  formants: number[];
  changeMidi: number | null;
  take(number: number): SlideTake;
}

interface SlideTake {
  legS: number;
  pitch(t: number): number;
  /** Share of head at a pitch going that way. */
  head(midi: number, t: number): number;
  /** A toggle's hitch, dB. */
  hitch(t: number): number;
  events: { timeS: number }[];
}

/** So far a slide goes on over a flip. */
const ABOVE_ST = 3;

export const REST_S = 0.3;
/** A toggle's hitch lasts about so long, each way. */
const HITCH_S = 0.025;

export function drawSlide(random: () => number, seed: number): Slide {
  const pick = picker(random);
  const style = pick(['flip', 'toggle', 'blend', 'blend', 'plain'] as const);
  const type = pick(VOICE_TYPES);
  const up = (type.tract === 'man' ? 61 : 68) + 4 * random() - 2;
  const down = up - 3 * random();
  const width = style === 'blend' ? 4 + 5 * random() : 0.3;
  const leap = style === 'flip' ? 2 + 3 * random() : 0;
  const hitchDb = style === 'toggle' ? 2 + 2 * random() : 0;
  const vowel = pick(VOWELS);
  const formants = FORMANTS[type.tract][vowel].map((hz) => hz * (0.92 + 0.16 * random()));
  const { low, tract } = type;
  // A flip needs room above it, or it falls where the slide turns.
  const high = Math.max(type.high, Math.ceil(up + leap + ABOVE_ST));
  return {
    style,
    low,
    high,
    rise: 4 + 10 * random(),
    tract,
    vowel,
    formants,
    changeMidi: style === 'plain' ? null : (up + down) / 2,
    take(number) {
      const day = seededRandom(100 * seed + number);
      const legS = 2.5 + day();
      const places = [up, down].map((m) => m + 0.8 * (day() - 0.5));
      const rate = (high - low - leap) / legS;
      const times = [(places[0] - low) / rate, legS + (high - places[1]) / rate];
      return {
        legS,
        // Up, leaping at the last pitch before the change by what then is missing of the way; down likewise.
        pitch: (t) => (t < legS ? low + rate * t + (t > times[0] ? leap : 0) : high - rate * (t - legS) - (t > times[1] ? leap : 0)),
        head: (m, t) => (style === 'plain' ? 0 : 1 / (1 + Math.exp((-4.394 * (m - places[t < legS ? 0 : 1])) / width))),
        hitch: (t) => -hitchDb * times.reduce((s, at) => s + Math.exp(-0.5 * ((t - at) / HITCH_S) ** 2), 0),
        events: style === 'flip' || style === 'toggle' ? times.map((at) => ({ timeS: REST_S + at })) : [],
      };
    },
  };
}

const loudnessDb = ({ rise, low, high }: Slide, midi: number, hitchDb: number) => (rise * (midi - high)) / (high - low) + hitchDb;
/** What a voice does at a moment; `db` under its loudest. Null where it is silent. */
export type Moment = { midi: number; db: number; head: number } | null;

/** The moments of a slide with a rest before it. */
export const slideMoments =
  (slide: Slide, take: SlideTake) =>
  (at: number): Moment => {
    const t = at - REST_S;
    if (t < 0 || t > 2 * take.legS) return null;
    const midi = take.pitch(t);
    return { midi, db: loudnessDb(slide, midi, take.hitch(t)), head: take.head(midi, t) };
  };

/** The moments of what the simulated singer does. */
function momentsOf({ midi, gain, head }: ReturnType<typeof perform>): (t: number) => Moment {
  const loudest = gain.reduce((a, b) => Math.max(a, b), 0);
  return (t) => {
    const c = Math.min(midi.length - 1, Math.round(t / CONTROL_S));
    return gain[c] > 0 ? { midi: midi[c], db: 20 * Math.log10(gain[c] / loudest), head: head[c] } : null;
  };
}

/** By what a performance is drawn; who sings it is drawn by `voiceSeed`, or, without, anew for each performance. */
export interface Performed {
  seed: number;
  vowel: Vowel;
  voiceSeed?: number;
}

/** What the simulated singer would do, drawn, with what is left to draw its voice by. */
export function performed(profile: SingerProfile, task: SimTask, { seed, voiceSeed }: Performed) {
  const random = seededRandom(seed);
  const sung = perform(profile, task, random);
  return {
    seconds: sung.midi.length * CONTROL_S,
    moments: momentsOf(sung),
    ofVoice: voiceSeed === undefined ? random : seededRandom(voiceSeed),
  };
}

const loudness = (slide: Slide, midi: number, hitchDb: number) => 10 ** (loudnessDb(slide, midi, hitchDb) / 20);

/**
 * Sinusoids added up, sharing nothing with the simulated singer but formant frequencies: harmonics fall by a power of their number
 * that grows with head, the first is raised by it, and resonances are plain two-pole magnitudes.
 */
export const plainSinger: Draw = (seed) => {
  const random = seededRandom(seed);
  const slide = drawSlide(random, seed);
  const [tilt, slope, first] = [0.9 + 0.5 * random(), 0.5 + 0.6 * random(), 2 + 5 * random()];
  return {
    ...slide,
    siren(number) {
      const take = slide.take(number);
      const pcm = additiveTone({
        seconds: 2 * take.legS,
        sampleRate: RATE,
        restS: REST_S,
        hz: (t) => midiToHz(take.pitch(t)),
        gain: (t) => loudness(slide, take.pitch(t), take.hitch(t)),
        amplitude: (k, hz, t) => {
          const h = take.head(hzToMidi(hz), t);
          const resonance = slide.formants.reduce((g, f) => g / Math.sqrt((1 - ((k * hz) / f) ** 2) ** 2 + ((0.12 * k * hz) / f) ** 2), 1);
          return resonance * k ** -(tilt + slope * h) * (k === 1 ? 10 ** ((first * h) / 20) : 1);
        },
        snrDb: CLEAN_DB,
        seed: 100 * seed + number,
      });
      return { pcm, events: take.events, lowestMidi: slide.low, highestMidi: slide.high };
    },
  };
};

/** Upper formants, hertz; bandwidths and chest's levels of all five, dB (Rodet 1984's tables, roughly, from memory). */
export const UPPER_FORMANTS = [3400, 4400];
export const BANDWIDTHS = [80, 90, 120, 160, 220];
const FORMANT_DB = [0, -5, -9, -14, -20];
/** Longest a grain sounds, seconds, and its attack in chest and in head. */
const GRAIN_S = 0.025;
const ATTACK_S = [0.0015, 0.004] as const;
/** How far vowels wander, as a share of each formant, and how fast. */
const VOWEL_WANDERS = 0.06;
const VOWEL_HZ = 0.4;

/**
 * Grains of damped sinusoids, one for each formant and period (formant wave functions; Rodet 1984), in time alone: head falls off
 * toward the higher formants, begins its grains more slowly, lets a low grain at the pitch itself come forward and breathes more.
 * The vowel wanders while it is sung.
 */
export const grainSinger: Draw = (seed) => {
  const random = seededRandom(seed + 17);
  const slide = drawSlide(random, seed);
  const [fallDb, lowDb, breath] = [3 + 3 * random(), 3 + 4 * random(), 0.004 + 0.02 * random()];
  const wander = 2 * Math.PI * random();
  return {
    ...slide,
    siren(number) {
      const take = slide.take(number);
      const normal = gaussian(seededRandom(1000 * seed + number));
      const seconds = 2 * take.legS;
      const samples = new Float32Array(Math.ceil((seconds + 2 * REST_S) * RATE));
      for (let t = 0; t < seconds;) {
        const midi = take.pitch(t);
        const hz = midiToHz(midi);
        const h = take.head(midi, t);
        const gain = 0.2 * loudness(slide, midi, take.hitch(t)) * Math.min(1, t / 0.02, (seconds - t) / 0.02);
        const shift = 1 + VOWEL_WANDERS * Math.sin(2 * Math.PI * VOWEL_HZ * t + wander);
        const attack = ATTACK_S[0] + (ATTACK_S[1] - ATTACK_S[0]) * h;
        [...slide.formants, ...UPPER_FORMANTS].forEach((f, i) =>
          addGrain(
            samples,
            t + REST_S,
            Math.max(f * shift, i === 0 ? hz : 0),
            BANDWIDTHS[i],
            gain * 10 ** ((FORMANT_DB[i] - fallDb * i * h) / 20),
            attack,
          ),
        );
        addGrain(samples, t + REST_S, hz, 100, gain * 10 ** ((lowDb * h - 6) / 20), 0.5 / hz);
        for (let n = 0; n < RATE / hz; n++) {
          const at = Math.round((t + REST_S) * RATE) + n;
          if (at < samples.length) samples[at] += gain * breath * (1 + h) * normal();
        }
        t += 1 / hz;
      }
      return { pcm: { samples, sampleRate: RATE }, events: take.events, lowestMidi: slide.low, highestMidi: slide.high };
    },
  };
};

function addGrain(samples: Float32Array, startS: number, hz: number, bandwidth: number, gain: number, attackS: number) {
  const first = Math.ceil(startS * RATE);
  const last = Math.min(samples.length - 1, Math.floor((startS + GRAIN_S) * RATE));
  for (let i = first; i <= last; i++) {
    const t = i / RATE - startS;
    const rise = t < attackS ? 0.5 - 0.5 * Math.cos((Math.PI * t) / attackS) : 1;
    samples[i] += gain * rise * Math.exp(-Math.PI * bandwidth * t) * Math.sin(2 * Math.PI * hz * t);
  }
}
