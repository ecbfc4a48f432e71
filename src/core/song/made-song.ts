import type { Trace } from '../take/types';
import { gaussian } from '../signal/stats';
import { phrasesOf } from './phrases';
import { secondsAt, Song } from './types';
import { typedSong } from './typed';

/** For tests: a melody drawn at random: steps and leaps in a key, four-bar phrases with rests, and words of one vowel each. */
export function drawnSong(random: () => number, { bars = 16, low = 55, high = 74, tempo = 60 + 60 * random() } = {}): Song {
  const scale = [0, 2, 4, 5, 7, 9, 11];
  const inKey = (midi: number) => scale.includes((((midi - low) % 12) + 12) % 12);
  const tokens: string[] = [];
  let midi = low + 12 * Math.floor((random() * (high - low)) / 24) + 4;
  for (let bar = 0; bar < bars; bar++) {
    let left = 4;
    const ends = bar % 4 === 3;
    while (left > 0) {
      const beats = ends && left <= 2 ? left : Math.min(left, [0.5, 1, 1, 1, 1.5, 2][Math.floor(random() * 6)]);
      const by = random() < 0.7 ? Math.round(random() * 4 - 2) : Math.round(random() * 16 - 8);
      // Off the edges it turns back: a tune repeats a note now and then, not ten times.
      midi += midi + by > high || midi + by < low ? -by : by;
      if (!inKey(midi)) midi += midi < high ? 1 : -1;
      const rests = ends && left === beats;
      tokens.push(`${noteText(midi)}:${rests ? Math.max(0.5, beats - 1) : beats}`);
      if (rests && beats > 1) tokens.push('r:1');
      else if (rests) tokens[tokens.length - 1] = `${noteText(midi)}:0.5 r:${beats - 0.5 || 0.5}`;
      left -= beats;
    }
  }
  const notes = tokens.filter((t) => !t.startsWith('r')).length;
  return typedSong({
    title: 'Drawn',
    tempo,
    meter: [4, 4],
    melody: tokens.join(' '),
    words: Array.from({ length: notes * 2 }, () => 'la').join(' '),
  });
}
const noteText = (midi: number) =>
  `${['C', 'C#', 'D', 'D#', 'E', 'F', 'F#', 'G', 'G#', 'A', 'A#', 'B'][midi % 12]}${Math.floor(midi / 12) - 1}`;

/** How a made take of a song differs from what is written. */
export interface SungAs {
  semitones?: number;
  /** Lengths stray by so much at most, in waves of some bars. */
  rubato?: number;
  /** Share of notes sung on a wrong pitch. */
  wrong?: number;
  /** Break off inside a phrase, pause, and begin it again. */
  restart?: boolean;
  /** Only these notes (first and last). */
  only?: [number, number];
}

/** Where each sung note really began and ended. */
export interface TrueNote {
  note: number;
  startS: number;
  endS: number;
}

/** What is done one after the other in a made take: a note sung on a pitch for so long, or silence (null). */
export interface Step {
  note: number | null;
  midi: number;
  seconds: number;
}

/** For tests: how a singer goes through a song. The first and the last step are silence. */
export function wayThrough(
  song: Song,
  random: () => number,
  { semitones = 0, rubato = 0, wrong = 0, restart = false, only = [0, song.notes.length - 1] }: SungAs = {},
): Step[] {
  const steps: Step[] = [];
  const quiet = (seconds: number) => steps.push({ note: null, midi: 0, seconds });
  const phase = random() * 2 * Math.PI;
  const wave = 6 + 10 * random();
  const pace = (note: number) => 1 + rubato * Math.sin(phase + (2 * Math.PI * note) / wave);
  const sing = (first: number, last: number) => {
    for (let n = first; n <= last; n++) {
      const { start, beats, midi } = song.notes[n];
      const off = random() < wrong ? (random() < 0.5 ? -1 : 1) * (1 + Math.round(random())) : 0;
      steps.push({ note: n, midi: midi + semitones + off, seconds: (secondsAt(song, start + beats) - secondsAt(song, start)) * pace(n) });
      const next = song.notes[n + 1];
      const rest = next && n < last ? secondsAt(song, next.start) - secondsAt(song, start + beats) : 0;
      if (rest > 0.01) quiet(rest * pace(n));
    }
  };
  quiet(0.5 + random());
  const [first, last] = only;
  const phrases = phrasesOf(song).filter((p) => p.last > first && p.first < last && p.last - p.first > 3);
  if (restart && phrases.length) {
    const p = phrases[Math.floor(random() * phrases.length)];
    const from = Math.max(first, p.first);
    const broke = from + Math.max(1, Math.floor((Math.min(last, p.last) - from) * (0.4 + 0.4 * random())));
    sing(first, broke);
    quiet(0.8 + random());
    sing(from, last);
  } else sing(first, last);
  quiet(0.5);
  return steps;
}

const HOP_S = 0.01;

/** For tests: the pitch curve of a take of a song, with a voice's glides, swings, consonants and unrest, and where each note really lay. */
export function madeSongTake(song: Song, random: () => number, as: SungAs = {}): { trace: Trace; truth: TrueNote[] } {
  const normal = gaussian(random);
  const midi: number[] = [];
  const levelDb: number[] = [];
  const truth: TrueNote[] = [];
  let before = 0;
  for (const { note, seconds, ...step } of wayThrough(song, random, as)) {
    const frames = Math.round(seconds / HOP_S);
    if (note === null) {
      for (let i = 0; i < frames; i++) {
        midi.push(0);
        levelDb.push(-70);
      }
      before = 0;
      continue;
    }
    const pitch = step.midi + 0.12 * normal();
    // The vowel falls on the beat: its consonant takes the end of the note before (common practice).
    if (song.notes[note].words && before && random() < 0.7)
      for (let i = 1; i <= Math.round((0.03 + 0.05 * random()) / HOP_S); i++) {
        midi[midi.length - i] = 0;
        levelDb[midi.length - i] = -45;
      }
    const startS = midi.length * HOP_S;
    for (let i = 0; i < frames; i++) {
      const t = i * HOP_S;
      const glide = before ? Math.exp(-t / 0.03) : 0;
      midi.push(pitch + (before - pitch) * glide + 0.35 * Math.sin(2 * Math.PI * 5.5 * t) * Math.min(1, t / 0.5) + 0.03 * normal());
      levelDb.push(-20 - 3 * Math.exp(-t / 0.02) + normal() * 0.5);
    }
    truth.push({ note, startS, endS: midi.length * HOP_S });
    before = pitch;
  }
  return { trace: { hopS: HOP_S, midi, levelDb, head: midi.map(() => 0) }, truth };
}
