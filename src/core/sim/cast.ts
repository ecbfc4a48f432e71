import { SchoolId } from '../map/schools';
import { VoiceTypeId } from '../plan/voice-types';
import { Pcm } from '../voice/types';
import { SingerProfile } from './profile';
import { drawRoom, heardThrough, roomResponse } from './room';
import { SimTask } from './score';
import { sing } from './sing';
import { Vowel } from './tract';

/** A member of the demo's cast: a made-up singer and how the voice is built. */
export interface CastMember {
  name: string;
  part: string;
  voiceType: VoiceTypeId;
  note: string;
  /** Told at intake. */
  health?: string;
  /** The school this voice's example plan is made by. */
  example: SchoolId;
  profile: SingerProfile;
  /** How the crossing changes from the first to the last week: semitones the passaggio moves, share the leap shrinks. */
  progress: { moveSt: number; leapShrink: number };
}

/** What the company is recorded at, hertz, with the barge's own noise so far under the loudest singing, dB. */
const RATE = 32000;
const QUIET_DB = 56;
/** The cabin they are heard in: the microphone so close that direct sound stands about 14 dB over the reflected. */
const CABIN = drawRoom(9, 14);
let cabin: Float64Array | undefined;

/** A take of one of the company, as the microphone in the cabin hears it. */
export function recordedInCabin(profile: SingerProfile, task: SimTask, seed: number, vowel?: Vowel): Pcm {
  cabin ??= roomResponse(CABIN, RATE);
  return heardThrough(cabin, sing(profile, task, { seed, vowel, sampleRate: RATE, snrDb: QUIET_DB }).pcm);
}

const vibrato = { rateHz: 5.5, cents: 40 };

/** The company of a travelling puppet opera that lives on a canal barge. All invented. */
export const CAST: CastMember[] = [
  {
    name: 'Osk Varrel',
    part: 'The Lock-keeper',
    voiceType: 'bass',
    note: 'Sings from the belly of the barge; likes long notes.',
    example: 'covered',
    profile: {
      lowMidi: 38,
      highMidi: 65,
      tract: 'man',
      crossings: [{ upMidi: 58.5, downMidi: 57, style: 'blend', widthSt: 6 }],
      breathiness: 0.1,
      vibrato,
      scatterSt: 0.4,
      speakingMidi: 43,
    },
    progress: { moveSt: 0.3, leapShrink: 0 },
  },
  {
    name: 'Bram Toller',
    part: 'The Smuggler',
    voiceType: 'baritone',
    note: 'Pushes when the engine runs.',
    health: 'Hoarse for two days after the spring fair; cleared up with rest.',
    example: 'release-first',
    profile: {
      lowMidi: 42,
      highMidi: 71,
      tract: 'man',
      crossings: [{ upMidi: 61, downMidi: 60, style: 'pulled' }],
      breathiness: 0.1,
      vibrato,
      scatterSt: 0.5,
      speakingMidi: 46,
    },
    progress: { moveSt: 0.5, leapShrink: 0 },
  },
  {
    name: 'Lio Fenn',
    part: 'The Heron',
    voiceType: 'tenor',
    note: 'Light voice; flips on the last line of the Heron song.',
    example: 'early-connect',
    profile: {
      lowMidi: 46,
      highMidi: 75,
      tract: 'man',
      crossings: [{ upMidi: 65, downMidi: 63, style: 'flip', leapSt: 4 }],
      breathiness: 0.25,
      vibrato,
      scatterSt: 0.4,
      speakingMidi: 50,
    },
    progress: { moveSt: 0.6, leapShrink: 0.6 },
  },
  {
    name: 'Maren Quill',
    part: "The Miller's Widow",
    voiceType: 'mezzo',
    note: 'Warm middle. Hears a hitch near A4 herself.',
    example: 'classical',
    profile: {
      lowMidi: 54,
      highMidi: 81,
      tract: 'woman',
      crossings: [{ upMidi: 68.5, downMidi: 67, style: 'toggle' }],
      breathiness: 0.15,
      vibrato,
      scatterSt: 0.4,
      speakingMidi: 57,
    },
    progress: { moveSt: 0.4, leapShrink: 0 },
  },
  {
    name: 'Dot Hallam',
    part: "The Bargeman's Boy",
    voiceType: 'contralto',
    note: 'Never had lessons; belts over the accordion.',
    example: 'chest-first',
    profile: {
      lowMidi: 52,
      highMidi: 80,
      tract: 'woman',
      crossings: [{ upMidi: 70, downMidi: 68.5, style: 'pulled' }],
      breathiness: 0.1,
      vibrato: { rateHz: 5, cents: 15 },
      scatterSt: 0.6,
      speakingMidi: 56,
    },
    progress: { moveSt: 0.5, leapShrink: 0 },
  },
  {
    name: 'Ysolde Marsh',
    part: 'The Moon in the Water',
    voiceType: 'soprano',
    note: 'Very light and high; fades at the bottom.',
    example: 'bridges',
    profile: {
      lowMidi: 57,
      highMidi: 90,
      tract: 'woman',
      crossings: [{ upMidi: 70, downMidi: 69, style: 'no-chest' }],
      breathiness: 0.3,
      vibrato,
      scatterSt: 0.4,
      speakingMidi: 60,
    },
    progress: { moveSt: 0, leapShrink: 0 },
  },
];
