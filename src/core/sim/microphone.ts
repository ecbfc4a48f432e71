import { Biquad, filter, highPassAt } from '../signal/biquad';
import { gaussian, median } from '../signal/stats';
import { Pcm } from '../voice/types';

/** Microphones people record with: where they begin, and how far they lift around where (rough curves; common practice, no source). */
export const MICROPHONES = {
  studio: { fromHz: 40, liftDb: 0, liftHz: 4000 },
  laptop: { fromHz: 160, liftDb: 6, liftHz: 3200 },
  phone: { fromHz: 110, liftDb: 8, liftHz: 2600 },
} as const;
export type MicrophoneName = keyof typeof MICROPHONES;

const LIFT_Q = 0.8;
const HUM_HARMONICS = 5;
/** The noise of rooms falls by 6 dB an octave from here on (fans, streets; common practice, no source). */
const NOISE_DULL_HZ = 1500;
/** What lies so far under the loudest tenth of a second isn't voice. */
const SILENT_DB = 30;

/** Peaking equaliser (RBJ cookbook form). */
function peakAt(hz: number, rate: number, db: number): Biquad {
  const w = (2 * Math.PI * Math.min(hz, 0.4 * rate)) / rate;
  const a = 10 ** (db / 40);
  const alpha = Math.sin(w) / (2 * LIFT_Q);
  const a0 = 1 + alpha / a;
  const b1 = (-2 * Math.cos(w)) / a0;
  return { b0: (1 + alpha * a) / a0, b1, b2: (1 - alpha * a) / a0, a1: b1, a2: (1 - alpha / a) / a0 };
}

/**
 * A sound as a microphone takes it in: its curve, then the room's noise `snrDb` under the voice's usual power, and hum (hertz and dB
 * under the same; null: none).
 */
export function takenBy(
  name: MicrophoneName,
  { samples, sampleRate }: Pcm,
  { snrDb, hum }: { snrDb: number; hum: { hz: number; underDb: number } | null },
  random: () => number,
): Pcm {
  const { fromHz, liftDb, liftHz } = MICROPHONES[name];
  const out = new Float32Array(samples.length);
  filter(highPassAt(fromHz, sampleRate), samples, out);
  if (liftDb > 0) filter(peakAt(liftHz, sampleRate, liftDb), out, out);
  const usual = usualLevel(out, sampleRate);
  const normal = gaussian(random);
  const pole = Math.exp((-2 * Math.PI * NOISE_DULL_HZ) / sampleRate);
  // White noise through one pole loses this much of its power.
  const noise = usual * 10 ** (-snrDb / 20) * Math.sqrt(1 - pole * pole);
  let room = 0;
  for (let i = 0; i < out.length; i++) {
    room = pole * room + noise * normal();
    out[i] += room;
    if (!hum) continue;
    for (let k = 1; k <= HUM_HARMONICS; k++)
      out[i] += ((usual * 10 ** (-hum.underDb / 20)) / k) * Math.sin((2 * Math.PI * hum.hz * k * i) / sampleRate);
  }
  return { samples: out, sampleRate };
}

/** Median over the tenths of a second in which anything sounds, root mean square. */
function usualLevel(samples: Float32Array, sampleRate: number): number {
  const piece = Math.round(sampleRate / 10);
  const powers = Array.from(
    { length: Math.floor(samples.length / piece) },
    (_, p) => samples.subarray(p * piece, (p + 1) * piece).reduce((s, x) => s + x * x, 0) / piece,
  );
  const loud = Math.max(...powers);
  return Math.sqrt(median(powers.filter((p) => p > loud * 10 ** (-SILENT_DB / 10))));
}
