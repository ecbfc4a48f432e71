/** Mono samples in -1..1 at `sampleRate` hertz. */
export interface Pcm {
  samples: Float32Array;
  sampleRate: number;
}

/** Analysis works at one rate, so that a take sounds the same to it whatever device recorded it. */
export const ANALYSIS_RATE = 16000;
/** Samples between frames at ANALYSIS_RATE: 5 ms. */
export const HOP = 80;
/** Seconds between frames. Frame i is centred at i * HOP_S. */
export const HOP_S = HOP / ANALYSIS_RATE;
export const MIN_F0 = 55;
export const MAX_F0 = 2100;
/** Harmonics kept per frame. */
export const HARMONICS = 20;
/** Level given to a harmonic above the band or under the noise. */
export const NO_HARMONIC_DB = -140;

/** What the tracker heard, one value a frame (every HOP_S seconds, the first centred on the first sample). */
export interface VoiceTrack {
  frames: number;
  /** Fundamental in hertz; 0 where unvoiced. */
  f0: Float32Array;
  /** Periodicity 0..1 of the chosen pitch (normalised autocorrelation); 0 where unvoiced. */
  clarity: Float32Array;
  /** Level of the frame, dB relative to full scale (a full-scale sine is about -3). */
  levelDb: Float32Array;
  /** Level of harmonic k+1 at [frame * HARMONICS + k], dB; NO_HARMONIC_DB where there is none. */
  harmonicsDb: Float32Array;
  /** Share of samples at or near full scale. */
  clippedShare: number;
  /** The take's quiet level, dB: what the room sounds like when nobody sings. */
  floorDb: number;
}
