import { FollowAlong, PianoNote } from './follow-along';

/** A recorded note of an instrument: its MIDI note, and samples at `rate`. */
export interface InstrumentSample {
  midi: number;
  samples: Float32Array;
}

/** After a note is let go it dies away over this long, seconds. */
const RELEASE_S = 0.35;
/** Overall level, so that a chord of three and a note over it stay under full scale. */
const LEVEL = 0.5;
const BLOCK_S = 20;
/** What still rings after the last note. */
const TAIL_S = 1;

/**
 * Mix a follow-along from an instrument's samples, block by block (mono, at the samples' rate), so that a quarter of an hour
 * never lies in memory as floats at once. A note sounds the nearest sample, resampled by straight lines between its points.
 */
export function* mix(
  follow: Pick<FollowAlong, 'notes' | 'totalS'>,
  instrument: readonly InstrumentSample[],
  rate: number,
): Generator<Float32Array> {
  if (instrument.length === 0) throw new RangeError('An instrument needs at least one sample.');
  const notes = [...follow.notes].sort((a, b) => a.startS - b.startS);
  const total = Math.ceil((follow.totalS + TAIL_S) * rate);
  const block = Math.round(BLOCK_S * rate);
  let first = 0;
  const longest = Math.max(0, ...notes.map((n) => n.endS - n.startS)) + RELEASE_S;
  for (let from = 0; from < total; from += block) {
    const out = new Float32Array(Math.min(block, total - from));
    while (first < notes.length && (notes[first].startS + longest) * rate < from) first++;
    for (let n = first; n < notes.length && notes[n].startS * rate < from + out.length; n++) add(out, from, notes[n], instrument, rate);
    yield out;
  }
}

function add(out: Float32Array, from: number, note: PianoNote, instrument: readonly InstrumentSample[], rate: number): void {
  const sample = instrument.reduce((a, b) => (Math.abs(b.midi - note.midi) < Math.abs(a.midi - note.midi) ? b : a));
  const step = 2 ** ((note.midi - sample.midi) / 12);
  const start = Math.round(note.startS * rate);
  const held = Math.round((note.endS - note.startS) * rate);
  const release = Math.round(RELEASE_S * rate);
  const last = Math.min(held + release, Math.floor((sample.samples.length - 2) / step), from + out.length - start);
  const { samples } = sample;
  const gain = LEVEL * note.loudness;
  for (let i = Math.max(0, from - start); i < last; i++) {
    const at = i * step;
    const whole = Math.floor(at);
    const value = samples[whole] + (at - whole) * (samples[whole + 1] - samples[whole]);
    // Let go, it dies away as the square of a straight line: no click, no long tail.
    const left = i < held ? 1 : (1 - (i - held) / release) ** 2;
    out[start + i - from] += gain * left * value;
  }
}
