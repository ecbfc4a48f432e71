import { HARMONICS, HOP_S, NO_HARMONIC_DB, VoiceTrack } from '../voice/types';
import { Contour } from './contour';
import { Leg, LegHarmonics } from './types';

const BIN_ST = 0.75;
/** Harmonics that are kept, and up to what frequency they tell of a voice. */
const KEPT = 16;
const TOP_HZ = 5500;
/** A harmonic tells when it is this little under the frame's strongest, and under the take's floor (whole level against one harmonic's band). */
const DEPTH_DB = 60;
const UNDER_FLOOR_DB = 20;
/** Fewest frames of a pitch that tell (20 ms). */
const LEAST_FRAMES = 4;
/** Where the pitch moved more than this in 25 ms the harmonics are those of two notes. */
const LEAP_FRAMES = 5;
const LEAP_ST = 2.5;

/** Mean levels of the harmonics at each pitch that a leg passes, in steps of three quarters of a semitone, lowest first. */
export function legHarmonics(track: VoiceTrack, contour: Contour, { startS, endS }: Pick<Leg, 'startS' | 'endS'>): LegHarmonics[] {
  const bins = new Map<number, { sums: Float64Array; counts: Int32Array }>();
  for (let i = Math.round(startS / HOP_S); i < Math.round(endS / HOP_S); i++) {
    if (Number.isNaN(contour[i]) || Math.abs(contour[i] - contour[Math.max(0, i - LEAP_FRAMES)]) > LEAP_ST) continue;
    const row = track.harmonicsDb.subarray(i * HARMONICS, (i + 1) * HARMONICS);
    const least = Math.max(Math.max(...row) - DEPTH_DB, track.floorDb - UNDER_FLOOR_DB, NO_HARMONIC_DB);
    const bin = Math.round(contour[i] / BIN_ST);
    let of = bins.get(bin);
    if (!of) bins.set(bin, (of = { sums: new Float64Array(KEPT), counts: new Int32Array(KEPT) }));
    for (let k = 0; k < KEPT && (k + 1) * track.f0[i] < TOP_HZ; k++) {
      if (row[k] <= least) continue;
      of.sums[k] += row[k];
      of.counts[k]++;
    }
  }
  const mean = (sum: number, count: number) => (count < LEAST_FRAMES ? null : Math.round((10 * sum) / count) / 10);
  return [...bins]
    .sort(([a], [b]) => a - b)
    .map(([bin, { sums, counts }]) => ({ midi: bin * BIN_ST, db: Array.from(sums, (sum, k) => mean(sum, counts[k])) }));
}
