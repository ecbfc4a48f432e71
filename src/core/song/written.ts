import { WrittenLength, writtenLengths } from '../exercise/lengths';
import { spellIn } from '../music/spell';
import type { Bar, Song, SongNote } from './types';

/** One sign in a bar: a rest, or a note or a tied part of one. */
export interface WrittenSign {
  length: WrittenLength;
  /** Null for a rest. */
  note: SongNote | null;
  /** Where it stands, crotchets from the beginning of the song. */
  start: number;
  spelled: { letter: string; accidental: number; octave: number } | null;
  /** The first, and the last, of the signs of its note. */
  begins: boolean;
  ends: boolean;
  /** A slide leads to it. */
  slidTo: boolean;
}

export interface WrittenBar {
  bar: Bar;
  meter: [number, number];
  /** Whether its meter is written, differing from the bar's before. */
  newMeter: boolean;
  upbeat: boolean;
  signs: WrittenSign[];
}

/** Sharps or flats of a signature moved by semitones, six at most. */
export function fifthsOf(fifths: number, semitones: number): number {
  const moved = (((fifths + 7 * semitones) % 12) + 12) % 12;
  return moved > 6 ? moved - 12 : moved;
}

/** Whether notes of a song, `semitones` higher than written, are named with flats (Bb4) or sharps (A#4). */
export const namesFlats = ({ fifths }: Pick<Song, 'fifths'>, semitones: number): boolean => fifthsOf(fifths, semitones) < 0;

const CLOSE = 1e-6;
const fullOf = (meter: readonly [number, number]) => (meter[0] * 4) / meter[1];

/** A song as it is written: each bar with its signs, notes tied over bar lines and rests between, `semitones` higher than it is kept. */
export function writtenBars(song: Song, semitones = 0): WrittenBar[] {
  const fifths = fifthsOf(song.fifths, semitones);
  const pieces = piecesOf(song);
  let meter: [number, number] | null = null;
  return song.bars.map((bar, b) => {
    // An upbeat is a bar of the song's meter that isn't full.
    const upbeat = b === 0 && bar.beats < fullOf(song.meter) - CLOSE;
    const now = upbeat ? song.meter : meterOf(song, bar, meter);
    const newMeter = !meter || now[0] !== meter[0] || now[1] !== meter[1];
    meter = now;
    const signs: WrittenSign[] = [];
    let at = bar.start;
    for (const p of pieces[b]) {
      signs.push(...rests(at, p.start));
      const spelled = spellIn(p.note.midi + semitones, fifths);
      let start = p.start;
      const lengths = lengthsOf(p.beats);
      lengths.forEach((length, i) => {
        const begins = p.begins && i === 0;
        const ends = p.ends && i === lengths.length - 1;
        signs.push({ length, note: p.note, start, spelled, begins, ends, slidTo: begins && p.slidTo });
        start += length.beats;
      });
      at = p.start + p.beats;
    }
    signs.push(...rests(at, bar.start + bar.beats));
    return { bar, meter: now, newMeter, upbeat, signs };
  });
}

function rests(from: number, to: number): WrittenSign[] {
  if (to <= from + CLOSE) return [];
  let start = from;
  return lengthsOf(to - from).map((length) => {
    const rest = { length, note: null, start, spelled: null, begins: true, ends: true, slidTo: false };
    start += length.beats;
    return rest;
  });
}

/** What a bar's meter is written as: the one before, the song's, or, for an odd bar, its own length. */
function meterOf(song: Song, bar: Bar, before: [number, number] | null): [number, number] {
  for (const m of before ? [before, song.meter] : [song.meter]) if (Math.abs(fullOf(m) - bar.beats) < CLOSE) return m;
  for (const kind of [4, 8, 16, 32]) {
    const beats = (bar.beats * kind) / 4;
    if (Math.abs(beats - Math.round(beats)) < CLOSE) return [Math.round(beats), kind];
  }
  return [Math.max(1, Math.round(bar.beats * 8)), 32];
}

/** How a length is written; one no notes have (a quintuplet's, or one that was sung in) by the nearest that can be, its time kept. */
function lengthsOf(beats: number): WrittenLength[] {
  try {
    return writtenLengths(beats);
  } catch {
    const near = Math.max(1, Math.round(beats * 8)) / 8;
    return writtenLengths(near).map((part) => ({ ...part, beats: (part.beats * beats) / near }));
  }
}

/** A note, or what of it lies in one bar. */
interface Piece {
  note: SongNote;
  start: number;
  beats: number;
  begins: boolean;
  ends: boolean;
  slidTo: boolean;
}

function piecesOf(song: Song): Piece[][] {
  const out = song.bars.map((): Piece[] => []);
  let b = 0;
  song.notes.forEach((note, n) => {
    const slidTo = song.notes[n - 1]?.slide ?? false;
    const end = note.start + note.beats;
    while (b + 1 < song.bars.length && song.bars[b + 1].start <= note.start + CLOSE) b++;
    for (let i = b, at = note.start; i < song.bars.length && at < end - CLOSE; i++) {
      const { start, beats } = song.bars[i];
      const until = i + 1 < song.bars.length ? Math.min(end, start + beats) : end;
      out[i].push({ note, slidTo, start: at, beats: until - at, begins: at === note.start, ends: until >= end - CLOSE });
      at = until;
    }
  });
  return out;
}
