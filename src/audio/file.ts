import { said } from '../core/words/said';
import { SaidError } from '../core/words/said-error';
import { checkLength, MAX_TAKE_BYTES, secondsOf, wavLayout, writeWav } from '../core/format/wav';
import { Recording } from './input';

const DECODE_RATE = 48000;

/**
 * A dropped or chosen audio file as a recording: WAV files stay as they are, anything else the browser can decode becomes
 * WAV. @throws SaidError.
 */
export async function recordingOf(file: File): Promise<Recording> {
  if (file.size === 0) throw new SaidError(said('“{file}” is empty: export it again.', { file: { own: file.name } }));
  if (file.size > MAX_TAKE_BYTES)
    throw new SaidError(
      said('“{file}” is {size} MB; at most {most} MB (about twelve minutes) can be taken in: cut it into shorter takes.', {
        file: { own: file.name },
        size: Math.round(file.size / 1e6),
        most: MAX_TAKE_BYTES / 1e6,
      }),
    );
  const bytes = await file.arrayBuffer();
  if (isRiff(bytes)) {
    const layout = wavLayout(new Uint8Array(bytes));
    checkLength(layout);
    return { wav: bytes, durationS: secondsOf({ ...layout, dataBytes: Math.min(layout.dataBytes, bytes.byteLength - layout.dataStart) }) };
  }
  let decoded: AudioBuffer;
  try {
    decoded = await new OfflineAudioContext(1, 1, DECODE_RATE).decodeAudioData(bytes);
  } catch {
    throw new SaidError(
      said('“{file}” is not a sound this browser can read: use WAV, FLAC, MP3, M4A or Ogg.', { file: { own: file.name } }),
    );
  }
  const samples = new Float32Array(decoded.length);
  for (let c = 0; c < decoded.numberOfChannels; c++) {
    const channel = decoded.getChannelData(c);
    for (let i = 0; i < samples.length; i++) samples[i] += channel[i] / decoded.numberOfChannels;
  }
  const wav = writeWav({ samples, sampleRate: decoded.sampleRate }, 24).buffer as ArrayBuffer;
  if (wav.byteLength > MAX_TAKE_BYTES)
    throw new SaidError(
      said('“{file}” lasts {minutes} minutes: cut it into takes of at most twelve.', {
        file: { own: file.name },
        minutes: Math.round(decoded.duration / 60),
      }),
    );
  return { wav, durationS: decoded.duration };
}

const isRiff = (bytes: ArrayBuffer) => bytes.byteLength >= 4 && String.fromCharCode(...new Uint8Array(bytes, 0, 4)) === 'RIFF';
