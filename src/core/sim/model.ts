import { Manner } from '../exercise/model';
import { renderKey } from '../exercise/render';
import type { Exercise } from '../exercise/types';
import { audibleOn } from '../judge/sounds';
import type { FindingName } from '../map/types';
import type { VoiceTypeId } from '../plan/voice-types';
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

/** What the simulated singer needs to sing one key of an exercise in somebody's place. */
export interface SimulatedModel {
  profile: SingerProfile;
  task: SimTask;
  options: { seed: number; vowel: ReturnType<typeof vowelIn>; sampleRate: number; snrDb: number };
}

/**
 * One key of an exercise as it should, or should not, sound, for the simulated singer: in this voice's kind and range, its change where the
 * singer's is; joined there, or with what the map finds in this voice. Null where the simulated singer has nothing to show: through
 * straws and lips, where the break is made on purpose, and where the key doesn't cross the change (nothing could go wrong there).
 */
export function simulatedModel(
  { exercise, key, tempo, sound }: { exercise: Exercise; key: number; tempo: number; sound: string },
  voice: { type: VoiceTypeId; changeMidi: number; findings: readonly FindingName[] },
  manner: Manner,
): SimulatedModel | null {
  if (exercise.family === 'toggle' || exercise.family === 'speech' || !audibleOn(sound).colour) return null;
  const laid = renderKey(exercise, key, tempo);
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
    // Without the chord: the voice alone.
    task: {
      kind: 'exercise',
      keys: [{ ...laid, notes: laid.notes.map((n) => ({ ...n, startS: n.startS - laid.chordS, endS: n.endS - laid.chordS })) }],
    },
    options: { seed: 1, vowel: vowelIn(sound), sampleRate: 44100, snrDb: 60 },
  };
}
