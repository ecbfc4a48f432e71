import type { Asked, Judgement, KnownVoice } from '../core/judge/types';
import type { CalibratorReading } from '../core/signal/level';
import type { TimbreAxis } from '../core/take/timbre';
import type { TakeFindings, Trace } from '../core/take/types';
import type { LiveMoment } from '../core/take/live';
import type { TakeIdentity } from '../sync/kept-takes';

/** To the take worker: `blocks` is the port the audio thread writes to. */
export type ToTakeWorker =
  | { kind: 'open'; sampleRate: number; blocks: MessagePort }
  /** A take that is to be heard will come. */
  | { kind: 'warm' }
  /** `axis`: the singer's own timbre axis, where it is known. */
  | { kind: 'start'; take: TakeIdentity; axis: TimbreAxis | null }
  /** `against`: what the take is judged against, where an exercise was asked for. */
  | { kind: 'stop'; against: Against | null }
  /** Nothing more is taken in or heard until the hold is off; the take goes on then, as if no time had passed. */
  | { kind: 'hold'; on: boolean }
  /** Give up the take under way: nothing of it is kept. */
  | { kind: 'drop' }
  /** Read the calibrator's tone that sounds now. */
  | { kind: 'calibrate' }
  /** No more takes: the worker ends when it has kept and heard the last one. */
  | { kind: 'close' };

/** What a take of an exercise is judged against: what was asked, by whom. */
export interface Against {
  asked: Asked;
  voice: KnownVoice;
}

/** What was found in a take, or why nothing could be. */
export interface HeardTake {
  findings: TakeFindings | null;
  trace: Trace | null;
  error: string | null;
}

/** A take as it was heard right after its end, and judged where it was to be. */
export interface JudgedTake extends HeardTake {
  judgement: Judgement | null;
}

/** From the take worker. `peak` is the block's largest sample, 0..1; `levelDb` the level, A-weighted and fast, dB relative to a mean square of 1. */
export type FromTakeWorker =
  | { kind: 'live'; frames: LiveMoment[]; peak: number; levelDb: number }
  | { kind: 'done'; wav: ArrayBuffer; durationS: number }
  /** The analysis of the take that is done: the same that the server makes of the same file; and its judgement. */
  | { kind: 'heard'; heard: JudgedTake }
  | { kind: 'calibrator'; reading: CalibratorReading }
  /** The take can't be kept in this browser while it is recorded: it lives in this page only. */
  | { kind: 'unkept'; full: boolean };
