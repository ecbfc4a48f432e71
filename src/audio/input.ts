import { said, Said } from '../core/words/said';
import { SaidError } from '../core/words/said-error';
import type { Pcm } from '../core/voice/types';
import type { TakeIdentity } from '../sync/kept-takes';
import type { CalibratorReading } from '../core/signal/level';
import type { TimbreAxis } from '../core/take/timbre';
import type { Against, FromTakeWorker, JudgedTake, ToTakeWorker } from './take-messages';

/** A finished recording: a WAV file of 24 bits. */
export interface Recording {
  wav: ArrayBuffer;
  durationS: number;
}

/** A recording from an input, which is heard right there; a file is heard by the server only. */
export interface HeardRecording extends Recording {
  heard: Promise<JudgedTake>;
}

export type Live = Extract<FromTakeWorker, { kind: 'live' }>;

/** An open input: sound flows to `onLive` at once and is kept between `start` and `stop`, in the browser's storage too. */
export interface Input {
  start(take: TakeIdentity, axis: TimbreAxis | null): void;
  /** `against`: what it is judged against, where an exercise was asked for. */
  stop(against: Against | null): Promise<HeardRecording>;
  /** Take nothing in for a while, and go on. */
  hold(on: boolean): void;
  /** Read the calibrator's tone that sounds now: takes two seconds. */
  calibrate(): Promise<CalibratorReading>;
  /** Give up the take under way. */
  drop(): void;
  close(): void;
}

/** What an input tells its room. */
export interface InputEvents {
  onLive(live: Live): void;
  /** The device went away; what was recorded until then is there. */
  onLost(): void;
  /** The take under way can't be kept in the browser's storage (full, or not allowed). */
  onUnkept(full: boolean): void;
}

/** Why the microphone can't be had, with what to do; shown as it is. */
export class InputError extends SaidError {}

/** Voice processing of the browser is off: it would gate, level and filter the voice. */
const PLAIN_SOUND: MediaTrackConstraints = {
  echoCancellation: false,
  noiseSuppression: false,
  autoGainControl: false,
  channelCount: { ideal: 1 },
};

/** Open a microphone (the browser's choice, or the one with `deviceId` if it is there). @throws InputError in words for the user. */
export async function openMicrophone(deviceId: string | null, events: InputEvents): Promise<Input> {
  if (!navigator.mediaDevices?.getUserMedia)
    throw new InputError(
      'This browser gives no microphone to this page: open it at http://localhost or over https, in a current browser. A file works too.',
    );
  let stream: MediaStream;
  try {
    stream = await navigator.mediaDevices.getUserMedia({
      audio: { ...PLAIN_SOUND, ...(deviceId ? { deviceId: { ideal: deviceId } } : {}) },
    });
  } catch (error) {
    throw new InputError(microphoneTrouble((error as DOMException).name));
  }
  const track = stream.getAudioTracks()[0];
  track.addEventListener('ended', events.onLost);
  // The device's own rate: no converter of the browser stands between.
  const context = await contextAt(track.getSettings().sampleRate);
  const input = await openInput(context, events);
  context.createMediaStreamSource(stream).connect(input.node);
  return {
    ...input,
    close() {
      track.removeEventListener('ended', events.onLost);
      for (const t of stream.getTracks()) t.stop();
      input.close();
    },
  };
}

function microphoneTrouble(name: string): Said {
  if (name === 'NotAllowedError')
    return said('The microphone is blocked for this page: allow it in the address bar of the browser, then start again.');
  if (name === 'NotFoundError' || name === 'OverconstrainedError')
    return said('No microphone was found: plug one in, then start again. A file works too.');
  if (name === 'NotReadableError') return said('The microphone is in use by another program: close that program, then start again.');
  return said('The microphone can’t be opened ({why}): check it in the system’s sound settings, then start again.', { why: { own: name } });
}

/** The microphones there are, by name; names come only once one has been allowed. */
export async function microphones(): Promise<{ id: string; name: string }[]> {
  const devices = (await navigator.mediaDevices?.enumerateDevices?.()) ?? [];
  return devices.filter((d) => d.kind === 'audioinput' && d.label).map((d) => ({ id: d.deviceId, name: d.label }));
}

/** Play a sound into an input as if it were a microphone, audibly; `onEnd` when it is over. */
export async function openSound(pcm: Pcm, events: InputEvents, onEnd: () => void): Promise<Input> {
  const context = await contextAt(pcm.sampleRate);
  const input = await openInput(context, events);
  const buffer = context.createBuffer(1, pcm.samples.length, pcm.sampleRate);
  buffer.getChannelData(0).set(pcm.samples);
  const source = context.createBufferSource();
  source.buffer = buffer;
  source.connect(input.node);
  source.connect(context.destination);
  source.onended = onEnd;
  return {
    ...input,
    start(take, axis) {
      input.start(take, axis);
      source.start();
    },
    calibrate() {
      source.start();
      return input.calibrate();
    },
  };
}

async function contextAt(sampleRate: number | undefined): Promise<AudioContext> {
  let context: AudioContext;
  try {
    context = new AudioContext({ sampleRate, latencyHint: 'interactive' });
  } catch {
    context = new AudioContext({ latencyHint: 'interactive' });
  }
  await context.audioWorklet.addModule('/worklets/capture.js');
  await context.resume();
  return context;
}

const createTakeWorker = () => new Worker(new URL('./take.worker.ts', import.meta.url), { type: 'module' });
let prepared: Worker | undefined;

/** Have a worker ready for the next input; `warm`: what comes is to be heard, not only kept. */
export function prepareInput(warm: boolean): void {
  prepared ??= createTakeWorker();
  if (warm) prepared.postMessage({ kind: 'warm' } satisfies ToTakeWorker);
}

async function openInput(context: AudioContext, events: InputEvents): Promise<Input & { node: AudioNode }> {
  const worker = prepared ?? createTakeWorker();
  prepared = undefined;
  const node = new AudioWorkletNode(context, 'wendel-capture', { numberOfOutputs: 0 });
  const channel = new MessageChannel();
  node.port.postMessage(channel.port1, [channel.port1]);
  const tell = (message: ToTakeWorker, transfer: Transferable[] = []) => worker.postMessage(message, transfer);
  tell({ kind: 'open', sampleRate: context.sampleRate, blocks: channel.port2 }, [channel.port2]);
  let finished: (recording: Recording) => void = () => {};
  let hears: (heard: JudgedTake) => void = () => {};
  let reads: (reading: CalibratorReading) => void = () => {};
  worker.onmessage = ({ data }: MessageEvent<FromTakeWorker>) => {
    if (data.kind === 'live') events.onLive(data);
    else if (data.kind === 'unkept') events.onUnkept(data.full);
    else if (data.kind === 'calibrator') reads(data.reading);
    else if (data.kind === 'heard') hears(data.heard);
    else finished({ wav: data.wav, durationS: data.durationS });
  };
  return {
    node,
    start: (take, axis) => tell({ kind: 'start', take, axis }),
    hold: (on) => tell({ kind: 'hold', on }),
    drop: () => tell({ kind: 'drop' }),
    calibrate: () =>
      new Promise((resolve) => {
        reads = resolve;
        tell({ kind: 'calibrate' });
      }),
    stop: (against) =>
      new Promise((resolve) => {
        const heard = new Promise<JudgedTake>((tellHeard) => (hears = tellHeard));
        finished = (recording) => resolve({ ...recording, heard });
        tell({ kind: 'stop', against });
      }),
    close() {
      tell({ kind: 'close' });
      void context.close();
    },
  };
}
