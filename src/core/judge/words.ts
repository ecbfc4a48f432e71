import { flatsIn } from '../music/scale';
import { said, Said, texts } from '../words/said';
import type { Because, Fault, Judgement } from './types';

const ORDINALS = texts([
  'first',
  'second',
  'third',
  'fourth',
  'fifth',
  'sixth',
  'seventh',
  'eighth',
  'ninth',
  'tenth',
  'eleventh',
  'twelfth',
]);

/** "The third key"; one key alone is "It". */
const keyInWords = (key: number, of: number): Said =>
  of === 1 ? said('It') : key < ORDINALS.length ? said('The {nth} key', { nth: ORDINALS[key] }) : said('Key {n}', { n: key + 1 });

/** A step in words: "a tone", "3 semitones". */
const semitones = (by: number): Said => {
  const n = Math.round(Math.abs(by));
  return n === 1 ? said('a semitone') : n === 2 ? said('a tone') : said('{n} semitones', { n });
};

/** What happened, with whose fault it was and where: "{whose} leapt at {at}." */
const HAPPENED: Record<Exclude<Fault, 'wrong-note' | 'out-of-tune' | 'missed-the-end' | 'jumped-out'>, string> = texts({
  'not-usable': '{whose} could not be heard well enough to tell.',
  'not-sung': '{whose} was not sung.',
  'not-heard': '{whose} could not be heard at {at}.',
  stopped: '{whose} stopped at {at}.',
  leapt: '{whose} leapt at {at}.',
  'leapt-once': '{whose} may have leapt at {at}, where the others did not.',
  faded: '{whose} faded toward {at}.',
  unsteady: '{whose} did not hold {at}.',
  'changed-at-once': '{whose} changed its colour at once near {at}.',
  'chest-carried': '{whose} was pushed up past {at}: chest did not hand over.',
  'hand-over-not-heard': '{whose} passed {at}, but a hand-over could not be heard.',
  'not-softer': '{whose} did not grow softer toward {at}.',
});

/** One reason in a singer's words; notes are named as in the key of `tonicMidi`. @example inWords({ fault: 'leapt', midi: 65, key: 2 }, 5) // "The third key leapt at F4." */
export function inWords({ fault, midi, by = 0, key }: Because & { key?: number }, keys: number, tonicMidi?: number): Said {
  const of = {
    whose: key !== undefined ? keyInWords(key, keys) : fault === 'not-usable' ? said('The take') : said('It'),
    at: midi === undefined ? said('the end') : { note: midi, ...(tonicMidi !== undefined && flatsIn(tonicMidi) ? { flats: true } : {}) },
    by: semitones(by),
  };
  switch (fault) {
    case 'wrong-note':
      return by === 0
        ? said('{whose} was sung on other notes, from {at} on.', of)
        : by > 0
          ? said('{whose} had another note for {at}: {by} higher.', of)
          : said('{whose} had another note for {at}: {by} lower.', of);
    case 'out-of-tune':
      return by > 0 ? said('{whose} lay sharp from {at} on.', of) : said('{whose} lay flat from {at} on.', of);
    case 'missed-the-end':
      return by < 0 ? said('{whose} did not reach {at}.', of) : said('{whose} went past {at}.', of);
    case 'jumped-out':
      return by > 0
        ? said('{whose} had {at} jump out of the line, louder than the rest.', of)
        : said('{whose} had {at} jump out of the line, softer than the rest.', of);
    default:
      return said(HAPPENED[fault], of);
  }
}

/** The reason of a judgement in words; for a yes, what was heard. */
export const judgementInWords = ({
  because,
  keys,
}: {
  because: Judgement['because'];
  keys: readonly { because: Because | null; tonicMidi: number }[];
}): Said =>
  because
    ? because.fault === 'not-sung' && keys.every((k) => k.because?.fault === 'not-sung')
      ? said('Nothing of it was heard.')
      : inWords(because, keys.length, keys[because.key ?? 0]?.tonicMidi)
    : keys.length === 1
      ? said('It went through as asked.')
      : said('Every key went through as asked.');
