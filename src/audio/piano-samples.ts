import { texts } from '../core/words/said';

/** What is said where the piano can't be had. */
export const NO_PIANO = texts('The piano’s sounds could not be loaded: check that Wendel is running and try again.');
/** Every third semitone is sampled; what is between is made from its neighbour. Files are laid out by bin/lib/build.mjs. */
const OCTAVES = [2, 3, 4, 5, 6];
const LETTERS = [
  ['C', 0],
  ['D#', 3],
  ['F#', 6],
  ['A', 9],
] as const;

/** The piano's sampled notes: name, MIDI, and where the file lies. */
export const PIANO_SAMPLES = OCTAVES.flatMap((octave) =>
  LETTERS.map(([letter, step]) => ({
    name: `${letter}${octave}`,
    midi: 12 * (octave + 1) + step,
    path: `/piano/${letter.replace('#', 's')}${octave}.ogg`,
  })),
);

/** Enough for a piano to sing along with, and half the size of a CD's. */
export const PIANO_RATE = 32_000;

export interface PianoSound {
  name: string;
  midi: number;
  buffer: AudioBuffer;
}

/** The files are cut while the string still rings a little (bin/lib/build.mjs): it ends without a click. */
const FADE_S = 0.5;
function fadeOut(buffer: AudioBuffer): void {
  const over = Math.min(buffer.length, Math.round(FADE_S * buffer.sampleRate));
  for (let channel = 0; channel < buffer.numberOfChannels; channel++) {
    const end = buffer.getChannelData(channel).subarray(buffer.length - over);
    for (let i = 0; i < over; i++) end[i] *= 1 - i / over;
  }
}

let decoded: Promise<PianoSound[]> | undefined;

/** The piano's samples, decoded once, on the browser's own threads; needs no touch first, as sounding does. */
export function decodedPiano(): Promise<PianoSound[]> {
  decoded ??= Promise.all(
    PIANO_SAMPLES.map(async ({ name, midi, path }) => {
      const file = await fetch(path);
      if (!file.ok) throw new Error(String(file.status));
      const buffer = await new OfflineAudioContext(1, 1, PIANO_RATE).decodeAudioData(await file.arrayBuffer());
      fadeOut(buffer);
      return { name, midi, buffer };
    }),
  );
  decoded.catch(() => (decoded = undefined));
  return decoded;
}
