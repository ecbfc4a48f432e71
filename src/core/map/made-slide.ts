import { midiToHz } from '../music/pitch';
import { gaussian, seededRandom } from '../signal/stats';
import { Direction, Leg } from '../take/types';
import { Rise } from './source-model';

/** From where it goes if nothing is said, and how far. */
const LOW = 48;
const SPAN_ST = 28;
const VOWELS = { ah: [800, 1200], oh: [550, 950], eh: [600, 1900] } as const;

export interface Made {
  vowel?: keyof typeof VOWELS;
  rise?: Rise | null;
  /** What is added to every harmonic at a pitch, dB. */
  level?: (midi: number) => number;
  seed?: number;
  low?: number;
  /** What is weaker is gone, but for every third peak of the noise, dB. */
  noiseDb?: number;
}

/**
 * A slide up and down, harmonic by harmonic: two plain resonances, harmonics that fall by 8 dB an octave, 1 dB of noise, and over
 * the rise 2.5 dB an octave more and 4 dB of first harmonic: constructed.
 */
export function madeSlide({ vowel = 'ah', rise = null, level = () => 0, seed = 1, low = LOW, noiseDb = -Infinity }: Made): Leg[] {
  const noise = gaussian(seededRandom(seed));
  const peaks = seededRandom(seed + 1);
  const formant = (hz: number) =>
    VOWELS[vowel].reduce((db, f) => db - 10 * Math.log10((1 - (hz / f) ** 2) ** 2 + ((0.15 * hz) / f) ** 2), 0);
  return (['up', 'down'] as Direction[]).map((direction) => ({
    startS: 0,
    endS: 3,
    direction,
    lowestMidi: low,
    highestMidi: low + SPAN_ST,
    crossOvers: [],
    harmonics: Array.from({ length: Math.floor(SPAN_ST / 0.75) + 1 }, (_, i) => {
      const midi = low + 0.75 * i;
      const place = rise && (direction === 'up' ? rise.upMidi : rise.downMidi);
      const head = place === null ? 0 : 1 / (1 + Math.exp((-4.394 * (midi - place)) / rise!.widthSt));
      const db = Array.from({ length: 16 }, (_, h) => {
        const hz = (h + 1) * midiToHz(midi);
        if (hz > 5500) return null;
        const db = level(midi) + formant(hz) - (8 + 2.5 * head) * Math.log2(h + 1) + (h === 0 ? 4 * head : 0) + noise();
        return db > noiseDb ? db : peaks() < 1 / 3 ? noiseDb + 3 * noise() : null;
      });
      return { midi, db };
    }),
  }));
}
