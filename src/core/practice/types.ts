import type { Because, Judgement, Verdict } from '../judge/types';
import { Sign, Today } from '../plan/safety';
import type { Checked } from './voice-check';

/** Asked before the first exercise of a day. */
export interface Before extends Today {
  kind: 'before';
  tired: boolean;
}

/** How the voice was in the one-minute check, before singing or (`warm`) after the warm-up. */
export interface Check {
  kind: 'check';
  warm: boolean;
  /** The note that was asked for softly. */
  markerMidi: number;
  /** Whether it came; null: it wasn't tried. */
  sounded: boolean | null;
  checked: Checked;
}

/** What a voice does besides practice. */
export const ELSEWHERE_IDS = ['rehearsal', 'show', 'choir', 'lesson', 'teaching'] as const;
export type ElsewhereId = (typeof ELSEWHERE_IDS)[number];
/** Nobody sings longer than this in a day, minutes. */
export const MOST_ELSEWHERE_MIN = 720;

/** Singing and long talking of a day that isn't practice, told by the singer. */
export interface Elsewhere {
  kind: 'elsewhere';
  where: ElsewhereId;
  minutes: number;
  /** The line of this kind that it stands instead of; with no minutes, that one was told by mistake. */
  instead?: string;
}

/** What is done before the slides of a trial of one (core/practice/trial.ts). */
export const ARMS = ['straw', 'hum', 'nothing'] as const;
export type Arm = (typeof ARMS)[number];

/** How a voice breaks at its change in a few slides. */
export interface Broke {
  /** Mean leap over all passes, semitones; joined ones are 0. */
  leapSt: number;
  /** Share of the passes in which the change is heard, percent. */
  heard: number;
}

/** One day of a trial of one. */
export interface TrialLine {
  kind: 'trial';
  /** Which trial. */
  trial: string;
  arm: Arm;
  /** Slides before, and so many minutes after the arm. */
  minutes: number;
  before: Broke;
  after: Broke;
}

/** One exercise practised, measured or not. */
export interface Done {
  kind: 'item';
  exerciseId: string;
  /** As it was called when it was sung. */
  name: string;
  sound: string;
  tempo: number;
  /** Tonics gone through, in order. */
  keys: number[];
  /** From begin to end, seconds. */
  seconds: number;
  /** What was heard of it: seconds voiced and oscillations of the folds; null when nobody listened. */
  load: Load | null;
  /** Whether it went as meant (`judged`, where it was heard); null: not told. */
  success: boolean | null;
  /** What was heard of it, against what was asked; missing where nobody listened, and in older lines. */
  judged?: Judged;
  /** 0 none to 10 the most there is; null: not told. */
  effort: number | null;
  signs: Sign[];
  /** Told afterwards, practised without the page. */
  byHand: boolean;
  /** The singer's own words on it: what was felt, what helped, a question. */
  word?: string;
  /** The same spoken, seconds: the sound goes to the coach by itself, under this line's id. */
  spokenS?: number;
  /** Where it was felt to buzz. */
  felt?: Felt[];
  /** After a straw: whether singing is lighter now than before. */
  lighter?: boolean;
}

/** Places where a voice is felt to buzz: low notes in the chest, higher ones in the face and at the crown (common practice, no source). */
export const FELT = ['breastbone', 'nose', 'crown'] as const;
export type Felt = (typeof FELT)[number];

export const LONGEST_WORD = 400;

/** A judgement as it is kept: the verdict and its reason, key by key. */
export interface Judged {
  verdict: Verdict;
  because: (Because & { key?: number }) | null;
  keys: { tonicMidi: number; verdict: Verdict; because: Because | null }[];
}

/** A judgement without its notes. */
export const asKept = ({ verdict, because, keys }: Judgement): Judged => ({
  verdict,
  because,
  keys: keys.map(({ tonicMidi, verdict, because }) => ({ tonicMidi, verdict, because })),
});

/** What a verdict counts for. */
export const successOf = (verdict: Verdict): boolean | null => (verdict === 'yes' ? true : verdict === 'not yet' ? false : null);

/** Voice load: time dose in seconds, cycle dose in oscillations. */
export interface Load {
  voicedS: number;
  cycles: number;
  /** Of those seconds, belted: high in chest on purpose (core/practice/belt.ts); missing where nothing was. */
  beltS?: number;
}

/** A line of a singer's log. Ids are made where it is written, so that a line sent twice is one. */
export interface Entry {
  id: string;
  assignmentId: string | null;
  /** The singer's own day, "2026-11-25", and the moment (ISO 8601). */
  day: string;
  at: string;
  what: Before | Done | Check | Elsewhere | TrialLine;
  /** What the coach answered to the singer's words; missing where nothing was. */
  answer?: string;
  /** The coach's word that it went as meant, though nobody listened. */
  granted?: boolean;
}

/** Whether an exercise of the log went as meant: as it was heard, else as the coach says; null: not told. */
export const wentWell = ({ what, granted }: Entry & { what: Done }): boolean | null => what.success ?? (granted ? true : null);

export const isDone = (e: Entry): e is Entry & { what: Done } => e.what.kind === 'item';
export const isCheck = (e: Entry): e is Entry & { what: Check } => e.what.kind === 'check';
export const isBefore = (e: Entry): e is Entry & { what: Before } => e.what.kind === 'before';
export const isTrial = (e: Entry): e is Entry & { what: TrialLine } => e.what.kind === 'trial';
