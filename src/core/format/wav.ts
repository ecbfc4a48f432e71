import { said } from '../words/said';
import { SaidError } from '../words/said-error';
import { Pcm } from '../voice/types';

/** What is wrong with a sound file, and what to do about it. */
export class SoundFileError extends SaidError {
  override name = 'SoundFileError';
}

const ascii = (view: DataView, at: number, n: number) => String.fromCharCode(...Array.from({ length: n }, (_, i) => view.getUint8(at + i)));

/** The largest recording that is taken in: twelve minutes at 48 kHz, 24 bit. */
export const MAX_TAKE_BYTES = 104_000_000;

/** The longest one: an analysis takes room and time by the minute, not by the byte. */
export const MAX_TAKE_MINUTES = 15;

/** The format block of a WAV header. */
export interface WavLayout {
  channels: number;
  sampleRate: number;
  bits: number;
  float: boolean;
  dataStart: number;
  /** Bytes of sound the header promises (0xffffffff and the like are cut by the reader to what is there). */
  dataBytes: number;
}

/**
 * Read the header of a RIFF/WAVE file from its first bytes (at least up to the start of the data chunk).
 * Integer PCM of 8, 16, 24 or 32 bits, IEEE float of 32 or 64 bits, plain or extensible header, 8 to 192 kHz.
 * @throws SoundFileError saying what is wrong.
 */
export function wavLayout(bytes: Uint8Array): WavLayout {
  if (bytes.length === 0) throw new SoundFileError('The file is empty: record or export it again.');
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < 12 || (ascii(view, 0, 4) !== 'RIFF' && ascii(view, 0, 4) !== 'RF64') || ascii(view, 8, 4) !== 'WAVE')
    throw new SoundFileError('This is not a WAV file: export the recording as WAV (PCM) and try again.');
  let format: Omit<WavLayout, 'dataStart' | 'dataBytes'> | undefined;
  for (let at = 12; at + 8 <= bytes.length;) {
    const id = ascii(view, at, 4);
    const size = view.getUint32(at + 4, true);
    if (id === 'fmt ' && at + 24 <= bytes.length) {
      let tag = view.getUint16(at + 8, true);
      if (tag === 0xfffe && size >= 40 && at + 34 <= bytes.length) tag = view.getUint16(at + 32, true); // extensible: sub-format
      format = {
        channels: view.getUint16(at + 10, true),
        sampleRate: view.getUint32(at + 12, true),
        bits: view.getUint16(at + 22, true),
        float: tag === 3,
      };
      if (tag !== 1 && tag !== 3) throw new SoundFileError('This WAV file is compressed: export it as plain PCM and try again.');
    } else if (id === 'data') {
      if (!format) throw new SoundFileError('The WAV header is damaged (no format before the sound): export the recording again.');
      checkFormat(format);
      return { ...format, dataStart: at + 8, dataBytes: size };
    }
    at += 8 + size + (size & 1);
  }
  throw new SoundFileError('The WAV file holds no sound: it ends before the samples. Record or export it again.');
}

/** Seconds of sound that a header promises. */
export const secondsOf = ({ dataBytes, bits, channels, sampleRate }: WavLayout): number => dataBytes / ((bits / 8) * channels * sampleRate);

/** A file's header is looked for in its first bytes. */
export const HEADER_BYTES = 65_536;

/** @throws SoundFileError when a recording is longer than one may be. */
export function checkLength(layout: WavLayout, mostMinutes = MAX_TAKE_MINUTES): void {
  const minutes = secondsOf(layout) / 60;
  if (minutes > mostMinutes)
    throw new SoundFileError(
      said('The recording is {minutes} minutes long; at most {most} can be taken in: cut it into shorter takes.', {
        minutes: Math.ceil(minutes),
        most: mostMinutes,
      }),
    );
}

function checkFormat(f: Omit<WavLayout, 'dataStart' | 'dataBytes'>) {
  if (f.channels === 0) throw new SoundFileError('The WAV file has no channels: record in mono or stereo and try again.');
  if (f.channels > 64)
    throw new SoundFileError(said('The WAV file claims {channels} channels: export it in mono or stereo.', { channels: f.channels }));
  if (f.sampleRate < 8000 || f.sampleRate > 192000)
    throw new SoundFileError(said('The sample rate is {rate} Hz: record at 8000 to 192000 Hz.', { rate: f.sampleRate }));
  const known = f.float ? [32, 64] : [8, 16, 24, 32];
  if (!known.includes(f.bits))
    throw new SoundFileError(said('Samples of {bits} bits are not supported: export 16- or 24-bit PCM.', { bits: f.bits }));
}

/**
 * Decode a WAV file; channels are mixed down to one. A file cut off in the middle gives what is there.
 * @throws SoundFileError as `wavLayout` does, and when there isn't one whole sample.
 */
export function readWav(bytes: Uint8Array): Pcm {
  const layout = wavLayout(bytes);
  const frameBytes = (layout.bits / 8) * layout.channels;
  const available = Math.min(layout.dataBytes, bytes.length - layout.dataStart);
  const frames = Math.floor(available / frameBytes);
  if (frames === 0) throw new SoundFileError('The WAV file holds no sound: its data is empty. Record or export it again.');
  const view = new DataView(bytes.buffer, bytes.byteOffset + layout.dataStart, frames * frameBytes);
  const samples = new Float32Array(frames);
  const add = adder(layout);
  for (let c = 0; c < layout.channels; c++) add(view, (c * layout.bits) / 8, frameBytes, samples);
  for (let i = 0; i < frames; i++) samples[i] = Number.isFinite(samples[i]) ? samples[i] / layout.channels : 0;
  return { samples, sampleRate: layout.sampleRate };
}

/** Adds one channel, its first sample at byte `at` and the next `step` bytes on, to `out`. One plain loop a format: files are long. */
function adder({ bits, float }: WavLayout): (view: DataView, at: number, step: number, out: Float32Array) => void {
  if (float && bits === 32)
    return (view, at, step, out) => {
      for (let i = 0; i < out.length; i++, at += step) out[i] += view.getFloat32(at, true);
    };
  if (float)
    return (view, at, step, out) => {
      for (let i = 0; i < out.length; i++, at += step) out[i] += view.getFloat64(at, true);
    };
  if (bits === 8)
    return (view, at, step, out) => {
      for (let i = 0; i < out.length; i++, at += step) out[i] += (view.getUint8(at) - 128) / 128;
    };
  if (bits === 16)
    return (view, at, step, out) => {
      for (let i = 0; i < out.length; i++, at += step) out[i] += view.getInt16(at, true) / 32768;
    };
  if (bits === 24)
    return (view, at, step, out) => {
      for (let i = 0; i < out.length; i++, at += step) out[i] += (view.getUint16(at, true) | (view.getInt8(at + 2) << 16)) / 8388608;
    };
  return (view, at, step, out) => {
    for (let i = 0; i < out.length; i++, at += step) out[i] += view.getInt32(at, true) / 2147483648;
  };
}

/** Encode mono samples as WAV of 16 or 24 bits; values beyond -1..1 are clipped. */
export function writeWav(pcm: Pcm, bits: 16 | 24 = 24): Uint8Array<ArrayBuffer> {
  return wavOf([encodeSamples(pcm.samples, bits)], pcm.sampleRate, bits);
}

/** Samples as they lie in a WAV file: little-endian integers. */
export function encodeSamples(samples: Float32Array, bits: 16 | 24): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array((samples.length * bits) / 8);
  const scale = 2 ** (bits - 1);
  for (let i = 0, at = 0; i < samples.length; i++) {
    const v = stepOf(samples[i], scale);
    bytes[at++] = v;
    bytes[at++] = v >> 8;
    if (bits === 24) bytes[at++] = v >> 16;
  }
  return bytes;
}

/** What is left of samples when they have been written with 24 bits and read again. */
export function asStored(samples: Float32Array): Float32Array {
  const scale = 2 ** 23;
  return samples.map((x) => stepOf(x, scale) / scale);
}

/** The whole step a sample is written as, clipped to what fits. */
const stepOf = (x: number, scale: number) => Math.max(-scale, Math.min(scale - 1, Math.round(x * scale)));

/** A mono WAV file of samples that are encoded already, in pieces. */
export function wavOf(pieces: Uint8Array[], sampleRate: number, bits: 16 | 24): Uint8Array<ArrayBuffer> {
  const width = bits / 8;
  const dataBytes = pieces.reduce((n, p) => n + p.length, 0);
  const bytes = new Uint8Array(44 + dataBytes + (dataBytes & 1));
  const view = new DataView(bytes.buffer);
  const text = (at: number, s: string) => [...s].forEach((c, i) => view.setUint8(at + i, c.charCodeAt(0)));
  text(0, 'RIFF');
  view.setUint32(4, bytes.length - 8, true);
  text(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, 1, true);
  view.setUint16(22, 1, true);
  view.setUint32(24, sampleRate, true);
  view.setUint32(28, sampleRate * width, true);
  view.setUint16(32, width, true);
  view.setUint16(34, bits, true);
  text(36, 'data');
  view.setUint32(40, dataBytes, true);
  let at = 44;
  for (const piece of pieces) {
    bytes.set(piece, at);
    at += piece.length;
  }
  return bytes;
}
