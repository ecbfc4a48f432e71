import { crossingsOf } from './crossings';
import { Phrase, phrasesOf } from './phrases';
import { noteSeconds } from './tessitura';
import { barAt, LoudnessMark, Song } from './types';
import { vowelOf } from './vowel';
import { changeNear, isLocked, SongChange, SongVoice } from './voice';

export const RISKS = [
  'over-the-top',
  'under-the-bottom',
  'near-the-top',
  'crosses',
  'stays-on-the-change',
  'chest-carried',
  'locked-under',
  'no-chest-there',
  'first-head-notes',
  'insecure-note',
  'long-breath',
] as const;
export type RiskName = (typeof RISKS)[number];

/** One reason why a place of the song may go wrong for this voice. */
export interface Risk {
  name: RiskName;
  /** Where: index of a note and of its bar. */
  note: number;
  bar: number;
  /** The note itself in this key, MIDI. */
  midi: number;
  /** How likely it goes wrong because of this alone, 0..1. */
  weight: number;
  /** Semitones beyond a limit, seconds held, or whatever the words need. */
  by?: number;
  /** How a crossing goes. */
  how?: 'up' | 'down';
  over?: 'step' | 'leap' | 'slide';
  /** A vowel that crosses worse than others in this voice. */
  vowel?: string;
  /** Index of the change it is about. */
  change?: number;
}

export const LEVELS = ['safe', 'some care', 'risky'] as const;
export type Level = (typeof LEVELS)[number];

/** What is under, between and over these is safe, wants some care, and is risky (common practice, no source). */
const CARE_FROM = 0.25;
const RISKY_FROM = 0.5;
export const levelOf = (risk: number): Level => (risk >= RISKY_FROM ? 'risky' : risk >= CARE_FROM ? 'some care' : 'safe');
/** The weightier of two. */
export const worstOf = (a: Level, b: Level): Level => LEVELS[Math.max(LEVELS.indexOf(a), LEVELS.indexOf(b))];

/** What remains when several things may each go wrong, as if they were independent. */
export const together = (weights: readonly number[]): number => 1 - weights.reduce((left, w) => left * (1 - w), 1);

/**
 * How likely each goes wrong, before what this voice adds to it. Common practice, no source: the order is the trade's (beyond the range,
 * then a sudden change, then a carried chest), the figures are this house's and are held to simulated performances only
 * (songs.test: bars called risky break three times as often as those called safe).
 */
const WEIGHT = {
  beyondFirst: 0.7,
  beyondMore: 0.12,
  nearTop: 0.3,
  crosses: { flip: 0.65, toggle: 0.6, expected: 0.35, blended: 0.08 },
  badVowel: 0.15,
  loudOver: 0.1,
  stays: 0.3,
  carried: 0.55,
  locked: 0.45,
  noChest: 0.4,
  firstHead: 0.35,
  insecure: 0.25,
  longBreath: 0.3,
};
/** Within so many semitones of the top a note is near it when it is held so long, or comes on a loud mark. */
const NEAR_TOP_ST = 1;
const NEAR_TOP_S = 0.8;
/** A change is stayed on when the notes of it, half a semitone round, are sung so long without leaving. */
const STAYS_S = 1.2;
/** Heavy chest is carried so far over the change before a voice must turn over; and locks so far under it (common practice, no source). */
const CARRIED_ST = 5;
const LOCKS_ST = 5;
const LOCKED_S = 1;
/** A voice without chest has none this far under its change. */
const NO_CHEST_ST = 3;
/** The first head notes lie up to this far over the change; held so long they are heard to be weak. */
const FIRST_HEAD_ST = 4;
const FIRST_HEAD_S = 0.6;
const INSECURE_S = 0.4;
/** A phrase is long from so many seconds on (common practice, no source; a long siren takes 5 to 8 s). */
const LONG_S = 10;

const LOUD: readonly LoudnessMark[] = ['f', 'ff'];

/** What a rule of risk looks at. */
interface Looked {
  song: Song;
  phrase: Phrase;
  voice: SongVoice;
  /** Of each note: its pitch in this key, its seconds. */
  midi: readonly number[];
  long: readonly number[];
}

type Found = Omit<Risk, 'bar' | 'midi'>;

/** Notes of a phrase that something is true of, with how long it stays true without a break, told at the longest stay. */
function longestStay({ phrase, long }: Looked, is: (i: number) => boolean, leastS: number): { note: number; by: number } | null {
  let best: { note: number; by: number } | null = null;
  let from = -1;
  let seconds = 0;
  for (let i = phrase.first; i <= phrase.last + 1; i++) {
    if (i <= phrase.last && is(i)) {
      if (from < 0) [from, seconds] = [i, 0];
      seconds += long[i];
    } else if (from >= 0) {
      if (seconds >= leastS && (!best || seconds > best.by)) best = { note: from, by: seconds };
      from = -1;
    }
  }
  return best;
}

const indices = ({ first, last }: Phrase) => Array.from({ length: last - first + 1 }, (_, i) => first + i);

/** A rule for each way a place can go wrong. */
const LOOKS: Record<RiskName, (at: Looked) => Found[]> = {
  'over-the-top': ({ phrase, midi, voice }) =>
    indices(phrase)
      .filter((i) => midi[i] > voice.high)
      .map((note) => ({ name: 'over-the-top', note, by: midi[note] - voice.high, weight: beyond(midi[note] - voice.high) })),
  'under-the-bottom': ({ phrase, midi, voice }) =>
    indices(phrase)
      .filter((i) => midi[i] < voice.low)
      .map((note) => ({ name: 'under-the-bottom', note, by: voice.low - midi[note], weight: beyond(voice.low - midi[note]) })),
  'near-the-top': ({ song, phrase, midi, long, voice }) =>
    indices(phrase)
      .filter((i) => midi[i] <= voice.high && midi[i] >= voice.high - NEAR_TOP_ST)
      .filter((i) => long[i] >= NEAR_TOP_S || isLoud(song, i))
      .map((note) => ({ name: 'near-the-top', note, by: long[note], weight: WEIGHT.nearTop })),
  crosses: ({ song, phrase, voice, midi }) =>
    crossingsOf(song, [phrase], voice, midi[phrase.first] - song.notes[phrase.first].midi).map((c) => {
      const change = voice.changes[c.change];
      const sure = change.name === 'expected' ? 1 : 0.5 + change.confidence / 2;
      const vowel = badVowel(change, vowelOf(c.words, song.language));
      const more = [
        ...(vowel ? [WEIGHT.badVowel] : []),
        ...(isLoud(song, c.note + 1) && change.name !== 'blended' ? [WEIGHT.loudOver] : []),
      ];
      return {
        name: 'crosses' as const,
        note: c.note + 1,
        weight: together([WEIGHT.crosses[change.name] * sure, ...more]),
        how: c.direction,
        over: c.by,
        change: c.change,
        ...(vowel ? { vowel } : {}),
      };
    }),
  'stays-on-the-change': (at) =>
    at.voice.changes.flatMap((change, c): Found[] => {
      if (change.name === 'blended') return [];
      const on = (i: number) => at.midi[i] >= change.first - 0.5 && at.midi[i] <= change.last + 0.5;
      const stay = longestStay(at, on, STAYS_S);
      return stay ? [{ name: 'stays-on-the-change', ...stay, change: c, weight: WEIGHT.stays }] : [];
    }),
  'chest-carried': (at) => {
    const pulled = at.voice.findings['pulled-chest'];
    const change = pulled && changeNear(at.voice, pulled.midi);
    const over = change ? change.up : pulled?.midi;
    if (!pulled || over === undefined) return [];
    const stay = longestStay(at, (i) => at.midi[i] > over + 0.5 && at.midi[i] <= over + CARRIED_ST, 0);
    return stay ? [{ name: 'chest-carried', ...stay, weight: WEIGHT.carried * pulled.confidence }] : [];
  },
  'locked-under': (at) => {
    const locks = lockedSeconds(at);
    return locks ? [{ name: 'locked-under', ...locks, weight: WEIGHT.locked * at.voice.findings['pulled-chest']!.confidence }] : [];
  },
  'no-chest-there': (at) => {
    const finding = at.voice.findings['no-chest'];
    if (!finding) return [];
    const under = changeNear(at.voice, finding.midi)?.down ?? finding.midi;
    const stay = longestStay(at, (i) => at.midi[i] <= under - NO_CHEST_ST, LOCKED_S);
    return stay ? [{ name: 'no-chest-there', ...stay, weight: WEIGHT.noChest * finding.confidence }] : [];
  },
  'first-head-notes': (at) => {
    const finding = at.voice.findings['weak-first-head'];
    if (!finding) return [];
    const over = changeNear(at.voice, finding.midi)?.up ?? finding.midi;
    const stay = longestStay(at, (i) => at.midi[i] > over && at.midi[i] <= over + FIRST_HEAD_ST, FIRST_HEAD_S);
    return stay ? [{ name: 'first-head-notes', ...stay, weight: WEIGHT.firstHead * finding.confidence }] : [];
  },
  'insecure-note': ({ phrase, midi, long, voice }) =>
    voice.insecure.flatMap(({ midi: weak }): Found[] => {
      const note = indices(phrase).find((i) => midi[i] === Math.round(weak) && long[i] >= INSECURE_S);
      return note === undefined ? [] : [{ name: 'insecure-note', note, by: long[note], weight: WEIGHT.insecure }];
    }),
  'long-breath': ({ phrase }) =>
    phrase.seconds >= LONG_S ? [{ name: 'long-breath', note: phrase.last, by: phrase.seconds, weight: WEIGHT.longBreath }] : [],
};

const beyond = (st: number) => Math.min(0.97, WEIGHT.beyondFirst + WEIGHT.beyondMore * (st - 1));
const isLoud = ({ notes }: Song, i: number) => notes[i].loud !== undefined && LOUD.includes(notes[i].loud!);

/** The vowel where this voice is heard to change on it more often than on its best one; null otherwise. */
function badVowel({ vowels }: SongChange, vowel: string | null): string | null {
  const share = (v: { passes: number; heard: number }) => v.heard / v.passes;
  const own = vowels.find((v) => v.vowel === vowel);
  const best = vowels[0];
  return own && best && own !== best && share(own) > share(best) ? own.vowel : null;
}

/** How long a phrase keeps a heavy voice under its change without ever tipping over; null where it doesn't. */
function lockedSeconds(at: Looked): { note: number; by: number } | null {
  if (!isLocked(at.voice)) return null;
  const under = changeNear(at.voice, at.voice.findings['pulled-chest']!.midi)?.up ?? at.voice.findings['pulled-chest']!.midi;
  const tops = Math.max(...indices(at.phrase).map((i) => at.midi[i]));
  if (tops > under + 0.5) return null;
  return longestStay(at, (i) => at.midi[i] > under - LOCKS_ST, LOCKED_S);
}

/** A phrase as this voice meets it. */
export interface PhraseRisk extends Phrase {
  risks: Risk[];
  /** That something goes wrong in it, 0..1. */
  risk: number;
  level: Level;
}

/** All phrases of a song, `semitones` higher than written, as a voice meets them. */
export function risksOf(song: Song, voice: SongVoice, semitones = 0, phrases: readonly Phrase[] = phrasesOf(song)): PhraseRisk[] {
  const midi = song.notes.map((n) => n.midi + semitones);
  const long = noteSeconds(song);
  return phrases.map((phrase) => {
    const found = RISKS.flatMap((name) => LOOKS[name]({ song, phrase, voice, midi, long }));
    const risks = found.map((r): Risk => ({ ...r, bar: barAt(song, song.notes[r.note].start), midi: midi[r.note] }));
    // Of many notes too high, or many crossings, the worst counts: who breaks once has broken.
    const worst = RISKS.flatMap((name) => {
      const own = risks.filter((r) => r.name === name).map((r) => r.weight);
      return own.length ? [Math.max(...own)] : [];
    });
    const risk = together(worst);
    return { ...phrase, risks: risks.sort((a, b) => b.weight - a.weight || a.note - b.note), risk, level: levelOf(risk) };
  });
}

/** How likely something goes wrong in each bar that is sung (by index). */
export function barRisks(song: Song, phrases: readonly PhraseRisk[]): Map<number, number> {
  const out = new Map<number, number>();
  for (const n of song.notes) out.set(barAt(song, n.start), 0);
  const by = new Map<number, Map<RiskName, number>>();
  for (const r of phrases.flatMap((p) => p.risks)) {
    const own = by.get(r.bar) ?? new Map<RiskName, number>();
    own.set(r.name, Math.max(own.get(r.name) ?? 0, r.weight));
    by.set(r.bar, own);
  }
  for (const [bar, own] of by) out.set(bar, together([...own.values()]));
  return out;
}
