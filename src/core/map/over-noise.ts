import { median } from '../signal/stats';
import { Leg } from '../take/types';

/** Harmonics of one pitch of a leg: those that stand over the noise, lowest first, each with how far it may be off. */
export interface Heard {
  midi: number;
  up: boolean;
  harmonics: { number: number; db: number; sdDb: number }[];
}

/** After so many harmonics in a row that can't be seen, what is seen of the higher ones is noise that stuck out. */
const GAP = 2;
/** So many of those tell how loud the noise is. */
const FEWEST_OF_NOISE = 8;
/** What a level is off by as such, dB, and what noise as loud adds; ten times weaker it adds a tenth. Tuned on simulated singers of four makers. */
const LEVEL_SD_DB = 2.1;
const NOISE_SD_DB = 12;

/**
 * The harmonics of a take's legs that are the voice's. Of a closed vowel or a soft voice only the lowest few are over the noise; a peak
 * of the noise taken for a harmonic makes colour turn where nothing does.
 */
export function overNoise(legs: readonly Leg[], most: number): Heard[] {
  const pitches = legs.flatMap(({ harmonics = [], direction }) =>
    harmonics.map(({ midi, db: all }) => {
      const db = all.slice(0, most);
      return { midi, up: direction === 'up', db, end: lastSeen(db) };
    }),
  );
  const noise = pitches.flatMap(({ db, end }) => db.slice(end).flatMap((level) => level ?? []));
  const noiseDb = noise.length >= FEWEST_OF_NOISE ? median(noise) : -Infinity;
  return pitches.map(({ midi, up, db, end }) => ({
    midi,
    up,
    harmonics: db
      .slice(0, end)
      .flatMap((level, i) =>
        level === null ? [] : [{ number: i + 1, db: level, sdDb: Math.hypot(LEVEL_SD_DB, NOISE_SD_DB * 10 ** ((noiseDb - level) / 20)) }],
      ),
  }));
}

/** How many harmonics lie before the first gap. */
function lastSeen(db: readonly (number | null)[]): number {
  const gap = db.findIndex((_, i) => db.slice(i, i + GAP).every((level) => level === null));
  return gap < 0 ? db.length : gap;
}
