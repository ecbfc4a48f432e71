import { type Said, texts } from '../words/said';

/** What the singer was asked to do in a take. */
export const TASKS = ['siren', 'scale', 'sustain', 'speech', 'free'] as const;
export type Task = (typeof TASKS)[number];

/** The four colours a note is asked for in, to calibrate a singer's own timbre axis, chest first. */
export const COLOURS = ['chest', 'chest-blend', 'head-blend', 'head'] as const;
export type Colour = (typeof COLOURS)[number];
export const COLOUR_WORDS: Record<Colour, string> = texts({
  chest: 'chest',
  'chest-blend': 'chest blend',
  'head-blend': 'head blend',
  head: 'head',
});

/** How loud the same slide is asked for, softest first, to find how loud the voice stays joined. */
export const LOUDNESSES = ['soft', 'medium', 'full'] as const;
export type Loudness = (typeof LOUDNESSES)[number];

export type Direction = 'up' | 'down';
/** flip: a leap that hands over; crack: a leap that falls back or goes astray; timbre: colour steps; dip: the level dips. */
export type EventKind = 'flip' | 'crack' | 'dip' | 'timbre';

export interface Quality {
  /** Some of the take is clipped. */
  clipped: boolean;
  /** Singing over room, dB. */
  snrDb: number;
  /** False when nothing may be concluded from the take. */
  usable: boolean;
  /** In plain words: what is wrong with the take and what to do. */
  reasons: Said[];
}

export interface Vibrato {
  /** Swings a second. */
  rateHz: number;
  /** Half of a swing from end to end, cents. */
  cents: number;
}

/** How a note was sung, apart from where it lay. */
export interface NoteShape {
  /** Seconds until it settled on its centre. */
  onsetS: number;
  /** From its beginning to its end, cents. */
  driftCents: number;
  vibrato: Vibrato | null;
  /** What is left without drift and vibrato, cents (one standard deviation). */
  unrestCents: number;
}

/** Where a note lay. */
export interface NoteSpan {
  startS: number;
  endS: number;
  /** Nominal note, whole. */
  midi: number;
  /** Deviation from it. */
  cents: number;
}

export type SungNote = NoteSpan & NoteShape;

/** What a take was asked to be. */
export interface Asked {
  /** Scale degrees of one key. */
  degrees?: number[];
  /** Of what is sung freely: whether it is slid, however narrow; absent: as it sounds. */
  slid?: boolean;
  /** Tonic of the first key. */
  tonicMidi?: number;
}

/** A pattern sung in one key: for each of its notes the sung one (index into the take's notes) and how far off, cents. */
export interface KeySung {
  tonicMidi: number;
  startS: number;
  endS: number;
  notes: { degree: number; note: number | null; cents: number | null }[];
  /** Sung notes that belong to no note of the pattern. */
  extra: number[];
}

export interface PatternSung {
  name: string;
  degrees: number[];
  keys: KeySung[];
}

export interface Range {
  lowestMidi: number;
  highestMidi: number;
}

/** A moment where the voice audibly changes. `midi` is the last pitch before it: going up the last chest note, coming down the last head note. */
export interface TakeEvent {
  timeS: number;
  midi: number;
  fromMidi: number;
  toMidi: number;
  direction: Direction;
  kind: EventKind;
  /** 0..1 */
  confidence: number;
  dipDb: number;
  /** In notes: the one stepped to, index into the take's notes. */
  note?: number;
}

/** Where the timbre crosses from chest to head in one leg: centre, 10-90 % width, 0..1, and when the leg passes it. */
export interface CrossOver {
  timeS: number;
  midi: number;
  widthSt: number;
  confidence: number;
}

/** One point of a leg's colour: three quarters of a semitone, its middle timbre score, and that score's standard deviation. */
export interface ColourPoint {
  midi: number;
  score: number;
  noise: number;
}

/** Colour over pitch going one way, lowest first. */
export interface LegColour {
  direction: Direction;
  points: ColourPoint[];
}

/** Mean level of each harmonic from the first up at one pitch of a leg, dB; null where it didn't tell. */
export interface LegHarmonics {
  midi: number;
  db: (number | null)[];
}

/** One way of a siren (or of a scale): a stretch in one direction. */
export interface Leg extends Range {
  startS: number;
  endS: number;
  direction: Direction;
  /** Median level at each whole semitone, lowest first; missing before wendel-6. */
  levels?: { midi: number; db: number }[];
  /** Harmonics over pitch, lowest first, of slides; missing before wendel-7. */
  harmonics?: LegHarmonics[];
  /** Lowest first; none where no crossing shows. */
  crossOvers: CrossOver[];
}

/** Averages over the frames whose pitch rounds to one semitone. */
export interface NoteProfile {
  midi: number;
  seconds: number;
  levelDb: number;
  clarity: number;
  /** Frame-to-frame pitch unrest, cents. */
  jitterCents: number;
  /** Timbre score: higher is headier; only differences within a take mean something. */
  head: number;
  /**
   * The two parts of that score apart (`timbreParts`): how steeply the harmonics fall, dB an octave, and how far the first stands
   * over their line, dB; null where they didn't tell, missing before wendel-8.
   */
  slopeDb?: number | null;
  firstDb?: number | null;
}

/** Display curve, one value each 10 ms: midi (0 unvoiced), dB, timbre score. */
export interface Trace {
  hopS: number;
  midi: number[];
  levelDb: number[];
  head: number[];
}

export interface TakeFindings {
  engine: string;
  task: Task;
  durationS: number;
  sampleRate: number;
  quality: Quality;
  notes: SungNote[];
  /** The pattern a scale take follows, key by key; null when none was recognised. */
  pattern: PatternSung | null;
  /** Whether the timbre was read along the singer's own axis. */
  calibrated: boolean;
  range: Range | null;
  /** Lowest and highest pitch held half a second within 50 cents. */
  held: Range | null;
  /** Median pitch of counting aloud, for the task "speech". */
  speakingMidi: number | null;
  /** Where the second harmonic passes the vowel's first formant, as far as the take tells; missing before wendel-6. */
  vowelTurnMidi?: number | null;
  /** Ways of a siren; the rises and falls of each breath of a scale. */
  legs: Leg[];
  /** Whether the legs were slid, not stepped from note to note; missing before wendel-7, where the task tells. */
  slid?: boolean;
  events: TakeEvent[];
  profile: NoteProfile[];
}
