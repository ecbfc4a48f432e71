import { mapVoice } from '../../core/map/pool';
import { TakeEvidence } from '../../core/map/types';
import { hzToMidi, midiToHz } from '../../core/music/pitch';
import { VOICE_TYPES } from '../../core/plan/voice-types';
import { CrossingStyle } from '../../core/sim/profile';
import { drawRoom, heardIn } from '../../core/sim/room';
import { sing } from '../../core/sim/sing';
import { additiveTone } from '../../core/sim/tones';
import { FORMANTS, Vowel } from '../../core/sim/tract';
import { typicalProfile } from '../../core/sim/typical';
import { median, seededRandom } from '../../core/signal/stats';
import { analyseTake } from '../../core/take/analyse';
import { Pcm } from '../../core/voice/types';

const TAKES = 3;
const FIRST_SEED = 5000;
/** A found event is the true one within this time. */
const SAME_S = 0.15;
const VOWELS: Vowel[] = ['ah', 'ah', 'oh', 'eh'];

/** A singer to be heard: where the voice changes (null: nowhere) and how, and sirens with what is true of each. */
interface Drawn {
  style: CrossingStyle | 'plain';
  changeMidi: number | null;
  siren(take: number): { pcm: Pcm; events: { timeS: number }[]; lowestMidi: number; highestMidi: number };
}

type Draw = (seed: number) => Drawn;

const picker =
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
  const snrDb = 30 + 25 * random();
  const breathiness = 0.4 * random();
  const scatterSt = 0.2 + 0.4 * random();
  const down = up - 3 * random();
  const crossing = { ...base.crossings[0], upMidi: up, downMidi: down, leapSt: 2 + 3 * random(), widthSt: 4 + 5 * random() };
  const profile = { ...base, breathiness, scatterSt, crossings: [crossing] };
  return {
    style,
    changeMidi: (up + down) / 2,
    siren(take) {
      const { pcm, truth } = sing(profile, { kind: 'siren' }, { seed: 10 * seed + take, vowel, snrDb, sampleRate: 22050 });
      return { pcm, ...truth };
    },
  };
};

/**
 * The same of sinusoids added up, sharing nothing with the simulated singer but formant frequencies: harmonics fall by a power
 * of their number that grows with head, the first is raised by it, and resonances are plain two-pole magnitudes. One in five
 * has no change at all.
 */
export const plainSinger: Draw = (seed) => {
  const random = seededRandom(seed);
  const pick = picker(random);
  const style = pick(['flip', 'toggle', 'blend', 'blend', 'plain'] as const);
  const type = pick(VOICE_TYPES);
  const up = (type.tract === 'man' ? 61 : 68) + 4 * random() - 2;
  const down = up - 3 * random();
  const width = style === 'blend' ? 4 + 5 * random() : 0.3;
  const leap = style === 'flip' ? 2 + 3 * random() : 0;
  const formants = FORMANTS[type.tract][pick(VOWELS)].map((hz) => hz * (0.92 + 0.16 * random()));
  const [tilt, slope, first] = [0.9 + 0.5 * random(), 0.5 + 0.6 * random(), 2 + 5 * random()];
  const [rise, snrDb] = [4 + 10 * random(), 30 + 20 * random()];
  const low = type.low;
  const high = type.high;
  return {
    style,
    changeMidi: style === 'plain' ? null : (up + down) / 2,
    siren(take) {
      const day = seededRandom(100 * seed + take);
      const legS = 2.5 + day();
      const places = [up, down].map((m) => m + 0.8 * (day() - 0.5));
      // Up, leaping at the last pitch before the change by what then is missing of the way; down likewise.
      const pitch = (t: number) => {
        const rate = (high - low - leap) / legS;
        if (t < legS) return low + rate * t + (low + rate * t > places[0] ? leap : 0);
        const m = high - rate * (t - legS);
        return m - (m < places[1] ? leap : 0);
      };
      const head = (m: number, place: number) => (style === 'plain' ? 0 : 1 / (1 + Math.exp((-4.394 * (m - place)) / width)));
      const pcm = additiveTone({
        seconds: 2 * legS,
        sampleRate: 22050,
        hz: (t) => midiToHz(pitch(t)),
        gain: (t) => 10 ** ((rise * (pitch(t) - high)) / (high - low) / 20),
        amplitude: (k, hz, t) => {
          const h = head(hzToMidi(hz), places[t < legS ? 0 : 1]);
          const resonance = formants.reduce((g, f) => g / Math.sqrt((1 - ((k * hz) / f) ** 2) ** 2 + ((0.12 * k * hz) / f) ** 2), 1);
          return resonance * k ** -(tilt + slope * h) * (k === 1 ? 10 ** ((first * h) / 20) : 1);
        },
        snrDb,
        seed: 100 * seed + take,
      });
      const rate = (high - low - leap) / legS;
      const restS = 0.3;
      const events =
        style === 'flip' || style === 'toggle'
          ? [{ timeS: restS + (places[0] - low) / rate }, { timeS: restS + legS + (high - places[1]) / rate }]
          : [];
      return { pcm, events, lowestMidi: low, highestMidi: high };
    },
  };
};

/** Direct over reflected sound of a drawn room, dB, from and to: a microphone 15 to 60 cm from a mouth (common practice). */
const DIRECT_DB = [5, 20] as const;

/** The same singers, each in a room of their own (image sources, sim/room.ts): living rooms, practice rooms, bathrooms, halls. */
export const inRooms =
  (draw: Draw): Draw =>
  (seed) => {
    const singer = draw(seed);
    const random = seededRandom(seed + 7);
    const room = drawRoom(seed, DIRECT_DB[0] + (DIRECT_DB[1] - DIRECT_DB[0]) * random());
    return {
      ...singer,
      siren(take) {
        const { pcm, ...truth } = singer.siren(take);
        return { ...truth, pcm: heardIn(room, pcm, seed) };
      },
    };
  };

/** Passaggi, limits and events of `count` singers, three sirens each, as lines of text. */
export function singersReport(title: string, count: number, draw: Draw): string[] {
  const errors: Record<'audible' | 'blend', number[]> = { audible: [], blend: [] };
  let extra = 0;
  let covered = 0;
  let placed = 0;
  let limits = 0;
  let hits = 0;
  let alarms = 0;
  let missed = 0;
  for (let s = 0; s < count; s++) {
    const { style, changeMidi, siren } = draw(FIRST_SEED + s);
    const takes: TakeEvidence[] = [];
    let low = Infinity;
    let high = -Infinity;
    for (let k = 0; k < TAKES; k++) {
      const { pcm, events, lowestMidi, highestMidi } = siren(k);
      const { findings } = analyseTake(pcm, 'siren');
      takes.push({ takeId: String(k), findings, marks: [] });
      low = Math.min(low, lowestMidi);
      high = Math.max(high, highestMidi);
      const found = events.filter((t) => findings.events.some((e) => Math.abs(e.timeS - t.timeS) <= SAME_S)).length;
      hits += found;
      missed += events.length - found;
      alarms += findings.events.filter((e) => !events.some((t) => Math.abs(e.timeS - t.timeS) <= SAME_S)).length;
    }
    const map = mapVoice(takes);
    if (map.extreme && Math.abs(map.extreme.low.midi - low) <= 1 && Math.abs(map.extreme.high.midi - high) <= 1) limits++;
    if (changeMidi === null) {
      extra += map.passaggi.length;
      continue;
    }
    const [nearest, ...others] = [...map.passaggi].sort((a, b) => Math.abs(a.midi - changeMidi) - Math.abs(b.midi - changeMidi));
    extra += others.length;
    errors[style === 'blend' ? 'blend' : 'audible'].push(nearest ? Math.abs(nearest.midi - changeMidi) : Infinity);
    if (nearest) placed++;
    if (nearest && nearest.lowMidi <= changeMidi && changeMidi <= nearest.highMidi) covered++;
  }
  const all = [...errors.audible, ...errors.blend];
  const share = (n: number, of: number) => `${((100 * n) / Math.max(1, of)).toFixed(1)} %`;
  const within = (list: number[], st: number) => share(list.filter((e) => e <= st).length, list.length);
  return [
    `${count} ${title}, ${TAKES} sirens each`,
    `  passaggio, median error            ${median(all).toFixed(2)} semitones`,
    `  audible changes within 1 semitone  ${within(errors.audible, 1)} of ${errors.audible.length}`,
    `  clean blends within 1.5 semitones  ${within(errors.blend, 1.5)} of ${errors.blend.length}`,
    `  passaggi too many, a singer        ${(extra / count).toFixed(3)}`,
    `  90 % intervals that hold the truth ${share(covered, placed)}`,
    `  both limits within a semitone      ${share(limits, count)}`,
    `  events, F1 at 150 ms               ${((2 * hits) / (2 * hits + alarms + missed)).toFixed(3)} (${hits} found, ${missed} missed, ${alarms} too many)`,
  ];
}
