import { noteName } from '../music/pitch';
import type { Because, Fault, Judgement } from './types';

const ORDINALS = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth', 'ninth', 'tenth', 'eleventh', 'twelfth'];

/** "the third key"; one key alone is "it". */
const keyInWords = (key: number, of: number): string => (of === 1 ? 'it' : `the ${ORDINALS[key] ?? `${key + 1}th`} key`);

const semitones = (by: number) => {
  const n = Math.round(Math.abs(by));
  return n === 1 ? 'a semitone' : n === 2 ? 'a tone' : `${n} semitones`;
};
const sharpOrFlat = (by: number) => (by > 0 ? 'sharp' : 'flat');

/** What happened, after the key's name: "leapt at F4". */
const HAPPENED: Record<Fault, (at: string, by: number) => string> = {
  'not-usable': () => 'could not be heard well enough to tell',
  'not-sung': () => 'was not sung',
  'not-heard': (at) => `could not be heard at ${at}`,
  stopped: (at) => `stopped at ${at}`,
  leapt: (at) => `leapt at ${at}`,
  'leapt-once': (at) => `may have leapt at ${at}, where the others did not`,
  'wrong-note': (at, by) =>
    by === 0 ? `was sung on other notes, from ${at} on` : `had another note for ${at}: ${semitones(by)} ${by > 0 ? 'higher' : 'lower'}`,
  'out-of-tune': (at, by) => `lay ${sharpOrFlat(by)} from ${at} on`,
  'missed-the-end': (at, by) => (by < 0 ? `did not reach ${at}` : `went past ${at}`),
  faded: (at) => `faded toward ${at}`,
  unsteady: (at) => `did not hold ${at}`,
  'changed-at-once': (at) => `changed its colour at once near ${at}`,
  'chest-carried': (at) => `was pushed up past ${at}: chest did not hand over`,
  'hand-over-not-heard': (at) => `passed ${at}, but a hand-over could not be heard`,
  'jumped-out': (at, by) => `had ${at} jump out of the line, ${by > 0 ? 'louder' : 'softer'} than the rest`,
  'not-softer': (at) => `did not grow softer toward ${at}`,
};

/** One reason in a singer's words. @example inWords({ fault: 'leapt', midi: 65, key: 2 }, 5) // "The third key leapt at F4." */
export function inWords({ fault, midi, by = 0, key }: Because & { key?: number }, keys: number): string {
  const whose = key === undefined ? (fault === 'not-usable' ? 'the take' : 'it') : keyInWords(key, keys);
  const text = `${whose} ${HAPPENED[fault](midi === undefined ? 'the end' : noteName(midi), by)}.`;
  return text[0].toUpperCase() + text.slice(1);
}

/** The reason of a judgement in words; for a yes, what was heard. */
export const judgementInWords = ({
  because,
  keys,
}: {
  because: Judgement['because'];
  keys: readonly { because: Because | null }[];
}): string =>
  because
    ? because.fault === 'not-sung' && keys.every((k) => k.because?.fault === 'not-sung')
      ? 'Nothing of it was heard.'
      : inWords(because, keys.length)
    : keys.length === 1
      ? 'It went through as asked.'
      : 'Every key went through as asked.';
