import { sing } from '../../core/sim/sing';
import { additiveTone } from '../../core/sim/tones';
import { typicalProfile } from '../../core/sim/typical';
import { HOP_S, Pcm } from '../../core/voice/types';

export interface Signal {
  group: string;
  pcm: Pcm;
  /** Hertz every HOP_S seconds; 0 unvoiced. */
  truth: Float32Array;
}

export const framesOf = (pcm: Pcm) => Math.floor(pcm.samples.length / pcm.sampleRate / HOP_S);

function tone(group: string, seconds: number, hz: (t: number) => number, more: Partial<Parameters<typeof additiveTone>[0]> = {}): Signal {
  const restS = 0.3;
  const pcm = additiveTone({ seconds, hz, restS, snrDb: 60, ...more });
  const truth = Float32Array.from({ length: framesOf(pcm) }, (_, i) => {
    const t = i * HOP_S - restS;
    return t >= 0 && t < seconds ? hz(t) : 0;
  });
  return { group, pcm, truth };
}

export function sung(
  group: string,
  type: Parameters<typeof typicalProfile>[0],
  seed: number,
  options: { snrDb?: number; reverbS?: number; breathiness?: number } = {},
): Signal {
  const profile = typicalProfile(type, seed % 2 ? 'flip' : 'blend');
  const { pcm, truth } = sing(
    { ...profile, breathiness: options.breathiness ?? 0.1 },
    { kind: 'siren', legS: 2.5 },
    { seed, snrDb: options.snrDb ?? 60, reverbS: options.reverbS },
  );
  return { group, pcm, truth: truth.f0 };
}

const vowel = (k: number, f: number) => (1 / k) * (0.1 + 1 / (1 + ((k * f - 700) / 200) ** 2));
const vibrato = (hz: number) => (t: number) => hz * 2 ** ((0.4 / 12) * Math.sin(2 * Math.PI * 5.5 * t));
const weakFirst = (k: number) => (k === 1 ? 0.01 : 1 / k);

/** The mixed set: additive tones and simulated singers, by what makes them hard. */
export const OWN_SIGNALS: Signal[] = [
  ...[110, 196, 330, 520].map((hz) => tone('clean', 1.5, vibrato(hz), { amplitude: vowel })),
  ...(['tenor', 'mezzo', 'bass', 'soprano'] as const).map((type, i) => sung('clean', type, 1 + i)),
  ...[130, 294, 600].map((hz, i) => tone('noise 20 dB', 1.5, vibrato(hz), { amplitude: vowel, snrDb: 20, seed: i })),
  sung('noise 20 dB', 'baritone', 3, { snrDb: 20 }),
  sung('noise 30 dB', 'soprano', 4, { snrDb: 30 }),
  sung('noise 30 dB', 'bass', 5, { snrDb: 30 }),
  sung('reverb', 'tenor', 6, { reverbS: 0.5 }),
  sung('reverb', 'mezzo', 7, { reverbS: 0.5 }),
  sung('breathy', 'mezzo', 8, { breathiness: 0.9 }),
  sung('breathy', 'tenor', 9, { breathiness: 0.9 }),
  ...[120, 220, 400].map((hz) => tone('weak first', 1.5, vibrato(hz), { amplitude: weakFirst })),
  ...[1100, 1500, 2000].map((hz) => tone('very high', 1, vibrato(hz))),
  ...[58, 66, 80].map((hz) => tone('very low', 1.5, vibrato(hz), { amplitude: vowel })),
  tone('fast glide', 1.5, (t) => 110 * 2 ** (2 * t), { amplitude: vowel }),
  tone('fast glide', 1.5, (t) => 880 * 2 ** (-2 * t), { amplitude: vowel }),
];
