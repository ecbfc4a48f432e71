import { tonicName } from '../music/scale';
import { Crossing, crossingsOf } from './crossings';
import { phrasesOf } from './phrases';
import { barRisks, levelOf, Level, worstOf, PhraseRisk, Risk, risksOf } from './risks';
import { noteSeconds, Tessitura, tessituraOf } from './tessitura';
import { barAt, Song } from './types';
import { isLocked, SongVoice } from './voice';
import { namesFlats } from './written';

/** What stands for or against a key before anything is weighed. `fits`: nothing. */
export const STANDINGS = ['fits', 'lowers-a-locked-voice', 'passes-a-limit'] as const;
export type Standing = (typeof STANDINGS)[number];

/** A bar that decides on a key: what may go wrong there, or what is the most the song asks (its top, its bottom). */
export interface DecidingBar {
  bar: number;
  midi: number;
  risk: Risk | null;
  is: 'risk' | 'top' | 'bottom';
}

/** One key of the song for this voice. */
export interface SongKey {
  /** Higher than written; -12 and -14: an octave lower, and a tone under that. */
  semitones: number;
  /** The same key as written, in this voice's octave. */
  original: boolean;
  /** Key signature's major tonic, spelled. */
  key: string;
  /** Its notes are named with flats. */
  flats: boolean;
  standing: Standing;
  tessitura: Tessitura;
  phrases: PhraseRisk[];
  crossings: Crossing[];
  /** Seconds within two semitones of a change. */
  atTheChangeS: number;
  /** Share of the singing time that lies in phrases which may go wrong, each by how likely, 0..1. */
  risk: number;
  /** That of the risk; with a risky phrase at least that it wants some care. */
  level: Level;
  deciding: DecidingBar[];
  /** Lower is better; for the order only. */
  cost: number;
}

/** The key a song is sung in, moved by semitones, to be said. */
export const saidKey = ({ fifths }: Pick<Song, 'fifths'>, semitones: number) => ({ key: 7 * fifths + semitones });

/** The major key of a signature moved by semitones, spelled the usual way: keyNameOf(-1, 2) is G. */
export const keyNameOf = (fifths: number, semitones: number): string => tonicName(7 * fifths + semitones);

/** Keys up to so far from the original are looked at: every key there is, and the tritone both ways and a little more. */
const REACH_ST = 7;
const OCTAVE_ST = 12;
const NEAR_CHANGE_ST = 2;
const DECIDING = 3;

/** What the order weighs (common practice where said; the figures are this house's). */
const COST = {
  /** The worst phrase counts beside all the time. */
  worst: 0.3,
  /** A semitone away from the original: singers sing along with what they know (common practice). */
  away: 0.012,
  /** Lower although its top could be sung as written (common practice: lower only where the top passes what is usable). */
  lowerUnneeded: 0.15,
  /** A semitone by which most of the song lies off the middle of what is sung comfortably. */
  off: 0.008,
  /** A semitone beyond a limit. */
  beyond: 1,
  /** All of the time locked under the change. */
  locked: 1,
};
/** The comfortable middle of a voice: so much of its range over its lowest note (common practice, no source). */
const MIDDLE = 0.45;

/**
 * The octave in which a melody is sung by a voice, semitones: the one nearest to it, as men sing an octave lower what is written for
 * women; but nobody sings an octave higher what some key near the written one would fit.
 */
export function octaveFor(song: Song, voice: Pick<SongVoice, 'low' | 'high'>): number {
  const { lowest, highest } = tessituraOf(song);
  return octaveOf(lowest, highest, voice);
}

function octaveOf(lowest: number, highest: number, voice: Pick<SongVoice, 'low' | 'high'>): number {
  const off = (lowest + highest - voice.low - voice.high) / 2;
  const wide = highest - lowest <= voice.high - voice.low;
  if (off < 0 && wide && lowest + REACH_ST >= voice.low) return 0;
  return -OCTAVE_ST * Math.round(off / OCTAVE_ST) || 0;
}

/** How a song of this range would have to be moved for a voice, by its range alone: semitones from its octave; null: it is too wide. */
export function rangeFit(lowest: number, highest: number, voice: Pick<SongVoice, 'low' | 'high'>): number | null {
  if (highest - lowest > voice.high - voice.low) return null;
  const octave = octaveOf(lowest, highest, voice);
  const over = highest + octave - voice.high;
  const under = voice.low - lowest - octave;
  return over > 0 ? -over : Math.max(0, under);
}

/** Every key of a song for a voice, the best first. About 1 ms a key for sixty bars. */
export function keysFor(song: Song, voice: SongVoice): SongKey[] {
  const phrases = phrasesOf(song);
  const octave = octaveFor(song, voice);
  const keys = Array.from({ length: 2 * REACH_ST + 1 }, (_, i) => keyOf(song, voice, phrases, octave + i - REACH_ST, octave));
  const original = keys[REACH_ST];
  const passesTop = original.tessitura.highest > voice.high;
  const ranked = keys.map((k) => ({
    ...k,
    standing: standingOf(k, voice, octave, passesTop),
    cost: k.cost + (k.semitones < octave && !passesTop ? COST.lowerUnneeded : 0),
  }));
  return ranked.sort(
    (a, b) =>
      STANDINGS.indexOf(a.standing) - STANDINGS.indexOf(b.standing) || a.cost - b.cost || Math.abs(a.semitones) - Math.abs(b.semitones),
  );
}

/** Lowering locks a heavy voice further: it is right only where the top passes what may be sung (common practice, no source). */
function standingOf({ semitones, tessitura }: SongKey, voice: SongVoice, octave: number, passesTop: boolean): Standing {
  if (tessitura.highest > voice.high || tessitura.lowest < voice.low) return 'passes-a-limit';
  return isLocked(voice) && semitones < octave && !passesTop ? 'lowers-a-locked-voice' : 'fits';
}

function keyOf(song: Song, voice: SongVoice, bare: ReturnType<typeof phrasesOf>, semitones: number, octave: number): SongKey {
  const phrases = risksOf(song, voice, semitones, bare);
  const tessitura = tessituraOf(song, semitones);
  const sung = phrases.reduce((sum, p) => sum + p.seconds, 0);
  const risk = phrases.reduce((sum, p) => sum + p.risk * p.seconds, 0) / sung;
  const crossings = crossingsOf(song, bare, voice, semitones);
  const beyond = Math.max(0, tessitura.highest - voice.high) + Math.max(0, voice.low - tessitura.lowest);
  const away = Math.abs(semitones - octave);
  const middle = voice.low + MIDDLE * (voice.high - voice.low);
  return {
    semitones,
    original: semitones === octave,
    key: keyNameOf(song.fifths, semitones),
    flats: namesFlats(song, semitones),
    standing: 'fits',
    tessitura,
    phrases,
    crossings,
    atTheChangeS: atTheChange(song, voice, semitones),
    risk,
    // A key with a risky phrase in it isn't called safe, however much of it is easy.
    level: worstOf(levelOf(risk), phrases.some((p) => p.level === 'risky') ? 'some care' : 'safe'),
    deciding: decidingBars(song, phrases, tessitura, semitones),
    cost: costOf(phrases, sung, voice) + COST.beyond * beyond + COST.away * away + COST.off * Math.abs(tessitura.mean - middle),
  };
}

/**
 * What the phrases cost. For a voice locked in heavy chest it is no fault of a key that the melody goes over the change: that is what
 * tips it into mix; what counts is how long it stays locked under it.
 */
function costOf(phrases: readonly PhraseRisk[], sung: number, voice: SongVoice): number {
  if (!isLocked(voice))
    return phrases.reduce((sum, p) => sum + p.risk * p.seconds, 0) / sung + COST.worst * Math.max(...phrases.map((p) => p.risk));
  const counts = (r: Risk) =>
    r.name !== 'crosses' && r.name !== 'chest-carried' && r.name !== 'locked-under' && r.name !== 'stays-on-the-change';
  const locked = phrases.filter((p) => p.risks.some((r) => r.name === 'locked-under')).reduce((sum, p) => sum + p.seconds, 0) / sung;
  const rest = phrases.reduce((sum, p) => sum + Math.max(0, ...p.risks.filter(counts).map((r) => r.weight)) * p.seconds, 0) / sung;
  return COST.locked * locked + rest;
}

function atTheChange(song: Song, { changes }: SongVoice, semitones: number): number {
  const long = noteSeconds(song);
  return song.notes.reduce((sum, n, i) => {
    const midi = n.midi + semitones;
    const near = changes.some((c) => midi >= c.first - NEAR_CHANGE_ST && midi <= c.last + NEAR_CHANGE_ST);
    return near ? sum + long[i] : sum;
  }, 0);
}

/** The two or three bars a key stands or falls with: where it is likeliest to go wrong, else its highest and lowest. */
function decidingBars(song: Song, phrases: readonly PhraseRisk[], { lowest, highest }: Tessitura, semitones: number): DecidingBar[] {
  const all = phrases.flatMap((p) => p.risks);
  const out = [...barRisks(song, phrases)]
    .filter(([, risk]) => levelOf(risk) !== 'safe')
    .sort(([a, x], [b, y]) => y - x || a - b)
    .slice(0, DECIDING)
    .map(([bar]): DecidingBar => {
      const worst = all.filter((r) => r.bar === bar).sort((a, b) => b.weight - a.weight)[0];
      return { bar, midi: worst.midi, risk: worst, is: 'risk' };
    });
  for (const [midi, is] of [
    [highest, 'top'],
    [lowest, 'bottom'],
  ] as const) {
    if (out.length >= 2) break;
    const note = song.notes.find((n) => n.midi + semitones === midi)!;
    const bar = barAt(song, note.start);
    if (!out.some((d) => d.bar === bar)) out.push({ bar, midi, risk: null, is });
  }
  return out;
}
