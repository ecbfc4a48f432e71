import { centsBetween } from '../music/pitch';

/** How well a pitch track agrees with the truth, as the melody-extraction field defines it; shares 0..1. */
export interface PitchScore {
  /** Raw pitch accuracy: of frames truly voiced, those heard within 50 (10) cents. */
  pitch50: number;
  pitch10: number;
  /** Of frames truly voiced, those off by an octave (within 50 cents of one or two octaves away). */
  octave: number;
  /** Of frames truly voiced, those called voiced. */
  recall: number;
  /** Of frames truly unvoiced, those called voiced. */
  falseAlarm: number;
  /** Frames wholly right: voicing, and pitch within 50 cents. */
  overall: number;
}

/**
 * Score a track against the truth frame by frame (hertz; 0 unvoiced). A frame called unvoiced counts as wrong in pitch.
 * Definitions: Salamon et al. 2014, as in mir_eval; from memory.
 */
export function scorePitch(truth: ArrayLike<number>, heard: ArrayLike<number>): PitchScore {
  let voiced = 0;
  let within50 = 0;
  let within10 = 0;
  let octave = 0;
  let recalled = 0;
  let alarms = 0;
  let right = 0;
  for (let i = 0; i < truth.length; i++) {
    const hz = heard[i] ?? 0;
    if (!(truth[i] > 0)) {
      if (hz > 0) alarms++;
      else right++;
      continue;
    }
    voiced++;
    if (!(hz > 0)) continue;
    recalled++;
    const off = Math.abs(centsBetween(truth[i], hz));
    if (off <= 10) within10++;
    if (off <= 50) {
      within50++;
      right++;
    } else if (Math.abs(off - 1200) <= 50 || Math.abs(off - 2400) <= 50) octave++;
  }
  const part = (n: number, of: number) => (of ? n / of : 0);
  return {
    pitch50: part(within50, voiced),
    pitch10: part(within10, voiced),
    octave: part(octave, voiced),
    recall: part(recalled, voiced),
    falseAlarm: part(alarms, truth.length - voiced),
    overall: part(right, truth.length),
  };
}
