import type { Said } from '../words/said';
import { Direction, EventKind, Range, TakeFindings } from '../take/types';

/** What the coach's ear, or the singer's own feeling, says about a moment of a take. */
export interface CoachMark {
  id: string;
  timeS: number;
  midi: number;
  direction: Direction;
  /** accept: the machine heard right; reject: nothing there; move: there, but at this note; add: the machine missed it. */
  verdict: 'accept' | 'reject' | 'move' | 'add';
  /** Whose word it is; the singer can only add. */
  by: 'coach' | 'singer';
}

/** One take as the map takes it in. */
export interface TakeEvidence {
  takeId: string;
  findings: TakeFindings;
  /** When it was sung, milliseconds since 1970; older takes weigh less. */
  recordedAt?: number;
  /** Takes that carry the same word are the keys of one step of a lesson: one microphone, one setting, heard together. */
  together?: string;
  /** What it was sung on, as the coach calls it; missing or empty when not known. */
  vowel?: string;
  marks: CoachMark[];
}

/** One leg's word on where the voice changes. */
export interface Vote {
  takeId: string;
  /** Legs of one take count apart. */
  leg: number;
  timeS: number;
  midi: number;
  direction: Direction;
  kind: EventKind | 'blend';
  widthSt: number;
  weight: number;
  source: 'machine' | 'coach' | 'singer';
}

/** "n of m": legs in which it was found, of the legs that passed there. */
export interface Count {
  found: number;
  of: number;
}

export type CrossingName = 'flip' | 'toggle' | 'blended';

export interface Passaggio {
  midi: number;
  /** 90 % interval of the centre. */
  lowMidi: number;
  highMidi: number;
  upMidi: number | null;
  downMidi: number | null;
  up: Count;
  down: Count;
  /** Semitones over which the change spreads. */
  widthSt: number;
  name: CrossingName;
  confidence: number;
  /** Too little was heard to state it (one take, one day, one pass each way): given all the same, as a first impression. */
  impression: boolean;
  /** How it is crossed on each vowel, best first; empty where fewer than two can be compared. */
  vowels: VowelCrossing[];
  votes: Vote[];
}

/** Passes by a change on one vowel, and those in which it was heard. */
export interface VowelCrossing {
  vowel: string;
  passes: number;
  heard: number;
}

export const FINDING_NAMES = ['flip', 'toggle', 'blended', 'pulled-chest', 'no-chest', 'weak-first-head', 'uneven-loudness'] as const;
export type FindingName = (typeof FINDING_NAMES)[number];

/** A named finding with the figure it rests on. */
export interface Finding {
  name: FindingName;
  /** Where in the voice. */
  midi: number;
  /** 0..1 */
  confidence: number;
  /** In plain words, with the figure. */
  because: Said;
  /** It rests on one take or one day. */
  impression: boolean;
  takeIds: string[];
}

export interface Limit {
  midi: number;
  takeIds: string[];
}

/** A note pooled over takes: level against each take's own middle (microphones stand anywhere), periodicity, unrest. */
export interface PooledNote {
  midi: number;
  db: number;
  clarity: number;
  jitterCents: number;
}

/** Share of head at a note, 0..1, with one standard deviation between passes. */
export interface BlendPoint {
  midi: number;
  head: number;
  spread: number;
  passes: number;
}

export interface InsecureNote {
  midi: number;
  /** Sum of its signs; 1 is worth a look. */
  score: number;
  because: Said;
}

/** A note and a level, dB against the voice's own middle. */
export interface NoteLevel {
  midi: number;
  db: number;
}

/** How loud a voice can be, note by note, and stay joined on the way up. */
export interface Ceiling {
  /** Where it is known, lowest first: over `db` the voice breaks at that note; one standard deviation. */
  notes: (NoteLevel & { sdDb: number })[];
  /** Each slide up: the notes it came through joined, and the one it broke at; null where it didn't. */
  passes: { joined: NoteLevel[]; broke: NoteLevel | null }[];
  takeIds: string[];
}

/** The level curve against the even rise that is expected (common practice). */
export interface Evenness {
  /** Rise of the fitted line, dB an octave. */
  slopeDb: number;
  /** Root mean square departure from it, dB. */
  strayDb: number;
  worstMidi: number;
  /** Departure there, dB: positive jumps out. */
  worstDb: number;
}

export interface VoiceWeight {
  /** -1 light to 1 heavy. */
  lean: number;
  /** What each sign says, in plain words. */
  because: Said[];
  /** It rests on one take or one day. */
  impression: boolean;
}

export interface CategoryFit {
  name: string;
  /** 0..1, for ranking. */
  fit: number;
  because: Said[];
}

export interface VoiceMap {
  engine: string;
  takes: number;
  /** Touched at least once for 60 ms. */
  extreme: { low: Limit; high: Limit } | null;
  /** Held half a second within 50 cents in two takes or more; null ("not known") under an octave. */
  usable: { low: Limit; high: Limit } | null;
  passaggi: Passaggio[];
  findings: Finding[];
  speakingMidi: number | null;
  /** Level at each note against the take's middle, dB, pooled. */
  levels: { midi: number; db: number }[];
  /** Share of head at each note; empty when no change is known. */
  blend: BlendPoint[];
  evenness: Evenness | null;
  /** How loud it stays joined on the way up; missing where that wasn't tried. */
  ceiling?: Ceiling;
  /** Worst first. */
  insecure: InsecureNote[];
  /** Where the vowel's colour turns by itself (the second harmonic passes the first formant), by vowel: no register change. */
  vowelTurns: { vowel: string; midi: number }[];
  weight: VoiceWeight | null;
  /** Takes read along the singer's own timbre axis. */
  calibrated: number;
  /** Values the coach has pinned, each with what the machine says of it (null: nothing). */
  pinned: Partial<Record<PinName, number | null>>;
}

/** What a list shows of a voice. */
export interface VoiceSummary {
  extreme: { low: { midi: number }; high: { midi: number } } | null;
  passaggi: Pick<Passaggio, 'midi' | 'lowMidi' | 'highMidi' | 'confidence' | 'impression'>[];
  findings: FindingName[];
}

/** Values of a map that a coach may set by hand. */
export const PIN_NAMES = ['usable-low', 'usable-high', 'change', 'second-change', 'speaking'] as const;
export type PinName = (typeof PIN_NAMES)[number];

/** What is known of a voice beside its takes. */
export interface VoiceKnown {
  /** Where such a voice usually changes, MIDI. */
  expectedMidi?: number;
}

export type { Range };
