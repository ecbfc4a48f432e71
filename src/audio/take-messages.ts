import type { LiveFrame } from '../core/voice/live';
import type { TakeIdentity } from './kept';

/** To the take worker: `blocks` is the port the audio thread writes to. */
export type ToTakeWorker =
  | { kind: 'open'; sampleRate: number; blocks: MessagePort }
  | { kind: 'start'; take: TakeIdentity }
  | { kind: 'stop' }
  /** Give up the take under way: nothing of it is kept. */
  | { kind: 'drop' };

/** From the take worker. `peak` is the block's largest sample, `power` its mean square, 0..1. */
export type FromTakeWorker =
  | { kind: 'live'; frames: LiveFrame[]; peak: number; power: number }
  | { kind: 'done'; wav: ArrayBuffer; durationS: number }
  /** The take can't be kept in this browser while it is recorded: it lives in this page only. */
  | { kind: 'unkept'; full: boolean };
