import { said, Said } from '../words/said';
import type { Verdict } from '../judge/types';
import { BarOutcome, KeptOutcome, IN_TUNE_CENTS } from './outcome';
import type { Phrase } from './phrases';
import type { Song } from './types';
import type { SongVoice } from './voice';
import { vowelOf } from './vowel';
import { breakInWords } from './words';
import { namesFlats } from './written';
import type { Way } from './ways';

export const REGISTERS = ['handed over', 'carried', 'not told'] as const;
/** What the voice did above its change in a phrase: handed over to head, carried chest up, or it can't be told. */
export type Register = (typeof REGISTERS)[number];

/** Notes this near to the change are on neither side of it, semitones. */
const AT_CHANGE_ST = 1;
/** So much has to be sung above the change in the phrase, and below it in the take, seconds. */
const LEAST_ABOVE_S = 0.4;
const LEAST_BELOW_S = 1;
/** A long note counts as so much, seconds. */
const MOST_S = 1;
/**
 * Headier above than below by so much, in units of the timbre axis (from chest to head it spans about 2.5), is a hand-over, and by less than the
 * second chest carried up. Set between simulated voices in drawn rooms that hand over, and that carry chest; on closed vowels less can be told.
 * Another maker's scales in rooms that handed over came out over the first in two of three and under the second in one of twenty.
 */
const BOUNDS = { open: { head: 0.8, chest: -0.6 }, closed: { head: 1.2, chest: -1.5 } };

/** Which register a phrase was sung in above the change, from the colour of its high notes beside the low ones of the whole take. */
export function registerIn(song: Song, heard: KeptOutcome, { first, last }: Pick<Phrase, 'first' | 'last'>, voice: SongVoice): Register {
  const change = voice.changes[0];
  if (!change) return 'not told';
  const told = heard.notes.flatMap((n) => {
    const note = song.notes[n.note];
    return n.head == null || !note
      ? []
      : [{ index: n.note, words: note.words, midi: note.midi + heard.semitones, head: n.head, s: Math.min(MOST_S, n.endS - n.startS) }];
  });
  const above = told.filter((n) => n.index >= first && n.index <= last && n.midi > change.up + AT_CHANGE_ST);
  const below = told.filter((n) => n.midi < change.up - AT_CHANGE_ST);
  const seconds = (some: typeof told) => some.reduce((sum, n) => sum + n.s, 0);
  if (seconds(above) < LEAST_ABOVE_S || seconds(below) < LEAST_BELOW_S) return 'not told';
  const mean = (some: typeof told) => some.reduce((sum, n) => sum + n.s * n.head, 0) / seconds(some);
  const closed = above.filter((n) => ['oo', 'ee'].includes(vowelOf(n.words, song.language) ?? ''));
  const { head, chest } = BOUNDS[2 * seconds(closed) > seconds(above) ? 'closed' : 'open'];
  const rise = mean(above) - mean(below);
  return rise >= head ? 'handed over' : rise <= chest ? 'carried' : 'not told';
}

/** Whether a phrase was taken the way that was chosen for it. */
export interface Taken {
  verdict: Verdict;
  /** One sentence. */
  because: Said;
}

/** Ways that are sung in head. How tall the space is, and how airy, isn't heard. */
const IN_HEAD: readonly Way[] = ['head-tall', 'head-relaxed', 'falsetto'];

/**
 * A phrase of a take against the way that was chosen for it: chest has to be carried, head handed over to, and a mix handed over to without a
 * leap or a step. Never yes because nothing was heard. Null where none of its high notes was sung.
 */
export function takenAs(
  song: Song,
  heard: KeptOutcome,
  phrase: Pick<Phrase, 'first' | 'last' | 'firstBar' | 'lastBar'>,
  way: Way,
  voice: SongVoice,
): Taken | null {
  const change = voice.changes[0];
  const high = heard.notes.some(
    ({ note }) =>
      note >= phrase.first && note <= phrase.last && change && song.notes[note].midi + heard.semitones > change.up + AT_CHANGE_ST,
  );
  if (!high) return null;
  const flats = namesFlats(song, heard.semitones);
  const over = { over: { note: change.up, flats } };
  const register = registerIn(song, heard, phrase, voice);
  const broke = heard.bars.find(
    ({ bar, broke: b }) => bar >= phrase.firstBar && bar <= phrase.lastBar && (b?.name === 'leapt' || b?.name === 'changed-at-once'),
  )?.broke;
  if (way === 'mix' && broke)
    return {
      verdict: 'not yet',
      because: breakInWords(broke, flats),
    };
  if (register === 'not told')
    return { verdict: 'not told', because: said('what it did over {over} could not be told from its colour', over) };
  if (way === 'chest')
    return register === 'carried'
      ? { verdict: 'yes', because: said('chest went on over {over}', over) }
      : { verdict: 'not yet', because: said('it handed over to head at {over}', over) };
  if (register === 'carried') return { verdict: 'not yet', because: said('chest was carried over {over}', over) };
  return {
    verdict: 'yes',
    because: IN_HEAD.includes(way) ? said('in head over {over}', over) : said('handed over at {over} without a leap', over),
  };
}

/** A phrase as it was sung in a take, the last time where it was begun again. */
export interface PhraseSung {
  startS: number;
  endS: number;
  /** Share of its notes within a quarter-tone of where they were meant; null where none was told. */
  inTune: number | null;
  broke: BarOutcome['broke'];
}

/** Where a phrase was sung in a take, and how; null where it wasn't. */
export function phraseSung(heard: KeptOutcome, { first, last, firstBar, lastBar }: Omit<Phrase, 'seconds'>): PhraseSung | null {
  const within = heard.notes.filter(({ note }) => note >= first && note <= last);
  const again = within.findLastIndex(({ note }, i) => i > 0 && note <= within[i - 1].note);
  const own = within.slice(Math.max(0, again));
  if (own.length === 0) return null;
  const told = own.flatMap(({ cents }) => (cents === null ? [] : [cents - heard.tuningCents]));
  const broke = heard.bars.find(({ bar, broke: b }) => b && bar >= firstBar && bar <= lastBar)?.broke ?? null;
  return {
    startS: own[0].startS,
    endS: own[own.length - 1].endS,
    inTune: told.length ? told.filter((cents) => Math.abs(cents) <= IN_TUNE_CENTS).length / told.length : null,
    broke,
  };
}

/**
 * Of each phrase that was sung, by its first note, whether it went as meant: no where it broke or was taken another way than was chosen, yes
 * where it was heard to be taken so, null where nothing broke and no way was chosen, or none could be told.
 */
export function wentIn(
  song: Song,
  heard: KeptOutcome,
  phrases: readonly Phrase[],
  ways: Readonly<Record<string, Way>>,
  voice: SongVoice,
): Map<number, boolean | null> {
  const out = new Map<number, boolean | null>();
  for (const phrase of phrases) {
    const sung = phraseSung(heard, phrase);
    if (!sung) continue;
    const way = ways[phrase.first];
    const verdict = way ? takenAs(song, heard, phrase, way, voice)?.verdict : undefined;
    out.set(phrase.first, sung.broke || verdict === 'not yet' ? false : verdict === 'yes' ? true : null);
  }
  return out;
}
