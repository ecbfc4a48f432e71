// Keeps the take while it is recorded and tracks it for the live view; encodes and fingerprints it at the end.
import { writeWav } from '../core/format/wav';
import { createLiveTracker } from '../core/voice/live';
import { FromTakeWorker, ToTakeWorker } from './take-messages';

/** Kept from before the start, so that the first onset and the quiet of the room are in the take. */
const PRE_ROLL_S = 0.3;

const send = (message: FromTakeWorker, transfer: Transferable[] = []) => postMessage(message, { transfer });

let sampleRate = 44100;
let tracker = createLiveTracker(sampleRate);
let blocks: Float32Array[] = [];
let recording = false;

onmessage = ({ data }: MessageEvent<ToTakeWorker>) => {
  if (data.kind === 'open') {
    sampleRate = data.sampleRate;
    tracker = createLiveTracker(sampleRate);
    data.blocks.onmessage = (event: MessageEvent<Float32Array>) => take(event.data);
  } else if (data.kind === 'start') {
    recording = true;
    tracker = createLiveTracker(sampleRate);
    for (const block of blocks) tracker.push(block);
  } else void finish();
};

function take(block: Float32Array) {
  let peak = 0;
  for (const sample of block) peak = Math.max(peak, Math.abs(sample));
  // Between takes only the level is shown: the processor is free for what comes after a take.
  send({ kind: 'live', frames: recording ? tracker.push(block) : [], peak });
  blocks.push(block);
  if (!recording) while (blocks.length * block.length > PRE_ROLL_S * sampleRate + block.length) blocks.shift();
}

async function finish() {
  recording = false;
  const samples = new Float32Array(blocks.reduce((n, b) => n + b.length, 0));
  let at = 0;
  for (const block of blocks) {
    samples.set(block, at);
    at += block.length;
  }
  blocks = [];
  const wav = writeWav({ samples, sampleRate }, 24).buffer as ArrayBuffer;
  send({ kind: 'done', wav, durationS: samples.length / sampleRate }, [wav]);
}
