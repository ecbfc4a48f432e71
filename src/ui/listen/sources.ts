import { Input, InputEvents, openMicrophone, openSound } from '../../audio/input';
import type { TakeIdentity } from '../../sync/kept-takes';
import { singAside } from '../../audio/simulated';
import { VoiceTypeId } from '../../core/plan/voice-types';
import type { CrossingStyle } from '../../core/sim/profile';
import type { SimTask } from '../../core/sim/score';
import type { Loudness } from '../../core/take/types';
import { typicalProfile } from '../../core/sim/typical';
import { vowelIn } from '../../core/sim/vowel-in';
import { texts } from '../../core/words/said';

export type Source = TakeIdentity['source'];

export const SOURCES: readonly (readonly [Source, string])[] = texts([
  ['microphone', 'Microphone'],
  ['file', 'Audio file'],
  ['simulated', 'Simulated singer'],
]);

/** How far under its full voice the simulated singer sings. */
const SIMULATED_DB: Record<Loudness, number> = { soft: -12, medium: -6, full: 0 };

/** Where this device keeps which microphone was chosen. */
export const DEVICE_KEY = 'wendel-microphone';

/** The microphone chosen last on this device; null: the browser's own choice. */
export const chosenMicrophone = (): string | null => localStorage.getItem(DEVICE_KEY);

/** Open the chosen microphone, or the simulated singer, who sings `task` once and then calls `onEnd`. */
export async function openSource(
  source: Exclude<Source, 'file'>,
  events: InputEvents,
  simulated: {
    type: VoiceTypeId;
    style: CrossingStyle;
    task: (low: number, high: number) => SimTask;
    vowel: string;
    loudness?: Loudness | null;
    onEnd: () => void;
  },
): Promise<Input> {
  if (source === 'microphone') return openMicrophone(chosenMicrophone(), events);
  const loudness = simulated.loudness ?? 'full';
  // Softly it stays joined; that is what softness is asked for.
  const profile = typicalProfile(simulated.type, loudness === 'soft' ? 'blend' : simulated.style);
  const pcm = await singAside({
    profile,
    task: simulated.task(profile.lowMidi, profile.highMidi),
    options: { seed: Date.now() % 1e9, vowel: vowelIn(simulated.vowel), sampleRate: 44100, snrDb: 50 },
  });
  const gain = 10 ** (SIMULATED_DB[loudness] / 20);
  return openSound({ ...pcm, samples: pcm.samples.map((s) => s * gain) }, events, simulated.onEnd);
}
