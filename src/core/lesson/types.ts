import type { Said } from '../words/said';
import type { Exercise } from '../exercise/types';
import type { Verdict } from '../judge/types';
import type { Today } from '../plan/safety';
import type { Colour, Loudness, Task } from '../take/types';

/**
 * Where the keys of a step begin: semitones above a place in the voice that the pattern's lowest note (going up) or highest (down) is
 * put on; from `tonic`, the first tonic itself, MIDI.
 */
export interface StepKeys {
  from: 'low' | 'change' | 'high' | 'tonic';
  semitones: number;
  /** Semitones from key to key; negative goes down. */
  step: number;
  /** How many keys, or until the coach says that the voice has had enough. */
  until: 'stop' | number;
}

/** One thing to sing in a lesson. */
export interface LessonStep {
  id: string;
  name: string;
  /** What the singer does, in words a singer understands. */
  how: string;
  task: Task;
  /** What it is sung on; empty for speech. */
  vowel: string;
  /** Scale degrees of one key; null where nothing is played (sirens, speech) and where an exercise is sung. */
  degrees: number[] | null;
  /** An exercise of the shelf, of the plan or from a song, whose pattern is sung. */
  exercise?: Exercise;
  /** Whether the notes of the pattern are joined by slides. */
  slide?: boolean;
  keys: StepKeys | null;
  /** Takes wanted where there are no keys. */
  times: number;
  /** The same note in four colours. */
  colours?: boolean;
  /** The same slide soft, medium and full, in turn. */
  loudnesses?: boolean;
  /** Crotchets a minute; the pattern goes in quavers. */
  tempo: number;
  /** Goes to the ends of the voice, across its change or loud: left out when the singer isn't well. */
  testsRange: boolean;
  /** May be passed over without a gap in the lesson. */
  optional?: boolean;
}

/** A lesson as it is planned: asked about health first or not, then steps in order. */
export interface Protocol {
  id: string;
  name: string;
  purpose: string;
  asksHealth: boolean;
  steps: LessonStep[];
}

/** Today's answers to the questions before singing. */
export interface HealthAnswers extends Today {
  note: string;
  /** The coach goes on in spite of pain, on their own word. */
  goOn?: boolean;
}

/** What is known of the voice when a lesson starts: whole MIDI notes. */
export interface VoiceAnchors {
  low: number;
  change: number;
  high: number;
  /** What the coach pinned: no key leaves it; missing where nothing is pinned. */
  pinned?: { low?: number; high?: number };
  /** A minor's, or a changing one. */
  young?: boolean;
}

/** One take that is asked for. */
export interface Ask {
  step: LessonStep;
  /** Tonic of the key; null where the step has none. */
  tonicMidi: number | null;
  colour: Colour | null;
  loudness: Loudness | null;
  vowel: string;
  /** Which take of the step, from 1, and of how many where that is known. */
  number: number;
  of: number | null;
  /** The key is a repeat, lower, that confirms the top (or higher, the bottom). */
  confirms: boolean;
}

/** One key of an exercise as it went in a lesson. */
export interface JudgedKey {
  takeId: string;
  exerciseId: string;
  name: string;
  sound: string;
  tonicMidi: number;
  verdict: Verdict;
  /** Why, in words. */
  says: Said;
}

/** Where a lesson stands. Plain data: saved after each change, so that a reload goes on here. */
export interface Course {
  protocolId: string;
  steps: LessonStep[];
  health: HealthAnswers | null;
  voice: VoiceAnchors;
  /** Index of the step; steps.length when the lesson is over. */
  at: number;
  /** Takes of this step so far, or keys passed. */
  count: number;
  tonicMidi: number | null;
  held: boolean;
  confirming: boolean;
  vowel: string | null;
  /** How keys of exercises went, in the order they were sung; missing in older lessons. */
  judged?: JudgedKey[];
  /** Semitones from key to key where the coach has turned the walk; missing: as the step has it. */
  walk?: number;
  /** Ids of steps that were left out, and why. */
  skipped: Record<string, string>;
  /** Raised at each change: the newest wins. */
  revision: number;
}

export type LessonAction =
  | { kind: 'health'; answers: HealthAnswers }
  /** A take of what is asked was made. */
  | { kind: 'taken' }
  /** Go on without a take. */
  | { kind: 'next' }
  | { kind: 'back' }
  | { kind: 'skip' }
  /** The voice has had enough in this direction. */
  | { kind: 'stop' }
  | { kind: 'hold' }
  | { kind: 'vowel'; vowel: string }
  /** A key higher (1) or lower (-1), and on from there that way. */
  | { kind: 'key'; by: 1 | -1 }
  /** In the key of a note that was played, as near to it as the voice allows. */
  | { kind: 'in-key'; tonicMidi: number }
  /** Crotchets a minute from now on. */
  | { kind: 'tempo'; tempo: number }
  /** Something else is sung now; what was going to be sung comes after it. */
  | { kind: 'sing'; step: LessonStep }
  | { kind: 'go'; step: number };
