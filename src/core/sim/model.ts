import { Manner } from '../exercise/model';
import { KeyInTime, renderKey } from '../exercise/render';
import type { Exercise } from '../exercise/types';
import { audibleOn } from '../judge/sounds';
import type { FindingName } from '../map/types';
import type { VoiceTypeId } from '../plan/voice-types';
import { songInTime } from '../song/in-time';
import type { Phrase } from '../song/phrases';
import type { Song } from '../song/types';
import { changeNear, SongVoice } from '../song/voice';
import { vowelOf } from '../song/vowel';
import type { Way } from '../song/ways';
import type { CrossingStyle, SingerProfile } from './profile';
import type { SimTask } from './score';
import { typicalProfile } from './typical';
import { vowelIn } from './vowel-in';

/** The change coming down lies so far under the one going up (as in `typicalProfile`). */
const LOWER_DOWN_ST = 1.5;
/** A model's voice reaches so far beyond what it sings. */
const ROOM_ST = 2;

/** What this voice should not do at its change, by what the map says of it; flips are the plainest to hear. */
const FAULT: Partial<Record<FindingName, CrossingStyle>> = { flip: 'flip', toggle: 'toggle', 'pulled-chest': 'pulled' };

/** What the simulated singer needs to sing in somebody's place. */
export interface SimulatedModel {
  profile: SingerProfile;
  task: SimTask;
  options: { seed: number; vowel: ReturnType<typeof vowelIn>; sampleRate: number; snrDb: number };
}

/** In whose place: the kind of voice, where it changes, and what its map finds, surest first. */
interface InPlaceOf {
  type: VoiceTypeId;
  changeMidi: number;
  findings: readonly FindingName[];
}

/**
 * One key of an exercise as it should, or should not, sound, for the simulated singer: in this voice's kind and range, its change where the
 * singer's is; joined there, or with what the map finds in this voice. Null where the simulated singer has nothing to show: through
 * straws and lips, where the break is made on purpose, and where the key doesn't cross the change (nothing could go wrong there).
 */
export function simulatedModel(
  { exercise, key, tempo, sound }: { exercise: Exercise; key: number; tempo: number; sound: string },
  voice: InPlaceOf,
  manner: Manner,
): SimulatedModel | null {
  if (exercise.family === 'toggle' || exercise.family === 'speech' || !audibleOn(sound).colour) return null;
  const laid = renderKey(exercise, key, tempo);
  // Without the chord: the voice alone.
  const notes = laid.notes.map((n) => ({ ...n, startS: n.startS - laid.chordS, endS: n.endS - laid.chordS }));
  return sungInPlace({ ...laid, notes }, voice, manner, vowelIn(sound));
}

/**
 * A phrase of a song in a key, as `simulatedModel` has exercises, at the change nearest to its highest note and on that note's vowel. Null where
 * the coach chose a way to take it that is not the mix (the simulated singer joins chest to head, and would show another), and for a voice
 * whose change nobody knows.
 */
export function simulatedPhrase(
  { song, phrase, semitones, way }: { song: Song; phrase: Pick<Phrase, 'first' | 'last'>; semitones: number; way: Way | null },
  { type, voice }: { type: VoiceTypeId; voice: SongVoice },
  manner: Manner,
): SimulatedModel | null {
  const highest = song.notes.slice(phrase.first, phrase.last + 1).reduce((best, n) => (n.midi > best.midi ? n : best));
  const change = changeNear(voice, highest.midi + semitones);
  if (!change || (way !== null && way !== 'mix')) return null;
  const findings = Object.entries(voice.findings)
    .sort(([, a], [, b]) => b.confidence - a.confidence)
    .map(([name]) => name as FindingName);
  const [laid] = songInTime(song, [phrase], semitones);
  return sungInPlace(laid, { type, changeMidi: change.up, findings }, manner, vowelOf(highest.words, song.language) ?? 'ah');
}

function sungInPlace(laid: KeyInTime, voice: InPlaceOf, manner: Manner, vowel: SimulatedModel['options']['vowel']): SimulatedModel | null {
  const notes = laid.notes.map((n) => n.midi);
  const [lowest, highest] = [Math.min(...notes), Math.max(...notes)];
  const crosses = lowest < voice.changeMidi && highest > voice.changeMidi;
  if (!crosses && manner === 'not-like-this') return null;
  const fault = voice.findings.map((f) => FAULT[f]).find(Boolean) ?? 'flip';
  const profile = typicalProfile(voice.type, manner === 'like-this' ? 'blend' : fault);
  return {
    profile: {
      ...profile,
      lowMidi: Math.min(profile.lowMidi, lowest - ROOM_ST),
      highMidi: Math.max(profile.highMidi, highest + ROOM_ST),
      crossings: profile.crossings.map((c) => ({ ...c, upMidi: voice.changeMidi, downMidi: voice.changeMidi - LOWER_DOWN_ST })),
    },
    task: { kind: 'exercise', keys: [laid] },
    options: { seed: 1, vowel, sampleRate: 44100, snrDb: 60 },
  };
}
