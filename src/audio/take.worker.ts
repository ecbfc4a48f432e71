// Keeps the take while it is recorded, in memory and in the browser's storage, and tracks it for the live view.
import { judgeTake, NOT_USABLE } from '../core/judge/judge';
import { asStored, encodeSamples, wavOf } from '../core/format/wav';
import { analyseTake, analyseTrack } from '../core/take/analyse';
import type { TimbreAxis } from '../core/take/timbre';
import { createLevelMeter, readCalibrator } from '../core/signal/level';
import { createLiveEar } from '../core/take/live';
import { createTracker } from '../core/voice/track';
import { addBlock, beginKept, forgetKept, recordingLock, TakeIdentity, updateKept } from '../sync/kept-takes';
import { Against, FromTakeWorker, JudgedTake, ToTakeWorker } from './take-messages';

/** Kept from before the start, so that the first onset and the quiet of the room are in the take. */
const PRE_ROLL_S = 0.3;
/** A crash loses at most about this much. */
const KEEP_EVERY_S = 0.5;
/** So much of a calibrator's tone is read. */
const CALIBRATE_S = 2;

const send = (message: FromTakeWorker, transfer: Transferable[] = []) => postMessage(message, { transfer });

let sampleRate = 44100;
let ear = createLiveEar(sampleRate);
let meter = createLevelMeter(sampleRate);
/** The moments before a take. */
let lead: Float32Array[] = [];
/** A calibrator's tone while it is being read. */
let calibrating: Float32Array[] | null = null;
let recording: Keeper | null = null;
let held = false;
/** The last take's way into the browser's storage, and the end of it until it is heard. */
let ending: Promise<void> = Promise.resolve();
let finishing: Promise<void> = Promise.resolve();

onmessage = ({ data }: MessageEvent<ToTakeWorker>) => {
  if (data.kind === 'open') {
    sampleRate = data.sampleRate;
    ear = createLiveEar(sampleRate);
    meter = createLevelMeter(sampleRate);
    data.blocks.onmessage = (event: MessageEvent<Float32Array>) => take(event.data);
  } else if (data.kind === 'start') {
    recording = createKeeper(data.take, data.axis);
    held = false;
    ear.begin(data.take.vowel, data.axis);
    for (const block of lead) {
      ear.push(block);
      recording.take(block);
    }
    lead = [];
  } else if (data.kind === 'warm') warmUp(0);
  else if (data.kind === 'calibrate') calibrating = [];
  else if (data.kind === 'hold') held = data.on;
  else if (data.kind === 'stop') finishing = finish(data.against);
  // A take under way is cut off, and offered when the page is opened again.
  else if (data.kind === 'close') void (recording ? Promise.resolve() : finishing).finally(() => self.close());
  else void drop();
};

function take(sound: Float32Array) {
  const block = asStored(sound);
  let peak = 0;
  for (let i = 0; i < block.length; i++) peak = Math.max(peak, Math.abs(block[i]));
  // Between takes only the level is shown: the processor is free for what comes after a take.
  send({ kind: 'live', frames: recording && !held ? ear.push(block) : [], peak, levelDb: meter(block) });
  if (calibrating) calibrate(calibrating, block);
  if (recording) return held ? undefined : recording.take(block);
  lead.push(block);
  while (lead.length * block.length > PRE_ROLL_S * sampleRate + block.length) lead.shift();
}

function calibrate(heard: Float32Array[], block: Float32Array) {
  heard.push(block);
  if (heard.length * block.length < CALIBRATE_S * sampleRate) return;
  calibrating = null;
  send({ kind: 'calibrator', reading: readCalibrator(joined(heard), sampleRate) });
}

type Keeper = ReturnType<typeof createKeeper>;

/**
 * Writes the take under way to the browser's storage, piece by piece and in order (says once if it can't), and does what can be
 * done of its file and its analysis before it ends.
 */
function createKeeper(identity: TakeIdentity, axis: TimbreAxis | null) {
  const whole = createTracker(sampleRate);
  const encoded: Uint8Array[] = [];
  let length = 0;
  let unwritten: Float32Array[] = [];
  let unwrittenLength = 0;
  let number = 0;
  // What is only heard here leaves nothing behind, whenever the page goes away.
  let keeps = !identity.hereOnly;
  let over: () => void = () => {};
  // While this lock is held nobody takes the recording for cut off.
  void navigator.locks.request(recordingLock(identity.id), () => new Promise<void>((resolve) => (over = resolve)));
  const attempt = async (work: () => Promise<void>) => {
    if (!keeps) return;
    try {
      await work();
    } catch (error) {
      keeps = false;
      send({ kind: 'unkept', full: (error as DOMException).name === 'QuotaExceededError' });
    }
  };
  let queue = attempt(() => beginKept(identity, sampleRate));
  const write = () => {
    const piece = joined(unwritten);
    unwritten = [];
    unwrittenLength = 0;
    const n = number++;
    if (piece.length > 0) queue = queue.then(() => attempt(() => addBlock(identity.id, n, piece)));
  };
  return {
    take(block: Float32Array) {
      length += block.length;
      unwritten.push(block);
      unwrittenLength += block.length;
      if (unwrittenLength >= KEEP_EVERY_S * sampleRate) write();
      encoded.push(encodeSamples(block, 24));
      whole.push(block);
    },
    durationS: () => length / sampleRate,
    file: () => wavOf(encoded, sampleRate, 24).buffer,
    hear(against: Against | null): JudgedTake {
      try {
        const known = { asked: identity.asked, axis: axis ?? undefined };
        const { findings, trace } = analyseTrack(whole.finish(), identity.task, known, { durationS: length / sampleRate, sampleRate });
        const judgement = against && judgeTake(against.asked, { findings, trace }, against.voice);
        return { findings, trace, judgement, error: null };
      } catch (error) {
        return { findings: null, trace: null, judgement: against && NOT_USABLE, error: (error as Error).message };
      }
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

async function finish(against: Against | null) {
  const keeper = recording;
  recording = null;
  if (!keeper) return;
  ending = keeper.end();
  const wav = keeper.file();
  send({ kind: 'done', wav, durationS: keeper.durationS() }, [wav]);
  // What is shown is kept, whole: a reload from then on loses nothing.
  await ending;
  send({ kind: 'heard', heard: keeper.hear(against) });
}

/**
 * Rounds of warming up, each short, so that blocks and messages come through between them. Three halve the time until a first take is heard
 * (0.54 to 0.27 s for a siren of 6.5 s, measured); 24 bring it to 0.17 s for four more seconds of work, twenty of a phone's.
 */
const WARM_UPS = 3;

/** Code that has run often is several times as fast: the first take is heard nearly as quickly as the others. */
function warmUp(round: number) {
  if (round === WARM_UPS || recording) return;
  const rate = 16000;
  let phase = 0;
  // Up and down with a leap each way, of a different place in each round, between two quiets.
  const leap = 2 ** ((2 + round) / 12);
  const samples = Float32Array.from({ length: 3 * rate }, (_, i) => {
    const t = i / rate - 0.3;
    const octaves = t < 1.2 ? 1.4 * t : 1.4 * (2.4 - t);
    const hz = 110 * 2 ** octaves * (octaves > 0.8 ? leap : 1);
    phase += hz / rate;
    const hiss = 1e-3 * Math.sin(i * i);
    return t < 0 || t > 2.4 ? hiss : 0.5 * (2 * (phase % 1) - 1) + hiss;
  });
  analyseTake({ samples, sampleRate: rate }, 'siren');
  setTimeout(() => warmUp(round + 1), 5);
}

async function drop() {
  const keeper = recording;
  recording = null;
  ending = keeper?.drop() ?? ending;
  await ending;
}
