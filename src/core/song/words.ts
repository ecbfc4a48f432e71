import { noteName } from '../music/pitch';
import type { SongKey } from './keys';
import type { BreakName } from './outcome';
import type { PhraseRisk, Risk } from './risks';
import type { Song } from './types';
import { isLocked, SongVoice } from './voice';

const seconds = (s: number) => `${s < 10 ? s.toFixed(1) : Math.round(s)} s`;
const semitones = (n: number) => `${n} semitone${n === 1 ? '' : 's'}`;
const OVER = { step: 'by step', leap: 'by a leap', slide: 'in a slide' } as const;

/** A bar, as it is printed. */
export const barName = ({ bars }: Song, bar: number): string => `bar ${bars[bar].number}`;

/** Bars from one to another: "bars 9 to 12". */
export const barsName = ({ bars }: Song, first: number, last: number): string =>
  first === last ? `bar ${bars[first].number}` : `bars ${bars[first].number} to ${bars[last].number}`;

/** Why a place may go wrong, without the bar: "flips going up over A4, by a leap". `flats`: how the song's key names its notes. */
export function riskInWords(r: Risk, voice: SongVoice, flats = false): string {
  const named = (midi: number) => noteName(midi, flats);
  const note = named(r.midi);
  switch (r.name) {
    case 'over-the-top':
      return `${note} is ${semitones(r.by!)} over ${BY[voice.highBy]} ${named(voice.high)}`;
    case 'under-the-bottom':
      return `${note} is ${semitones(r.by!)} under ${BY[voice.lowBy]} ${named(voice.low)}`;
    case 'near-the-top':
      return `${note} for ${seconds(r.by!)} at the top of what may be sung`;
    case 'crosses': {
      const change = voice.changes[r.change!];
      const at = named(r.how === 'up' ? change.up : change.down);
      const does = {
        flip: 'this voice flips',
        toggle: 'this voice toggles',
        blended: 'this voice hands over smoothly',
        expected: 'such voices change',
      };
      const vowel = r.vowel ? `, and on “${r.vowel}” more often than on its best vowel` : '';
      return `goes ${r.how} over ${at} ${OVER[r.over!]}, where ${does[change.name]}${vowel}`;
    }
    case 'stays-on-the-change':
      return `stays on the change for ${seconds(r.by!)}, from ${note}`;
    case 'chest-carried':
      return `${seconds(r.by!)} over the change, where this voice carries heavy chest up`;
    case 'locked-under':
      return `${seconds(r.by!)} in heavy chest under the change, and never over it`;
    case 'no-chest-there':
      return `${seconds(r.by!)} down where this voice has no chest`;
    case 'first-head-notes':
      return `${seconds(r.by!)} on the first head notes, which are weak in this voice`;
    case 'insecure-note':
      return `${note} for ${seconds(r.by!)}, one of this voice’s insecure notes`;
    case 'long-breath':
      return `${seconds(r.by!)} on one breath`;
  }
}
const BY = { pinned: 'the pinned', usable: 'the usable', touched: 'two semitones inside the touched' } as const;

/** The weightiest reason of a phrase, or that there is none. */
export const phraseInWords = (p: PhraseRisk, voice: SongVoice, flats = false): string =>
  p.risks.length ? riskInWords(p.risks[0], voice, flats) : 'nothing in it that this voice is known to have trouble with';

/** How a key lies to the original: "as written", "2 semitones higher", "an octave lower". */
export function keyInWords(key: Pick<SongKey, 'semitones'>, octave: number): string {
  const by = key.semitones - octave;
  const written =
    octave === 0
      ? 'as written'
      : `${Math.abs(octave) === 12 ? 'an octave' : `${Math.abs(octave) / 12} octaves`} ${octave < 0 ? 'lower' : 'higher'}`;
  return by === 0 ? written : `${octave === 0 ? '' : `${written}, and `}${semitones(Math.abs(by))} ${by > 0 ? 'higher' : 'lower'}`;
}

/** Why a key stands where it stands, in one sentence. */
export function keyBecause(key: SongKey, keys: readonly SongKey[], song: Song, voice: SongVoice): string {
  const original = keys.find((k) => k.original)!;
  const { tessitura, flats } = key;
  const named = (midi: number) => noteName(midi, flats);
  if (key.standing === 'passes-a-limit') {
    const over = tessitura.highest - voice.high;
    const under = voice.low - tessitura.lowest;
    const said = [
      ...(over > 0 ? [`its top, ${named(tessitura.highest)}, is ${semitones(over)} over ${BY[voice.highBy]} ${named(voice.high)}`] : []),
      ...(under > 0 ? [`its bottom, ${named(tessitura.lowest)}, is ${semitones(under)} under ${BY[voice.lowBy]} ${named(voice.low)}`] : []),
    ];
    return `${capital(said.join(', and '))}.`;
  }
  if (key.standing === 'lowers-a-locked-voice')
    return 'Lower, this voice only stays longer in heavy chest under its change: go up, so that it tips over.';
  const locked = (k: SongKey) => k.phrases.filter((p) => p.risks.some((r) => r.name === 'locked-under')).length;
  if (isLocked(voice) && key.semitones > original.semitones && locked(key) < locked(original))
    return `Higher, ${locked(original) - locked(key)} of its phrases tip over the change instead of locking in chest under it.`;
  if (key.semitones < original.semitones && original.standing === 'passes-a-limit' && original.tessitura.highest > voice.high)
    return `Lower, because as written its top, ${noteName(original.tessitura.highest, original.flats)}, passes what may be sung.`;
  const risky = key.phrases.filter((p) => p.level === 'risky').length;
  const over = key.crossings.filter((c) => voice.changes[c.change].name !== 'blended').length;
  const worst = key.deciding.find((d) => d.risk);
  if (!worst)
    return `Nothing in it meets a known trouble of this voice; most of it lies from ${named(tessitura.low)} to ${named(tessitura.high)}.`;
  const counted = `${risky} of ${key.phrases.length} phrases risky${over ? `, ${over} crossing${over === 1 ? '' : 's'} of a change` : ''}`;
  return `${capital(counted)}; ${barName(song, worst.bar)}: ${riskInWords(worst.risk!, voice, flats)}.`;
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** What is worth saying of the song as a whole for this voice. */
export function songCautions(best: SongKey, original: SongKey, voice: SongVoice): string[] {
  const { tessitura } = best;
  const long = tessitura.histogram;
  const upper = voice.low + (2 / 3) * (voice.high - voice.low);
  const high = long.filter((h) => h.midi > upper).reduce((s, h) => s + h.seconds, 0) / tessitura.seconds;
  return [
    ...(voice.lean === 'light' && best.phrases.some((p) => p.risks.some((r) => r.name === 'no-chest-there'))
      ? [
          'A light voice, and this song wants weight where it has no chest: the easiest way to harm such a voice. Choose another song, or sing it light.',
        ]
      : []),
    ...(isLocked(voice) && best.phrases.some((p) => p.risks.some((r) => r.name === 'chest-carried'))
      ? ['This voice carries heavy chest up: take what lies over the change lighter, through a straw first, and let loud songs wait.']
      : []),
    ...(high > HIGH_SHARE
      ? [`${Math.round(100 * high)} % of it lies in the upper third of this voice: sing it in parts, with rests.`]
      : []),
    ...(voice.bandOnly
      ? ['Only the comfortable band of this voice is sung: nothing at the ends, and no song for the sake of its high notes.']
      : []),
    ...(best.semitones !== original.semitones
      ? ['Singers sing along with what they know: a beginner may be better served by the original key where it fits.']
      : []),
  ];
}
/** More of a song than this in the upper third of a voice tires it (common practice, no source). */
const HIGH_SHARE = 0.4;

/** Of bars in which a break can't be told. */
export const UNTOLD = 'a change is leapt over: whether it broke can’t be told';

/** What happened in a bar that broke. */
export function breakInWords({ name, midi }: { name: BreakName; midi: number }, flats = false): string {
  const note = noteName(midi, flats);
  return {
    leapt: `the voice leapt at ${note}`,
    'changed-at-once': `the colour changed at once at ${note}`,
    stopped: `the sound stopped at ${note}`,
    'fell-short': `${note} wasn’t reached`,
  }[name];
}
