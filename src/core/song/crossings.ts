import type { Direction } from '../take/types';
import { barAt, Song } from './types';
import type { SongChange, SongVoice } from './voice';

/** One place where the melody goes over a change of the voice. */
export interface Crossing {
  /** Index of the note before it, and the notes themselves, MIDI. */
  note: number;
  from: number;
  to: number;
  direction: Direction;
  by: 'step' | 'leap' | 'slide';
  /** Index of the change in the voice, of the bar of the note it lands on. */
  change: number;
  bar: number;
  /** The syllable it lands on. */
  words: string;
}

/** Up to a whole tone it is a step (the trade's word). */
const STEP_ST = 2;

/** No change is known better than to this, semitones. */
const GIVEN_ST = 0.5;

/**
 * Which way a voice changes on its way to a note, being in chest or head: coming from below it stays in chest up to the last note
 * before the change, coming from above in head down to its own last note (hysteresis); null where it needn't.
 */
export function crosses(change: Pick<SongChange, 'up' | 'down'>, inHead: boolean, to: number): Direction | null {
  if (!inHead && to > change.up + GIVEN_ST) return 'up';
  if (inHead && to < change.down - GIVEN_ST) return 'down';
  return null;
}

/** Every place where the melody, `semitones` higher than written, goes over a change within a phrase. */
export function crossingsOf(
  song: Song,
  phrases: readonly { first: number; last: number }[],
  voice: Pick<SongVoice, 'changes'>,
  semitones = 0,
): Crossing[] {
  const out: Crossing[] = [];
  for (const { first, last } of phrases)
    voice.changes.forEach((change, c) => {
      // After a breath a voice begins anew: in chest, as long as the note lets it.
      let inHead = song.notes[first].midi + semitones > change.up + GIVEN_ST;
      for (let i = first; i < last; i++) {
        const [a, b] = [song.notes[i], song.notes[i + 1]];
        const [from, to] = [a.midi + semitones, b.midi + semitones];
        const direction = crosses(change, inHead, to);
        if (!direction) continue;
        inHead = direction === 'up';
        const by = a.slide ? 'slide' : Math.abs(to - from) <= STEP_ST ? 'step' : 'leap';
        out.push({ note: i, from, to, direction, by, change: c, bar: barAt(song, b.start), words: b.words });
      }
    });
  return out.sort((a, b) => a.note - b.note);
}
