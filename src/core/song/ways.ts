import { said, Said, texts } from '../words/said';
import type { PhraseRisk } from './risks';
import type { Song } from './types';
import { isLocked, SongVoice } from './voice';
import { namesFlats } from './written';

/** How a high phrase can be sung (trade words). */
export const WAYS = ['chest', 'mix', 'head-tall', 'head-relaxed', 'falsetto'] as const;
export type Way = (typeof WAYS)[number];

/** What the map says of a way: good here, with care, or not here. */
export const FITS = ['good', 'with care', 'no'] as const;
export type Fit = (typeof FITS)[number];

export interface WayOption {
  way: Way;
  name: string;
  /** What it sounds like. */
  sounds: string;
  fit: Fit;
  /** What the map says of it. */
  says: Said;
  /** How much of it, and how. */
  dose: string;
  caution: string;
}

/** Common practice, no source. */
const MANNER: Record<Way, Pick<WayOption, 'name' | 'sounds' | 'dose' | 'caution'>> = texts({
  chest: {
    name: 'Chest',
    sounds: 'strong and spoken, with weight',
    dose: 'Twice in a row, then rest as long; not the last thing of the day.',
    caution: 'Only as long as nothing scratches: at the first rasp or push, mix.',
  },
  mix: {
    name: 'Mix',
    sounds: 'bright and even, neither called nor hooted',
    dose: 'On ng or “oo” first, then on its vowels, then with the words.',
    caution: 'Softer than you think on the way up; keep the volume of the note before.',
  },
  'head-tall': {
    name: 'Head, tall space',
    sounds: 'round and ringing, as in classical singing',
    dose: 'On “oo”, opening little by little towards the vowel that is written.',
    caution: 'Begin it soft; round the open vowels.',
  },
  'head-relaxed': {
    name: 'Head, relaxed space',
    sounds: 'light and plain, as in pop',
    dose: 'As many times as it stays easy.',
    caution: 'Light isn’t breathy: if air is heard, lean it on “ee”.',
  },
  falsetto: {
    name: 'Falsetto',
    sounds: 'breathy and intimate',
    dose: 'A phrase, not a page: it dries the voice.',
    caution: 'Not loud, and not while hoarse.',
  },
});

/** Chest may go so far over the change for a phrase's top (common practice: "strong, only if not too high"). */
const CHEST_OVER_ST = 2;
const CHEST_CARE_ST = 4;
/** A phrase is high when its top comes so near to the change. */
const HIGH_UNDER_ST = 2;

/** The lowest change of a voice: where chest ends. */
const chestEnds = (voice: SongVoice) => voice.changes[0] ?? null;

/** Whether a phrase is high enough to be taken one way or another. */
export function isHigh(song: Song, phrase: Pick<PhraseRisk, 'first' | 'last'>, voice: SongVoice, semitones: number): boolean {
  const change = chestEnds(voice);
  return change !== null && topOf(song, phrase, semitones) >= change.up - HIGH_UNDER_ST;
}

const topOf = (song: Song, { first, last }: Pick<PhraseRisk, 'first' | 'last'>, semitones: number): number =>
  Math.max(...song.notes.slice(first, last + 1).map((n) => n.midi)) + semitones;

/** The ways a high phrase can be taken, each with what this voice's map says of it; the best first. */
export function waysFor(song: Song, phrase: Pick<PhraseRisk, 'first' | 'last'>, voice: SongVoice, semitones: number): WayOption[] {
  const change = chestEnds(voice);
  if (!change) return [];
  const top = topOf(song, phrase, semitones);
  const overSt = top - change.up;
  const named = (midi: number) => ({ note: midi, flats: namesFlats(song, semitones) });
  const over = { over: Math.round(top - change.up), at: named(change.up) };
  const beyond = top > voice.high;
  const says = (way: Way): [Fit, Said] => {
    if (beyond) return ['no', said('its top, {top}, is over what may be sung, {high}', { top: named(top), high: named(voice.high) })];
    if (way === 'chest') {
      if ('no-chest' in voice.findings) return ['no', said('this voice has no chest to carry')];
      if (isLocked(voice))
        return overSt > 0
          ? ['no', said('this voice already carries heavy chest over {at}', over)]
          : ['with care', said('under the change, but this voice locks there')];
      if (overSt <= CHEST_OVER_ST)
        return [
          'good',
          overSt <= 0
            ? said('its top lies under the change at {at}', over)
            : said('its top is {over} semitones over the change at {at}', over),
        ];
      return overSt <= CHEST_CARE_ST
        ? ['with care', said('{over} semitones over the change at {at} is high for chest', over)]
        : ['no', said('{over} semitones over the change at {at} is too high for chest', over)];
    }
    if (overSt <= 0 && way !== 'mix') return ['with care', said('its top lies under the change at {at}: head that low is soft', over)];
    if (way === 'mix') {
      if (voice.bandOnly) return ['with care', said('only as far as it is comfortable')];
      if (change.name === 'blended') return ['good', said('this voice hands over smoothly there')];
      if (change.name === 'expected') return ['with care', said('how this voice crosses was not heard yet')];
      return [
        'with care',
        change.name === 'flip'
          ? said('this voice flips at {at}: this is what its exercises work on', over)
          : said('this voice toggles at {at}: this is what its exercises work on', over),
      ];
    }
    if ('weak-first-head' in voice.findings && overSt <= CHEST_CARE_ST)
      return way === 'falsetto'
        ? ['good', said('its first head notes are breathy as yet: here that is the sound')]
        : ['with care', said('its first head notes are weak as yet')];
    if (way === 'falsetto') return ['with care', said('its top is {over} semitones over the change', over)];
    return ['good', said('its top is {over} semitones over the change at {at}', over)];
  };
  return WAYS.map((way): WayOption => {
    const [fit, text] = says(way);
    return { way, ...MANNER[way], fit, says: text };
  }).sort((a, b) => FITS.indexOf(a.fit) - FITS.indexOf(b.fit));
}
