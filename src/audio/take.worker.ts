// Keeps the take while it is recorded, in memory and in the browser's storage, and tracks it for the live view.
import { writeWav } from '../core/format/wav';
import { createLiveTracker } from '../core/voice/live';
import { addBlock, beginKept, forgetKept, recordingLock, TakeIdentity, updateKept } from './kept';
import { FromTakeWorker, ToTakeWorker } from './take-messages';

/** Kept from before the start, so that the first onset and the quiet of the room are in the take. */
const PRE_ROLL_S = 0.3;
/** A crash loses at most about this much. */
const KEEP_EVERY_S = 0.5;

const send = (message: FromTakeWorker, transfer: Transferable[] = []) => postMessage(message, { transfer });

let sampleRate = 44100;
let tracker = createLiveTracker(sampleRate);
let blocks: Float32Array[] = [];
let recording: Keeper | null = null;

onmessage = ({ data }: MessageEvent<ToTakeWorker>) => {
  if (data.kind === 'open') {
    sampleRate = data.sampleRate;
    tracker = createLiveTracker(sampleRate);
    data.blocks.onmessage = (event: MessageEvent<Float32Array>) => take(event.data);
  } else if (data.kind === 'start') {
    recording = createKeeper(data.take);
    tracker = createLiveTracker(sampleRate);
    for (const block of blocks) tracker.push(block);
  } else if (data.kind === 'stop') void finish();
  else void drop();
};

function take(block: Float32Array) {
  let peak = 0;
  let power = 0;
  for (let i = 0; i < block.length; i++) {
    peak = Math.max(peak, Math.abs(block[i]));
    power += block[i] * block[i];
  }
  // Between takes only the level is shown: the processor is free for what comes after a take.
  send({ kind: 'live', frames: recording ? tracker.push(block) : [], peak, power: power / block.length });
  blocks.push(block);
  if (recording) recording.tick();
  else while (blocks.length * block.length > PRE_ROLL_S * sampleRate + block.length) blocks.shift();
}

type Keeper = ReturnType<typeof createKeeper>;

/** Writes the take under way to the browser's storage, piece by piece and in order; says once if it can't. */
function createKeeper(identity: TakeIdentity) {
  let from = 0;
  let number = 0;
  let failed = false;
  let over: () => void = () => {};
  // While this lock is held nobody takes the recording for cut off.
  void navigator.locks.request(recordingLock(identity.id), () => new Promise<void>((resolve) => (over = resolve)));
  const attempt = async (work: () => Promise<void>) => {
    if (failed) return;
    try {
      await work();
    } catch (error) {
      failed = true;
      send({ kind: 'unkept', full: (error as DOMException).name === 'QuotaExceededError' });
    }
  };
  let queue = attempt(() => beginKept(identity, sampleRate));
  const write = () => {
    const piece = joined(blocks.slice(from));
    from = blocks.length;
    const n = number++;
    if (piece.length > 0) queue = queue.then(() => attempt(() => addBlock(identity.id, n, piece)));
  };
  return {
    tick() {
      if ((blocks.length - from) * (blocks[0]?.length ?? 0) >= KEEP_EVERY_S * sampleRate) write();
    },
    async end() {
      write();
      queue = queue.then(() => attempt(() => updateKept(identity.id, { state: 'ready' })));
      await queue;
      over();
    },
    async drop() {
      await queue;
      await forgetKept(identity.id).catch(() => {});
      over();
    },
  };
}

function joined(parts: Float32Array[]): Float32Array<ArrayBuffer> {
  const out = new Float32Array(parts.reduce((n, b) => n + b.length, 0));
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  return out;
}

async function finish() {
  const keeper = recording;
  recording = null;
  const samples = joined(blocks);
  const kept = keeper?.end();
  blocks = [];
  const wav = writeWav({ samples, sampleRate }, 24).buffer as ArrayBuffer;
  await kept;
  send({ kind: 'done', wav, durationS: samples.length / sampleRate }, [wav]);
}

async function drop() {
  const keeper = recording;
  recording = null;
  blocks = [];
  await keeper?.drop();
}
