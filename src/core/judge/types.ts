import type { Exercise } from '../exercise/types';

/** What was asked for: an exercise on a sound, in keys one after another, at a tempo, as the follow-along gave it. */
export interface Asked {
  exercise: Pick<Exercise, 'steps' | 'measure' | 'aim' | 'loudness' | 'family'> & Partial<Pick<Exercise, 'breathBeats'>>;
  sound: string;
  /** Tonics in the order sung, MIDI. */
  keys: readonly number[];
  /** Crotchets a minute. */
  tempo: number;
  /** When the chord of each key began, seconds from the beginning of the take; absent: each as the one before was over. */
  startsS?: readonly number[];
  /** Sung by itself, after the piano has given it: at a pace of the singer's own. */
  alone?: boolean;
}

/** What is known of the voice: where its change lies, MIDI, and whether it is known to hand over there (null: not known). */
export interface KnownVoice {
  changeMidi: number;
  handsOver: boolean | null;
}

/** One note that was asked for, and what was sung for it. Times in seconds from the beginning of the take. */
export interface NoteHeard {
  /** What was asked, MIDI; a slide leads from it to the next note. */
  midi: number;
  slide: boolean;
  /** How long it was asked for. */
  askedS: number;
  startS: number;
  endS: number;
  /** Seconds of it that sounded. */
  soundedS: number;
  /** Pitch it settled on, in the octave asked for; null for a slide, and where too little sounded. */
  sungMidi: number | null;
  /** Median level, dB; null where too little sounded. */
  levelDb: number | null;
}

/** One key as it was sung. */
export interface KeyHeard {
  tonicMidi: number;
  startS: number;
  endS: number;
  /** How much of it sounded, at whatever pitch. */
  share: number;
  notes: NoteHeard[];
}

export const VERDICTS = ['yes', 'not yet', 'not told'] as const;
/** `not told`: what would decide was not, or could not be, heard. It is never a yes because nothing was looked at. */
export type Verdict = (typeof VERDICTS)[number];

export const FAULTS = [
  'not-usable',
  'not-sung',
  'not-heard',
  'stopped',
  'leapt',
  'leapt-once',
  'wrong-note',
  'out-of-tune',
  'missed-the-end',
  'faded',
  'unsteady',
  'changed-at-once',
  'chest-carried',
  'hand-over-not-heard',
  'jumped-out',
  'not-softer',
] as const;
export type Fault = (typeof FAULTS)[number];

/** Why a verdict is no yes: what, where, and by how much (semitones, cents or dB as the fault has it). */
export interface Because {
  fault: Fault;
  /** The note asked for where it shows, MIDI. */
  midi?: number;
  by?: number;
}

export interface NoteJudged extends NoteHeard {
  verdict: Verdict;
  because: Because | null;
}

export interface KeyJudged {
  tonicMidi: number;
  verdict: Verdict;
  because: Because | null;
  notes: NoteJudged[];
}

export interface Judgement {
  verdict: Verdict;
  /** The weightiest reason, and which key it is of (an index); null for a yes. */
  because: (Because & { key?: number }) | null;
  keys: KeyJudged[];
}
