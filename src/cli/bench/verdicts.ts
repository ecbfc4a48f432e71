import { writeAccuracy } from './accuracy-page';
import { keysFor } from '../../core/exercise/keys';
import { patternSpan } from '../../core/exercise/pattern';
import { KeyInTime, renderKey } from '../../core/exercise/render';
import { SHELF } from '../../core/exercise/shelf';
import type { Exercise } from '../../core/exercise/types';
import { hearExercise } from '../../core/judge/hear';
import { knownVoice } from '../../core/judge/known-voice';
import { audibleOn } from '../../core/judge/sounds';
import { KnownVoice, Verdict, VERDICTS } from '../../core/judge/types';
import { mapVoice } from '../../core/map/pool';
import { expectedChange, VoiceTypeId, VOICE_TYPES } from '../../core/plan/voice-types';
import { seededRandom } from '../../core/signal/stats';
import { drawRoom, heardThrough, roomResponse } from '../../core/sim/room';
import { takenBy } from '../../core/sim/microphone';
import type { CrossingStyle, SingerProfile } from '../../core/sim/profile';
import { Mistake, MISTAKES, SimTask } from '../../core/sim/score';
import { sing } from '../../core/sim/sing';
import { Vowel } from '../../core/sim/tract';
import { typicalProfile } from '../../core/sim/typical';
import { analyseTake } from '../../core/take/analyse';
import type { Pcm } from '../../core/voice/types';
import { klattPerformance } from './klatt';
import { praatIsThere } from './praat';
import { peopleSpeak, speakersPerformance } from './speakers';

/** Ways of singing an exercise: as meant, with the register wrong, or wrong altogether. */
const WAYS = ['clean', 'flip', 'pulled', ...MISTAKES] as const;
type Way = (typeof WAYS)[number];

/** A slide's end that is missed by a semitone is a row of its own: nobody asks a slide for its end to the semitone. */
const WRONG_END = 'slide’s end';
const rowOf = (e: Exercise, way: Way) => (way === 'wrong note' && e.steps.some((s) => s.slide) ? WRONG_END : way);

const RATE = 22050;
const KEYS = 3;
/** The change must be passed by so much for it to matter how. */
const CROSSES_ST = 1.5;

/** The vowel a simulated voice sings for a sound of the shelf. */
const vowelOf = (sound: string): Vowel =>
  sound.endsWith('ee') ? 'ee' : /ah|a$/.test(sound) ? 'ah' : /oh|no$/.test(sound) ? 'oh' : /ay|eh|ey$/.test(sound) ? 'eh' : 'oo';

interface Sung {
  seed: number;
  vowel: Vowel;
  snrDb: number;
}
const inNoise = (pcm: Pcm, { snrDb, seed }: Sung) => takenBy('studio', pcm, { snrDb, hum: null }, seededRandom(seed));

/** Who makes the sound of what the simulated singer does: its own pulses, Praat's Klatt synthesiser, or pulses of people who were recorded. */
const MAKERS = {
  own: (profile: SingerProfile, task: SimTask, sung: Sung) => sing(profile, task, { ...sung, sampleRate: RATE }).pcm,
  klatt: (profile: SingerProfile, task: SimTask, sung: Sung) => inNoise(klattPerformance(profile, task, sung), sung),
  people: (profile: SingerProfile, task: SimTask, sung: Sung) => inNoise(speakersPerformance(profile, task, sung), sung),
};
type Maker = keyof typeof MAKERS;

/** How the change is crossed in an exercise sung in a way. */
const styleOf = (way: Way): CrossingStyle => (way === 'flip' || way === 'pulled' ? way : 'blend');

/** Slides of a first listening, by which a voice is known. */
const SLIDES = 3;

/** What a voice's map says of its change after three slides in its room, crossed as it usually crosses. */
function listenedTo(profile: SingerProfile, type: VoiceTypeId, seed: number, recorded: (pcm: Pcm) => Pcm, maker: Maker): KnownVoice {
  const takes = Array.from({ length: SLIDES }, (_, i) => {
    const pcm = MAKERS[maker](profile, { kind: 'siren' }, { seed: seed + i, vowel: 'oo', snrDb: 40 });
    return { takeId: String(i), findings: analyseTake(recorded(pcm), 'siren').findings, marks: [] };
  });
  return knownVoice(mapVoice(takes, { expectedMidi: expectedChange(type) }), expectedChange(type));
}

/** What was said of a performance, whether its sound lets a voice's colour through, and whether it passes the change by leaps alone. */
interface Judged {
  verdict: Verdict;
  colour: boolean;
  leaps: boolean;
}

/** From a third on a step is a leap, semitones. */
const LEAP_ST = 3;

/** Whether all that passes a change in keys leaps over it. */
const leapsOver = (change: number, keys: readonly KeyInTime[]): boolean =>
  keys.every(({ notes }) =>
    notes.slice(1).every(({ midi }, i) => {
      const [low, high] = [Math.min(midi, notes[i].midi), Math.max(midi, notes[i].midi)];
      return high <= change || low >= change || (!notes[i].slide && high - low >= LEAP_ST);
    }),
  );

/**
 * One performance by a voice drawn for it, in a drawn room, judged; null where it can't be sung that way. `usually`: how the voice
 * crosses as a rule, where it was listened to before; otherwise only where it changes is known.
 */
function performed(e: Exercise, way: Way, maker: Maker, random: () => number, usually?: CrossingStyle): Judged | null {
  const type = VOICE_TYPES[Math.floor(random() * VOICE_TYPES.length)].id;
  const profile = typicalProfile(type, styleOf(way));
  profile.breathiness = random() * 0.5;
  const change = profile.crossings[0].upMidi;
  const all = keysFor(e, { low: profile.lowMidi, high: profile.highMidi, change: Math.round(change), speaking: profile.speakingMidi });
  const from = Math.max(0, Math.floor(random() * (all.length - KEYS + 1)));
  const keys = all.slice(from, from + KEYS);
  const sound = e.sounds[Math.floor(random() * e.sounds.length)];
  const seed = Math.floor(random() * 1e9);
  const response = roomResponse(drawRoom(seed, 5 + 12 * random()), RATE);
  const snrDb = 25 + 30 * random();
  const { bottom, top } = patternSpan(e);
  const crosses = keys.some((k) => k + bottom <= change - CROSSES_ST && k + top >= change + CROSSES_ST);
  if (keys.length === 0 || ((way === 'flip' || way === 'pulled') && !crosses)) return null;
  // The simulated voice sings at one effort: where softer notes are asked for, that is not clean.
  if (way === 'clean' && e.measure === 'softer-up') return null;
  // One note can't be droned.
  if (way === 'droned' && new Set(e.steps.map((s) => s.degree)).size === 1) return null;
  const tempo = e.tempo[1];
  const mistake = MISTAKES.includes(way as Mistake) ? { mistake: way as Mistake } : {};
  const laid = keys.map((k) => renderKey(e, k, tempo));
  const task: SimTask = { kind: 'exercise', keys: laid, ...mistake };
  const pcm = MAKERS[maker](profile, task, { seed, vowel: vowelOf(sound), snrDb });
  const asked = { exercise: e, sound, keys, tempo };
  const recorded = (dry: Pcm) => heardThrough(response, dry);
  const known = usually
    ? listenedTo({ ...typicalProfile(type, usually), breathiness: profile.breathiness }, type, seed, recorded, maker)
    : { changeMidi: change, handsOver: null };
  return {
    verdict: hearExercise(recorded(pcm), asked, known).judgement.verdict,
    colour: audibleOn(sound).colour,
    leaps: leapsOver(change, laid),
  };
}

/** A line of the table: in which way what is sung is sung, and how the voice crosses as a rule. */
interface Row {
  name: string;
  usually?: CrossingStyle;
  is(e: Exercise, way: Way): boolean;
}

const NOTHING_KNOWN: readonly Row[] = [...WAYS, WRONG_END].map((name) => ({ name, is: (e, way) => rowOf(e, way) === name }));

/** As a voice that was listened to before usually sings, and otherwise than it does. */
const LISTENED_TO: readonly Row[] = [
  { name: 'clean', usually: 'blend', is: (_, way) => way === 'clean' },
  { name: 'flip', usually: 'flip', is: (_, way) => way === 'flip' },
  { name: 'pulled', usually: 'pulled', is: (_, way) => way === 'pulled' },
  { name: 'pulled today', usually: 'blend', is: (_, way) => way === 'pulled' },
  { name: 'clean today', usually: 'pulled', is: (_, way) => way === 'clean' },
];

/** How wide the first column of the table is, letters. */
const NAME_WIDTH = 20;

/** Every exercise of the shelf sung in the ways of some rows by `rounds` drawn voices in drawn rooms: what was said of it, in percent. */
function verdicts(rounds: number, maker: Maker, rows: readonly Row[], first = 0): string {
  const said = new Map<Row, Judged[]>(rows.map((row) => [row, []]));
  for (let round = first; round < first + rounds; round++) {
    const random = seededRandom(1000 + round);
    for (const e of SHELF)
      for (const way of WAYS)
        for (const row of rows.filter((r) => r.is(e, way))) {
          const judged = performed(e, way, maker, random, row.usually);
          if (judged) said.get(row)!.push(judged);
        }
  }
  const line = (name: string, of: readonly Judged[]) => {
    const share = (verdict: Verdict) =>
      `${((100 * of.filter((j) => j.verdict === verdict).length) / Math.max(1, of.length)).toFixed(0)} %`.padStart(9);
    return `    ${name.padEnd(NAME_WIDTH)}${String(of.length).padStart(6)}${VERDICTS.map(share).join('')}`;
  };
  const lines = rows.flatMap((row) => {
    const of = said.get(row)!;
    const all = line(row.name, of);
    const halves = (is: (j: Judged) => boolean, one: string, other: string) => [
      all,
      line(`  ${one}`, of.filter(is)),
      line(
        `  ${other}`,
        of.filter((j) => !is(j)),
      ),
    ];
    // What is said of colour where none comes through is a question of its own, and so are flips where a leap is asked for.
    if (row.name.startsWith('pulled')) return halves((j) => j.colour, 'on vowels', 'straw, lips, nose');
    if (row.name === 'flip') return halves((j) => !j.leaps, 'slides and steps', 'leaps of a third up');
    return all;
  });
  const table = [`    ${'sung'.padEnd(NAME_WIDTH)} takes${VERDICTS.map((v) => v.padStart(9)).join('')}`, ...lines].join('\n');
  // A round takes a quarter of an hour: what is there is shown at once.
  process.stdout.write(`${table}\n\n`);
  return table;
}

/** Rounds of drawn voices begin here: `npm run bench -- verdicts 2 70` takes others than those before. */
const [rounds, first] = [Number(process.argv[2] ?? 1), Number(process.argv[3] ?? 0)];
const klatt = praatIsThere
  ? `The same, one round, in the sound of Praat's Klatt synthesiser (Klatt & Klatt 1990); the signs of carried chest were weighed on other takes of it, nothing else:

${verdicts(1, 'klatt', NOTHING_KNOWN, first)}`
  : "Debian's praat is not installed: its sound was not judged.";
const people = peopleSpeak
  ? `The same, one round, in single pulses of people whose speech was recorded, set to pitch, on which nothing was tuned:

${verdicts(1, 'people', NOTHING_KNOWN, first)}`
  : "A man and a woman of Debian's festival are not installed: nobody's pulses were judged.";
const page = `Written by \`npm run bench -- verdicts ${rounds} ${first}\`: every exercise of the shelf sung in every way by a simulated voice drawn for it, three keys in a
drawn room (image sources; direct sound 5 to 17 dB over the reflected), noise 25 to 55 dB under it; flips and pulled chest only where the
keys pass the change. Clean should be a yes, everything else not yet. A slide's end missed by a semitone is a row of its own: nobody asks a
slide for its end to the semitone. Pulled chest passes mostly through straws, lips and the nose, where little of it can be heard, and on closed
vowels; flips where all that passes the change leaps over it by a third or more, and may leap. Of the voice nothing is known but where it changes:

${verdicts(rounds, 'own', NOTHING_KNOWN, first)}

Voices listened to before, in the same room: all that is known of them is what their map says after three slides. “Today” they sing otherwise
than they usually do.

${verdicts(rounds, 'own', LISTENED_TO, first)}

${klatt}

${people}`;
writeAccuracy('verdicts', page);
