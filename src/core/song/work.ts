import { texts } from '../words/said';
import { patternSpan } from '../exercise/pattern';
import { lineOf } from '../exercise/tune';
import type { Exercise, KeyPlace } from '../exercise/types';
import type { Anchors } from '../exercise/keys';
import type { PhraseRisk } from './risks';
import type { Song } from './types';
import { vowelOf } from './vowel';

/** How a hard place is worked on, easiest first. */
export const WORKS = ['straw', 'ng', 'oo', 'vowels', 'words'] as const;
export type Work = (typeof WORKS)[number];

/** A slower tempo than the song's, at which the change is still crossed in time (common practice, no source). */
const SLOWER = 0.75;
const TEMPI = { least: 40, most: 160 };
/** Keys begin so many semitones easier than the song's own (common practice: from where it is easy). */
const EASIER_ST = 4;
const MOST_NOTES = 32;
const WORDS_IN_NAME = 40;
const MOST_SOUND = 40;

/** What a place of a song is made into: which notes, from where. */
export type Place = Pick<PhraseRisk, 'first' | 'last' | 'risks'> & { firstBar: number; lastBar: number };

/** The notes of a place around its weightiest risk: all of it, or where it is long, what lies around that note. */
function around({ first, last, risks }: Place): { first: number; last: number } {
  if (last - first < MOST_NOTES) return { first, last };
  const middle = risks[0]?.note ?? first;
  const from = Math.max(first, Math.min(middle - MOST_NOTES / 2, last - MOST_NOTES + 1));
  return { first: from, last: from + MOST_NOTES - 1 };
}

/**
 * A hard place of a song as an exercise for this voice: its notes as a pattern, slower, in keys that walk from easy ones to the song's
 * own, on straw, ng and "oo", then its vowels, then its words. `anchors`: the voice's places the keys are counted from; `upward`: the easy
 * keys lie above the song's (a voice that locks under its change).
 */
export function exerciseFrom(
  song: Song,
  place: Place,
  { id, semitones, anchors, upward, work }: { id: string; semitones: number; anchors: Anchors; upward: boolean; work: Work },
): Exercise {
  const { first, last } = around(place);
  const notes = song.notes.slice(first, last + 1);
  const { tonic, steps } = lineOf(notes);
  const tempo = clamp(Math.round(tempoAt(song, notes[0].start) * SLOWER));
  const { top } = patternSpan({ steps });
  const over = place.risks.some((r) => r.name === 'crosses');
  const at = (more: number): KeyPlace => ({ edge: 'top', anchor: 'change', semitones: tonic + semitones + top - anchors.change + more });
  const bars =
    place.firstBar === place.lastBar
      ? `bar ${song.bars[place.firstBar].number}`
      : `bars ${song.bars[place.firstBar].number}–${song.bars[place.lastBar].number}`;
  const name = `${song.title.slice(0, WORDS_IN_NAME)}, ${bars}`;
  return {
    id,
    name,
    family: 'phrase',
    strand: 'crossing',
    role: 'carry',
    steps,
    tempo: [clamp(Math.round(tempo * 0.75)), tempo, clamp(Math.round(tempoAt(song, notes[0].start)))],
    breathBeats: 2,
    sounds: soundsOf(song, notes, work),
    aim: 'across',
    loudness: 'even',
    // The song's own keys: a school that shifts what passes a change doesn't shift these.
    place: over ? 'at' : 'away',
    grade: 3,
    weight: work === 'straw' || work === 'ng' || work === 'oo' ? -1 : 0,
    keys: { from: at(upward ? EASIER_ST : -EASIER_ST), to: at(0), most: EASIER_ST + 1 },
    suits: [],
    avoid: [],
    schools: [],
    after: [],
    needs: work === 'straw' ? ['straw'] : [],
    minutes: 3,
    timesADay: 1,
    measure: over ? 'crosses' : 'in-tune',
    how: HOW[work],
    purpose: `this place of “${song.title.slice(0, WORDS_IN_NAME)}” is the one that decides`,
    caution: texts('Lighter than in the song; stop at any scratch or push.'),
  };
}

const clamp = (tempo: number) => Math.min(TEMPI.most, Math.max(TEMPI.least, tempo));

const HOW: Record<Work, string> = texts({
  straw: 'The line through the straw, with all its expression and none of its weight. Then the same on “oo”.',
  ng: 'The line on ng, as if it hummed by itself. Anchor the low note, back off on the leap.',
  oo: 'The line on a small “oo”, softer on the way up.',
  vowels: 'The line on its vowels alone, one running into the next; round the open ones over the change.',
  words: 'The line with its words, as light as the vowels were.',
});

/** What a place is sung on: the work asked for first, then what comes after it. */
function soundsOf(song: Song, notes: readonly { words: string }[], work: Work): string[] {
  const vowels = [...new Set(notes.map((n) => vowelOf(n.words, song.language)).filter((v) => v !== null))].slice(0, 3);
  const words = notes
    .map((n) => (n.words.endsWith('-') ? n.words.slice(0, -1) : n.words ? `${n.words} ` : ''))
    .join('')
    .trim();
  const all: Record<Work, string[]> = {
    straw: ['straw'],
    ng: ['ng'],
    oo: ['oo'],
    vowels: vowels.length ? vowels : ['ah'],
    words: words ? [`words: ${words}`.slice(0, MOST_SOUND)] : [],
  };
  return WORKS.slice(WORKS.indexOf(work)).flatMap((w) => all[w]);
}

const tempoAt = ({ tempi }: Song, place: number): number =>
  [...tempi].reverse().find((t) => t.start <= place + 1e-6)?.tempo ?? tempi[0].tempo;
