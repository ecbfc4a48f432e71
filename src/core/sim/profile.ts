/** How a simulated voice gets across a passaggio (common practice, no source). */
export type CrossingStyle = 'flip' | 'toggle' | 'blend' | 'pulled' | 'no-chest';

export interface Crossing {
  /** The last pitch before the balance changes, going up and coming down, fractional MIDI. */
  upMidi: number;
  downMidi: number;
  style: CrossingStyle;
  /** Semitones leapt by a flip. */
  leapSt?: number;
  /** Semitones over which a blend goes from 10 to 90 %. */
  widthSt?: number;
}

/** A simulated voice. All pitches are MIDI notes. */
export interface SingerProfile {
  lowMidi: number;
  highMidi: number;
  tract: 'man' | 'woman';
  crossings: Crossing[];
  /** 0 clear to 1 airy. */
  breathiness: number;
  vibrato: { rateHz: number; cents: number };
  /** Day-to-day and leg-to-leg standard deviation of each crossing, semitones. */
  scatterSt: number;
  /** Speaking pitch. */
  speakingMidi: number;
}

/** What really happened in a simulated take. */
export interface TakeTruth {
  events: { timeS: number; midi: number; direction: 'up' | 'down'; kind: 'flip' | 'timbre' | 'crack' }[];
  lowestMidi: number;
  highestMidi: number;
  /** Sung pitch every 5 ms, hertz; 0 where silent. */
  f0: Float32Array;
  notes: { startS: number; endS: number; midi: number }[];
}
