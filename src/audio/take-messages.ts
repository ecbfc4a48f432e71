import type { LiveFrame } from '../core/voice/live';

/** To the take worker: `blocks` is the port the audio thread writes to. */
export type ToTakeWorker = { kind: 'open'; sampleRate: number; blocks: MessagePort } | { kind: 'start' } | { kind: 'stop' };

/** From the take worker. `peak` is the block's largest sample, 0..1. */
export type FromTakeWorker = { kind: 'live'; frames: LiveFrame[]; peak: number } | { kind: 'done'; wav: ArrayBuffer; durationS: number };
