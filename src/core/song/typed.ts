import { said } from '../words/said';
import { SaidError } from '../words/said-error';
import { parseNote } from '../music/pitch';
import { Bar, LoudnessMark, MARKS, Song, SongNote } from './types';

/** A melody that was typed can't be read: what is wrong, and where. */
export class TypedError extends SaidError {}

const TOKEN = /^(r|[A-Ga-g][#b]{0,2}-?\d)(?::(\d+(?:\.\d+)?(?:\/\d+)?))?(~)?(,)?$/;
const MOST_TOKENS = 5000;

const lengthOf = (text: string | undefined): number => {
  if (text === undefined) return 1;
  const [n, d] = text.split('/').map(Number);
  return d === undefined ? n : n / d;
};

export interface Typed {
  title: string;
  style?: string;
  language?: string;
  tempo: number;
  meter: [number, number];
  fifths?: number;
  /** Crotchets before the first whole bar. */
  upbeat?: number;
  /** "C4 D4:2 r E4:0.5~ F4, p G4": notes with lengths in crotchets, r rests, ~ slides, a comma breathes, loudness marks from there on. */
  melody: string;
  /** Syllables, one a note: "The ri-ver runs"; "_" holds the one before on. */
  words?: string;
}

/**
 * A song as it is typed. @throws TypedError that says which note can't be read.
 * @example typedSong({ title: 'Scale', tempo: 90, meter: [4, 4], melody: 'C4 D4 E4:2, | C4:4', words: 'ah' })
 */
export function typedSong(typed: Typed): Song {
  const tokens = typed.melody.split(/[\s|]+/).filter(Boolean);
  if (tokens.length > MOST_TOKENS) throw new TypedError(said('No more than {most} notes, please.', { most: MOST_TOKENS }));
  const syllables = (typed.words ?? '').replace(/-\s*/g, '- ').split(/\s+/).filter(Boolean);
  const notes: SongNote[] = [];
  let at = 0;
  let loud: LoudnessMark | undefined;
  for (const token of tokens) {
    if ((MARKS as readonly string[]).includes(token)) {
      loud = token as LoudnessMark;
      continue;
    }
    const match = TOKEN.exec(token);
    const beats = lengthOf(match?.[2]);
    if (!match || !(beats > 0) || beats > 64)
      throw new TypedError(
        said('“{what}” can’t be read: write notes such as C4, Bb3:2 (two crotchets), r for a rest, E4~ to slide on, a comma to breathe.', {
          what: { own: token },
        }),
      );
    const [, what, , slide, breath] = match;
    if (what !== 'r') {
      const syllable = syllables[notes.length];
      notes.push({
        midi: parseNote(what),
        start: at,
        beats,
        words: syllable === undefined || syllable === '_' ? '' : syllable,
        ...(slide ? { slide: true } : {}),
        ...(loud ? { loud } : {}),
        ...(breath ? { breath: true } : {}),
      });
    }
    at += beats;
  }
  if (notes.length === 0) throw new TypedError('Write at least one note, such as C4.');
  delete notes[notes.length - 1].slide;
  const full = (typed.meter[0] * 4) / typed.meter[1];
  return {
    title: typed.title,
    style: typed.style ?? '',
    language: typed.language ?? '',
    meter: typed.meter,
    fifths: typed.fifths ?? 0,
    tempi: [{ start: 0, tempo: typed.tempo }],
    bars: evenBars(full, at, typed.upbeat ?? 0),
    notes,
  };
}

/** Crotchets of an upbeat: the first bar of a song that isn't full; 0 where there is none. */
export function upbeatOf({ bars: [first], meter }: Pick<Song, 'bars' | 'meter'>): number {
  return first.beats < (meter[0] * 4) / meter[1] - 1e-6 ? first.beats : 0;
}

/** Bars of one length to the end of a song, the first shorter where it begins with an upbeat (bar 0, as it is printed). */
export function evenBars(full: number, end: number, upbeat: number): Bar[] {
  const out: Bar[] = upbeat > 0 ? [{ number: '0', start: 0, beats: upbeat }] : [];
  for (let at = upbeat, n = 1; at < end - 1e-6; at += full, n++) out.push({ number: String(n), start: at, beats: full });
  return out;
}
