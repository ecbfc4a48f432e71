import { writeAccuracy } from './accuracy-page';
import { keysFor } from '../../core/exercise/keys';
import { patternSpan } from '../../core/exercise/pattern';
import { renderKey } from '../../core/exercise/render';
import { SHELF } from '../../core/exercise/shelf';
import type { Exercise } from '../../core/exercise/types';
import { hearExercise } from '../../core/judge/hear';
import { Verdict, VERDICTS } from '../../core/judge/types';
import { VOICE_TYPES } from '../../core/plan/voice-types';
import { seededRandom } from '../../core/signal/stats';
import { drawRoom, heardThrough, roomResponse } from '../../core/sim/room';
import { takenBy } from '../../core/sim/microphone';
import type { SingerProfile } from '../../core/sim/profile';
import { Mistake, MISTAKES, SimTask } from '../../core/sim/score';
import { sing } from '../../core/sim/sing';
import { Vowel } from '../../core/sim/tract';
import { typicalProfile } from '../../core/sim/typical';
import { klattPerformance, synthesises } from './klatt';

/** Ways of singing an exercise: as meant, with the register wrong, or wrong altogether. */
const WAYS = ['clean', 'flip', 'pulled', ...MISTAKES] as const;
type Way = (typeof WAYS)[number];

/** A slide's end that is missed by a semitone is a row of its own: nobody asks a slide for its end to the semitone. */
const WRONG_END = 'slide’s end';
const ROWS = [...WAYS, WRONG_END];
const rowOf = (e: Exercise, way: Way) => (way === 'wrong note' && e.steps.some((s) => s.slide) ? WRONG_END : way);

const RATE = 22050;
const KEYS = 3;
/** The change must be passed by so much for it to matter how. */
const CROSSES_ST = 1.5;

/** The vowel a simulated voice sings for a sound of the shelf. */
const vowelOf = (sound: string): Vowel =>
  sound.endsWith('ee') ? 'ee' : /ah|a$/.test(sound) ? 'ah' : /oh|no$/.test(sound) ? 'oh' : /ay|eh|ey$/.test(sound) ? 'eh' : 'oo';

/** Who makes the sound of what the simulated singer does: its own pulses, or Praat's Klatt synthesiser. */
const MAKERS = {
  own: (profile: SingerProfile, task: SimTask, { seed, vowel, snrDb }: { seed: number; vowel: Vowel; snrDb: number }) =>
    sing(profile, task, { seed, vowel, sampleRate: RATE, snrDb }).pcm,
  klatt: (profile: SingerProfile, task: SimTask, { seed, vowel, snrDb }: { seed: number; vowel: Vowel; snrDb: number }) =>
    takenBy('studio', klattPerformance(profile, task, { seed, vowel }), { snrDb, hum: null }, seededRandom(seed)),
};
type Maker = keyof typeof MAKERS;

/** One performance by a voice drawn for it, in a drawn room, judged; null where it can't be sung that way. */
function performed(e: Exercise, way: Way, maker: Maker, random: () => number): Verdict | null {
  const type = VOICE_TYPES[Math.floor(random() * VOICE_TYPES.length)].id;
  const profile = typicalProfile(type, way === 'flip' ? 'flip' : way === 'pulled' ? 'pulled' : 'blend');
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
  const task: SimTask = { kind: 'exercise', keys: keys.map((k) => renderKey(e, k, tempo)), ...mistake };
  const pcm = MAKERS[maker](profile, task, { seed, vowel: vowelOf(sound), snrDb });
  const asked = { exercise: e, sound, keys, tempo };
  return hearExercise(heardThrough(response, pcm), asked, { changeMidi: change, handsOver: null }).judgement.verdict;
}

/** Every exercise of the shelf sung in every way by `rounds` drawn voices in drawn rooms: what was said of it, in percent. */
export function verdicts(rounds: number, maker: Maker): string {
  const said = new Map<string, Verdict[]>(ROWS.map((row) => [row, []]));
  for (let round = 0; round < rounds; round++) {
    const random = seededRandom(1000 + round);
    for (const e of SHELF)
      for (const way of WAYS) {
        const verdict = performed(e, way, maker, random);
        if (verdict) said.get(rowOf(e, way))!.push(verdict);
      }
  }
  const rows = ROWS.map((row) => {
    const of = said.get(row)!;
    const share = (verdict: Verdict) =>
      `${((100 * of.filter((v) => v === verdict).length) / Math.max(1, of.length)).toFixed(0)} %`.padStart(8);
    return `    ${row.padEnd(12)}${String(of.length).padStart(6)}${VERDICTS.map(share).join('')}`;
  });
  return [`    sung        takes${VERDICTS.map((v) => v.padStart(8)).join('')}`, ...rows].join('\n');
}

const rounds = Number(process.argv[2] ?? 1);
const own = verdicts(rounds, 'own');
const klatt = synthesises
  ? `The same, one round, in the sound of Praat's Klatt synthesiser (Klatt & Klatt 1990), on which nothing was tuned:

${verdicts(1, 'klatt')}`
  : "Debian's praat is not installed: no other maker's sound was judged.";
const page = `Written by \`npm run bench -- verdicts ${rounds}\`: every exercise of the shelf sung in every way by a simulated voice drawn for it, three keys in a
drawn room (image sources; direct sound 5 to 17 dB over the reflected), noise 25 to 55 dB under it; flips and pulled chest only where the
keys pass the change. Clean should be a yes, everything else not yet.

${own}

${klatt}`;
writeAccuracy('verdicts', page);
process.stdout.write(`${page}\n`);
