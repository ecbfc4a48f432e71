import { mapVoice } from '../../core/map/pool';
import { TakeEvidence, VoiceMap } from '../../core/map/types';
import { expectedChange, VOICE_TYPES } from '../../core/plan/voice-types';
import { Crossing, CrossingStyle, SingerProfile } from '../../core/sim/profile';
import { SimTask } from '../../core/sim/score';
import { sing } from '../../core/sim/sing';
import { Vowel } from '../../core/sim/tract';
import { typicalProfile } from '../../core/sim/typical';
import { seededRandom } from '../../core/signal/stats';
import { analyseTake } from '../../core/take/analyse';
import { Asked, Task } from '../../core/take/types';
import { picker, RATE } from './makers';
import { Performer, PERFORMERS } from './performers';
import { drawRecording } from './recording';

const FIRST_SEED = 9000;
const FIVE_UP = [1, 2, 3, 4, 5, 4, 3, 2, 1];
const FIVE_DOWN = [5, 4, 3, 2, 1];
/** A comfortable first key over the lowest note, the top's distance from the highest, and how far down the way down goes, semitones. */
const [FIRST_KEY_ST, SPARED_ST, DOWN_ST] = [5, 2, 11];
const NOTE_S = 60 / 110;
const CLEAN_DB = 70;
/** A change under D#5 isn't a woman's second. */
const SECOND_FROM_MIDI = 75;
const SLIDES: readonly Vowel[] = ['ah', 'ah', 'ah', 'oo', 'oo'];

/** A singer of one room who is asked for takes, in the sound of our simulated singer unless another sings. */
function heard(profile: SingerProfile, seed: number, performer?: Performer) {
  const recording = drawRecording(seed);
  let takes = 0;
  return (task: Task, asked: SimTask, vowel: Vowel, more: Partial<TakeEvidence> = {}, pattern?: Asked): TakeEvidence => {
    const take = takes++;
    const own = 100 * seed + take;
    const pcm =
      performer?.performs(profile, asked, own, seed, vowel) ??
      sing(profile, asked, { seed: own, vowel, snrDb: CLEAN_DB, sampleRate: RATE }).pcm;
    return {
      takeId: String(take),
      findings: analyseTake(recording.of(pcm, take), task, { asked: pattern }).findings,
      marks: [],
      vowel,
      ...more,
    };
  };
}

/** The slides of a first listening. */
const slidesOf = (take: ReturnType<typeof heard>) => SLIDES.map((vowel) => take('siren', { kind: 'siren' }, vowel));

/** The steps of a first listening that tell the change: the keys of the fives, each a take, and the slides. */
function firstListening(profile: SingerProfile, seed: number) {
  const take = heard(profile, seed);
  const low = Math.ceil(profile.lowMidi) + FIRST_KEY_ST;
  const key = (degrees: number[], tonic: number, step: string) =>
    take('scale', { kind: 'pattern', degrees, tonics: [tonic], noteS: NOTE_S }, 'ah', { together: step }, { degrees, tonicMidi: tonic });
  const fives: TakeEvidence[] = [];
  for (let t = low; t + 7 <= profile.highMidi - SPARED_ST; t++) fives.push(key(FIVE_UP, t, 'up'));
  for (let t = low + DOWN_ST; t >= low; t--) fives.push(key(FIVE_DOWN, t, 'down'));
  return { fives, slides: slidesOf(take) };
}

const share = (n: number, of: number) => `${((100 * n) / of).toFixed(0)} % (${n} of ${of})`;

/** A singer of any voice type who changes once in one of some ways, and where. */
function drawOnce(seed: number, styles: readonly CrossingStyle[]) {
  const random = seededRandom(seed);
  const pick = picker(random);
  const type = pick(VOICE_TYPES).id;
  const base = typicalProfile(type, pick(styles));
  const up = base.crossings[0].upMidi + 4 * random() - 2;
  const down = up - 3 * random();
  const crossings = [{ ...base.crossings[0], upMidi: up, downMidi: down, leapSt: 2 + 3 * random() }];
  return { type, profile: { ...base, breathiness: 0.4 * random(), crossings }, changeMidi: (up + down) / 2 };
}

/** Whole first listenings of `count` singers in rooms against their slides alone. */
export function firstListeningReport(count: number): string[] {
  let [lost, weaker, fromFives, fromSlides, fromAll, extra] = [0, 0, 0, 0, 0, 0];
  for (let s = 0; s < count; s++) {
    const seed = FIRST_SEED + s;
    const { type, profile, changeMidi } = drawOnce(seed, ['flip', 'toggle']);
    const { fives, slides } = firstListening(profile, seed);
    const known = { expectedMidi: expectedChange(type) };
    const [ofFives, ofSlides, whole] = [fives, slides, [...fives, ...slides]].map((takes) => mapVoice(takes, known));
    const near = (map: VoiceMap) => map.passaggi.find((p) => Math.abs(p.midi - changeMidi) <= 1);
    fromFives += Number(near(ofFives) !== undefined);
    fromSlides += Number(near(ofSlides) !== undefined);
    fromAll += Number(near(whole) !== undefined);
    extra += Math.max(0, whole.passaggi.length - 1);
    const names = new Set(whole.findings.map((f) => f.name));
    lost += Number(ofSlides.findings.some((f) => !names.has(f.name)));
    weaker += Number((near(whole)?.confidence ?? 0) < (near(ofSlides)?.confidence ?? 0) - 0.01);
  }
  return [
    `Whole first listenings of ${count} singers in rooms, every key a take, against their slides alone`,
    `  change within a semitone: from the fives alone ${share(fromFives, count)}, slides alone ${share(fromSlides, count)}, all ${share(fromAll, count)}`,
    `  a finding of the slides lost ${share(lost, count)}; confidence lower ${share(weaker, count)}; passaggi too many a singer ${(extra / count).toFixed(2)}`,
  ];
}

/** Slides on two vowels by singers who flip, toggle or blend once, in rooms: the change found, and changes made up of what vowels differ by. */
export function twoVowelsReport(count: number): string[] {
  let [audible, audibleNear, blends, blendsNear, extra] = [0, 0, 0, 0, 0];
  for (let s = 0; s < count; s++) {
    const seed = FIRST_SEED + 2000 + s;
    const { profile, changeMidi } = drawOnce(seed, ['flip', 'toggle', 'blend']);
    const take = heard(profile, seed);
    const { passaggi } = mapVoice(slidesOf(take));
    const nearest = Math.min(...passaggi.map((p) => Math.abs(p.midi - changeMidi)));
    if (profile.crossings[0].style === 'blend') {
      blends++;
      blendsNear += Number(nearest <= 1.5);
    } else {
      audible++;
      audibleNear += Number(nearest <= 1);
    }
    extra += Math.max(0, passaggi.length - 1);
  }
  return [
    `Slides on two vowels ("ah" and "oo") by ${count} singers in rooms: audible changes within a semitone ${share(audibleNear, audible)}, blends within 1.5 ${share(blendsNear, blends)}, passaggi too many a singer ${(extra / count).toFixed(2)}`,
  ];
}

/** A change there, one of some ways: up to two semitones lower coming down. */
const drawCrossing = (random: () => number, upMidi: number, styles: readonly CrossingStyle[]): Crossing => ({
  upMidi,
  downMidi: upMidi - 2 * random(),
  style: picker(random)(styles),
  leapSt: 2 + 2 * random(),
});

/** Women with two changes a fifth apart, near A4 and E5, in rooms: both found, and a third made up. */
export function twoChangesReport(count: number): string[] {
  let [both, third] = [0, 0];
  for (let s = 0; s < count; s++) {
    const seed = FIRST_SEED + 1000 + s;
    const random = seededRandom(seed);
    const pick = picker(random);
    const base = typicalProfile(pick(['mezzo', 'soprano'] as const), 'toggle');
    const first = 67 + 3 * random();
    const crossings = [first, first + 7].map((up) => drawCrossing(random, up, ['flip', 'toggle']));
    const take = heard({ ...base, highMidi: 86, crossings }, seed);
    const map = mapVoice(slidesOf(take));
    const found = crossings.filter((c) => map.passaggi.some((p) => Math.abs(p.midi - (c.upMidi + c.downMidi) / 2) <= 2)).length;
    both += Number(found === 2);
    third += Number(map.passaggi.length > 2);
  }
  return [`Two changes a fifth apart, ${count} women in rooms: both found ${share(both, count)}, a third made up ${share(third, count)}`];
}

/** Women whose second change is heard near F5 and whose first blends; and others who have no first at all: it found, and made up. */
export function firstUnderSecondReport(count: number): string[] {
  return PERFORMERS.filter(({ there }) => there).map((performer) => {
    let [near, madeUp] = [0, 0];
    for (let s = 0; s < count; s++) {
      const seed = FIRST_SEED + 3000 + s;
      const random = seededRandom(seed);
      const pick = picker(random);
      const base = typicalProfile(pick(['mezzo', 'soprano'] as const), 'blend');
      const first = { ...base.crossings[0], ...drawCrossing(random, 65 + 4 * random(), ['blend']) };
      const second = drawCrossing(random, 76 + 4 * random(), ['flip', 'toggle']);
      const passaggiOf = (crossings: SingerProfile['crossings']) => {
        const take = heard({ ...base, highMidi: 86, crossings }, seed, performer);
        return mapVoice(slidesOf(take)).passaggi;
      };
      const firstMidi = (first.upMidi + first.downMidi) / 2;
      near += Number(passaggiOf([first, second]).some((p) => Math.abs(p.midi - firstMidi) <= 1.5));
      madeUp += Number(passaggiOf([second]).some((p) => p.midi < SECOND_FROM_MIDI));
    }
    return `A first change that blends under a second near F5 that is heard, ${count} women in rooms, ${performer.name}: within 1.5 ${share(near, count)}; made up where there is none ${share(madeUp, count)}`;
  });
}
