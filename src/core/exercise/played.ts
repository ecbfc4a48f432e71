import type { KeyboardMessage } from '../music/midi-message';
import { median } from '../signal/stats';
import type { TuneNote } from './tune';

/** A key of the piano that was pressed: when, and when it was let go of (null: not yet); seconds. */
export interface PlayedNote {
  midi: number;
  startS: number;
  endS: number | null;
}

/** After so long a silence, or so long from press to press, something new begins. */
const REST_S = 1.2;
const APART_S = 4;
/** Keys pressed within this, and held together, are one chord: hands that play three notes at once spread them by some 30 ms (common practice, no source). */
const CHORD_S = 0.06;
/** A chord of three and more may be rolled: each key so soon after the one before, and all held for so long together (a set choice; legato holds two keys, and shortly). */
const ROLL_S = 0.15;
/** From so many notes at once it is a chord that gives the key, no note of the tune. */
const CHORD_NOTES = 3;
/** Presses as short as the shortest, give or take a hand's unevenness, set the beat. */
const AS_SHORT = 1.4;
/** Where they follow one another faster than this they are quavers, else crotchets. */
const QUAVER_UNDER_S = 0.5;
/** How many times the shortest a note may be as long: what patterns are written in. */
const LENGTHS = [1, 1.5, 2, 3, 4, 6, 8];
const LONGEST_LAST = 4;
const MOST_NOTES = 32;

/** So many presses are remembered. */
const REMEMBERED = 128;

/** What was played, with what a keyboard does now. @param atS seconds, on any clock that goes on */
export function withKey(played: readonly PlayedNote[], message: KeyboardMessage, atS: number): readonly PlayedNote[] {
  if (message.does === 'press') return [...played.slice(1 - REMEMBERED), { midi: message.midi, startS: atS, endS: null }];
  if (message.does === 'pedal') return played;
  return played.map((note) => (note.midi === message.midi && note.endS === null ? { ...note, endS: atS } : note));
}

/**
 * The tune that was played last at the piano, its rhythm put straight; a chord of three and more gives a key, and a tune ends or begins
 * there; of two notes at once the upper. Null where there is no tune of two notes.
 *
 * @returns notes in crotchets, and crotchets a minute
 * @example melodyPlayed([{ midi: 60, startS: 0, endS: 0.6 }, { midi: 62, startS: 0.7, endS: 1.4 }]) // { notes: [60 for 1 beat, 62 for 1], tempo: 86 }
 */
export function melodyPlayed(played: readonly PlayedNote[]): { notes: TuneNote[]; tempo: number } | null {
  const tune = tuneIn(chordsOf(lastPhrase(played))).slice(-MOST_NOTES);
  if (tune.length < 2) return null;
  const between = tune.slice(1).map((n, i) => n.startS - tune[i].startS);
  const shortest = Math.min(...between);
  const unitS = median(between.filter((s) => s <= AS_SHORT * shortest));
  const unit = unitS < QUAVER_UNDER_S ? 0.5 : 1;
  const beatsOf = (seconds: number) => unit * nearestLength(seconds / unitS);
  const last = tune[tune.length - 1];
  const beats = [...between.map(beatsOf), Math.min(LONGEST_LAST, beatsOf((last.endS ?? last.startS) - last.startS))];
  let start = 0;
  const notes = tune.map(({ midi }, i) => {
    const note = { midi, start, beats: beats[i] };
    start += beats[i];
    return note;
  });
  return { notes, tempo: Math.round((60 * unit) / unitS) };
}

/** The nearest by ratio: the longer a note, the less exactly a hand keeps it. */
const nearestLength = (times: number) => LENGTHS.reduce((a, b) => (Math.abs(Math.log(b / times)) < Math.abs(Math.log(a / times)) ? b : a));

function lastPhrase(played: readonly PlayedNote[]): PlayedNote[] {
  const sorted = [...played].sort((a, b) => a.startS - b.startS);
  let from = 0;
  let sounding = -Infinity;
  sorted.forEach((note, i) => {
    if (i > 0 && (note.startS - sounding > REST_S || note.startS - sorted[i - 1].startS > APART_S)) from = i;
    sounding = Math.max(sounding, note.endS ?? note.startS);
  });
  return sorted.slice(from);
}

/** The notes after the last chord that gave a key, or before it where nothing came after. */
function tuneIn(chords: readonly PlayedNote[][]): PlayedNote[] {
  const tunes: PlayedNote[][] = [[]];
  for (const chord of chords)
    if (chord.length >= CHORD_NOTES) tunes.push([]);
    else tunes[tunes.length - 1].push(chord.reduce((a, b) => (b.midi > a.midi ? b : a)));
  return tunes.findLast((tune) => tune.length > 0) ?? [];
}

function chordsOf(notes: readonly PlayedNote[]): PlayedNote[][] {
  const chords: PlayedNote[][] = [];
  for (const note of notes) {
    const chord = chords.at(-1);
    if (chord && (struckWith(chord, note) || rolledAfter(chord, note))) chord.push(note);
    else chords.push([note]);
  }
  // Two keys one after the other are two notes of a tune, however long both are held.
  return chords.flatMap((chord) => (chord.length >= CHORD_NOTES || struckWith(chord, chord.at(-1)!) ? [chord] : chord.map((n) => [n])));
}

const struckWith = (chord: readonly PlayedNote[], note: PlayedNote) =>
  note.startS - chord[0].startS <= CHORD_S && allHeld(chord, note.startS);

const rolledAfter = (chord: readonly PlayedNote[], note: PlayedNote) =>
  note.startS - chord.at(-1)!.startS <= ROLL_S && allHeld([...chord, note], note.startS + ROLL_S);

const allHeld = (notes: readonly PlayedNote[], atS: number) => notes.every((n) => n.endS === null || n.endS >= atS);
