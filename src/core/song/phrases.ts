import { barAt, secondsAt, Song } from './types';

/** What is sung on one breath: notes from `first` to `last` (indices), and the bars they lie in (indices). */
export interface Phrase {
  first: number;
  last: number;
  firstBar: number;
  lastBar: number;
  seconds: number;
}

/** A rest of so many crotchets, or of so many seconds, is a breath (common practice, no source). */
const BREATH_BEATS = 0.5;
const BREATH_S = 0.35;
/** Longer than this nobody goes without a breath: the phrase is taken apart at its longest note (common practice, no source). */
const LONGEST_S = 12;
/** Where a breath is taken without a rest, a phrase has at least so much on each side, seconds. */
const LEAST_SIDE_S = 2;
/** Stops that end a line where words are written. */
const STOP = /[.;:!?—]["”’)]*$/;

/**
 * The song's phrases: apart where a rest, a written breath or the end of a sentence on a long note lets the singer breathe; one that
 * would last longer than anyone's breath is taken apart after its longest inner note.
 */
export function phrasesOf(song: Song): Phrase[] {
  const { notes } = song;
  const at = (place: number) => secondsAt(song, place);
  const ends: number[] = [];
  for (let i = 0; i + 1 < notes.length; i++) {
    const end = notes[i].start + notes[i].beats;
    const rest = notes[i + 1].start - end;
    const breathes = rest >= BREATH_BEATS - 1e-6 || (rest > 1e-6 && at(notes[i + 1].start) - at(end) >= BREATH_S);
    if (breathes || notes[i].breath || (STOP.test(notes[i].words) && notes[i].beats >= 1)) ends.push(i);
  }
  ends.push(notes.length - 1);
  const out: [number, number][] = [];
  let first = 0;
  for (const last of ends) {
    out.push(...apart(song, first, last));
    first = last + 1;
  }
  return out.map(([first, last]) => ({
    first,
    last,
    firstBar: barAt(song, notes[first].start),
    lastBar: barAt(song, notes[last].start),
    seconds: at(notes[last].start + notes[last].beats) - at(notes[first].start),
  }));
}

function apart(song: Song, first: number, last: number): [number, number][] {
  const { notes } = song;
  const at = (place: number) => secondsAt(song, place);
  const from = at(notes[first].start);
  const to = at(notes[last].start + notes[last].beats);
  if (to - from <= LONGEST_S) return [[first, last]];
  let best = -1;
  for (let i = first; i < last; i++) {
    const end = at(notes[i].start + notes[i].beats);
    if (end - from < LEAST_SIDE_S || to - end < LEAST_SIDE_S) continue;
    // Of equally long ones the one nearest the middle.
    const nearer = (j: number) => Math.abs(at(notes[j].start + notes[j].beats) - (from + to) / 2);
    if (best < 0 || notes[i].beats > notes[best].beats || (notes[i].beats === notes[best].beats && nearer(i) < nearer(best))) best = i;
  }
  return best < 0 ? [[first, last]] : [...apart(song, first, best), ...apart(song, best + 1, last)];
}
