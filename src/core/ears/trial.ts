import { seededRandom } from '../signal/stats';
import { expectedChange, VOICE_TYPES, VoiceTypeId } from '../plan/voice-types';
import type { CrossingStyle } from '../sim/profile';
import { typicalProfile } from '../sim/typical';
import type { EarChoice, EarSound, EarTask, Trial } from './types';

/** From plain to hard (this house's, by ear; the staircase finds each listener's own place between). */
const HARDNESS = {
  /** Semitones of a leap to be placed, and between the notes to choose from. */
  leapSt: [5, 1.5],
  apartSt: [5, 1],
  /** Semitones of a leap to be told from a toggle, a blend and chest pulled up. */
  namedLeapSt: [5, 1],
  /** Share of head off the middle between chest and head. */
  offMiddle: [0.5, 0.06],
  /** Decibels between two notes. */
  apartDb: [9, 0.5],
} as const;

const STYLES: readonly CrossingStyle[] = ['flip', 'toggle', 'blend', 'pulled'];
const NOTES = 4;
/** A change lies up to so far from where such voices have it. */
const MOVED_ST = 2;
/** A slide goes so far under and over the change. */
const REACH_ST = 9;
const LEG_S = 1.8;
const HELD_S = 1.4;

const between = ([plain, hard]: readonly [number, number], level: number) => plain + (hard - plain) * level;

/**
 * A question of this kind and level, 0 plain to 1 hard, about a voice of any type; the same seed makes the same one.
 *
 * @example makeTrial('louder', 0, 1).size // 9 dB between the two
 */
export function makeTrial(task: EarTask, level: number, seed: number): Trial {
  const random = seededRandom(seed);
  const type = VOICE_TYPES[Math.floor(random() * VOICE_TYPES.length)].id;
  return { task, level, ...MAKERS[task](level, type, random, seed) };
}

type Made = Pick<Trial, 'sounds' | 'choices' | 'right' | 'size'>;
type Maker = (level: number, type: VoiceTypeId, random: () => number, seed: number) => Made;

/** A slide up and back across a change of a kind, at a note. */
function slide(type: VoiceTypeId, style: CrossingStyle, changeMidi: number, leapSt: number, seed: number): EarSound {
  const profile = typicalProfile(type, style);
  return {
    profile: {
      ...profile,
      lowMidi: Math.min(profile.lowMidi, changeMidi - REACH_ST),
      highMidi: Math.max(profile.highMidi, changeMidi + REACH_ST),
      // Up and down alike, and every time: there is one right answer.
      crossings: [{ ...profile.crossings[0], upMidi: changeMidi, downMidi: changeMidi, leapSt }],
      scatterSt: 0,
    },
    task: { kind: 'siren', sirens: 1, bottomMidi: changeMidi - REACH_ST, topMidi: changeMidi + REACH_ST, legS: LEG_S },
    seed,
    gainDb: 0,
  };
}

const changeNear = (type: VoiceTypeId, random: () => number) => expectedChange(type) + Math.round((2 * random() - 1) * MOVED_ST);

const held = (type: VoiceTypeId, midi: number, head: number, seed: number, gainDb = 0): EarSound => ({
  profile: typicalProfile(type, 'blend'),
  task: { kind: 'sustain', midi, seconds: HELD_S, head },
  seed,
  gainDb,
});

const MAKERS: Record<EarTask, Maker> = {
  place(level, type, random, seed) {
    const midi = changeNear(type, random);
    const leapSt = between(HARDNESS.leapSt, level);
    const apart = Math.max(1, Math.round(between(HARDNESS.apartSt, level)));
    const right = Math.floor(random() * NOTES);
    const choices = Array.from({ length: NOTES }, (_, i): EarChoice => ({ kind: 'note', midi: midi + (i - right) * apart }));
    return { sounds: [slide(type, 'flip', midi, leapSt, seed)], choices, right, size: apart };
  },
  name(level, type, random, seed) {
    const right = Math.floor(random() * STYLES.length);
    const leapSt = between(HARDNESS.namedLeapSt, level);
    const choices = STYLES.map((style): EarChoice => ({ kind: 'style', style }));
    return { sounds: [slide(type, STYLES[right], changeNear(type, random), leapSt, seed)], choices, right, size: leapSt };
  },
  register(level, type, random, seed) {
    const off = between(HARDNESS.offMiddle, level);
    const right = random() < 0.5 ? 0 : 1;
    const choices: EarChoice[] = [
      { kind: 'register', register: 'chest' },
      { kind: 'register', register: 'head' },
    ];
    return { sounds: [held(type, changeNear(type, random), 0.5 + (right ? off : -off), seed)], choices, right, size: off };
  },
  louder(level, type, random, seed) {
    const db = between(HARDNESS.apartDb, level);
    const midi = changeNear(type, random) - Math.floor(random() * 5);
    const right = random() < 0.5 ? 0 : 1;
    // One and the same note twice: nothing but its level tells them apart.
    const sounds = [0, 1].map((i) => held(type, midi, 0.5, seed, i === right ? 0 : -db));
    return {
      sounds,
      choices: [
        { kind: 'which', which: 1 },
        { kind: 'which', which: 2 },
      ],
      right,
      size: db,
    };
  },
};
