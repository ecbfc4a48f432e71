import { mapVoice } from '../core/map/pool';
import { TakeEvidence } from '../core/map/types';
import { VOICE_TYPES } from '../core/plan/voice-types';
import { CrossingStyle, SingerProfile } from '../core/sim/profile';
import { sing } from '../core/sim/sing';
import { Vowel } from '../core/sim/tract';
import { typicalProfile } from '../core/sim/typical';
import { median, seededRandom } from '../core/signal/stats';
import { analyseTake } from '../core/take/analyse';

const TAKES = 3;
const FIRST_SEED = 5000;
/** A found event is the true one within this time. */
const SAME_S = 0.15;
const STYLES: CrossingStyle[] = ['flip', 'toggle', 'blend'];
const VOWELS: Vowel[] = ['ah', 'ah', 'oh', 'eh'];

/** A singer drawn at random: any voice type, change, style, hysteresis, width, breath, scatter. */
function draw(random: () => number): { profile: SingerProfile; style: CrossingStyle; vowel: Vowel; snrDb: number } {
  const pick = <T>(from: readonly T[]) => from[Math.floor(random() * from.length)];
  const style = pick(STYLES);
  const base = typicalProfile(pick(VOICE_TYPES).id, style);
  const change = base.crossings[0].upMidi + 5 * random() - 2.5;
  return {
    style,
    vowel: pick(VOWELS),
    snrDb: 30 + 25 * random(),
    profile: {
      ...base,
      breathiness: 0.4 * random(),
      scatterSt: 0.2 + 0.4 * random(),
      crossings: [
        { ...base.crossings[0], upMidi: change, downMidi: change - 3 * random(), leapSt: 2 + 3 * random(), widthSt: 4 + 5 * random() },
      ],
    },
  };
}

/** Passaggi, limits and events of `count` random singers, three sirens each, as lines of text. */
export function singersReport(count: number): string[] {
  const errors: Record<'audible' | 'blend', number[]> = { audible: [], blend: [] };
  let extra = 0;
  let covered = 0;
  let placed = 0;
  let limits = 0;
  let hits = 0;
  let alarms = 0;
  let missed = 0;
  for (let s = 0; s < count; s++) {
    const { profile, style, vowel, snrDb } = draw(seededRandom(FIRST_SEED + s));
    const takes: TakeEvidence[] = [];
    let low = Infinity;
    let high = -Infinity;
    for (let k = 0; k < TAKES; k++) {
      const { pcm, truth } = sing(profile, { kind: 'siren' }, { seed: FIRST_SEED + 10 * s + k, vowel, snrDb, sampleRate: 22050 });
      const { findings } = analyseTake(pcm, 'siren');
      takes.push({ takeId: String(k), findings, marks: [] });
      low = Math.min(low, truth.lowestMidi);
      high = Math.max(high, truth.highestMidi);
      const found = truth.events.filter((t) => findings.events.some((e) => Math.abs(e.timeS - t.timeS) <= SAME_S)).length;
      hits += found;
      missed += truth.events.length - found;
      alarms += findings.events.filter((e) => !truth.events.some((t) => Math.abs(e.timeS - t.timeS) <= SAME_S)).length;
    }
    const map = mapVoice(takes);
    const truth = (profile.crossings[0].upMidi + profile.crossings[0].downMidi) / 2;
    const [nearest, ...others] = [...map.passaggi].sort((a, b) => Math.abs(a.midi - truth) - Math.abs(b.midi - truth));
    extra += others.length;
    errors[style === 'blend' ? 'blend' : 'audible'].push(nearest ? Math.abs(nearest.midi - truth) : Infinity);
    if (nearest) placed++;
    if (nearest && nearest.lowMidi <= truth && truth <= nearest.highMidi) covered++;
    if (map.extreme && Math.abs(map.extreme.low.midi - low) <= 1 && Math.abs(map.extreme.high.midi - high) <= 1) limits++;
  }
  const all = [...errors.audible, ...errors.blend];
  const share = (n: number, of: number) => `${((100 * n) / Math.max(1, of)).toFixed(1)} %`;
  const within = (list: number[], st: number) => share(list.filter((e) => e <= st).length, list.length);
  return [
    `${count} singers drawn at random, ${TAKES} sirens each`,
    `  passaggio, median error            ${median(all).toFixed(2)} semitones`,
    `  audible changes within 1 semitone  ${within(errors.audible, 1)} of ${errors.audible.length}`,
    `  clean blends within 1.5 semitones  ${within(errors.blend, 1.5)} of ${errors.blend.length}`,
    `  passaggi too many, a singer        ${(extra / count).toFixed(3)}`,
    `  90 % intervals that hold the truth ${share(covered, placed)}`,
    `  both limits within a semitone      ${share(limits, count)}`,
    `  events, F1 at 150 ms               ${((2 * hits) / (2 * hits + alarms + missed)).toFixed(3)} (${hits} found, ${missed} missed, ${alarms} too many)`,
  ];
}
