import { said, Said, texts } from '../words/said';
import type { SongKey } from './keys';
import type { BreakName } from './outcome';
import type { PhraseRisk, Risk } from './risks';
import type { Song } from './types';
import { isLocked, SongVoice } from './voice';

const seconds = (s: number): Said => (s < 10 ? said('{s, number, ::.0} s', { s }) : said('{s} s', { s: Math.round(s) }));
const semitones = (n: number): Said => said('{n, plural, one {# semitone} other {# semitones}}', { n });
const OVER = texts({ step: 'by step', leap: 'by a leap', slide: 'in a slide' });

/** A bar, as it is printed. */
export const barName = ({ bars }: Song, bar: number): Said => said('bar {bar}', { bar: bars[bar].number });

/** Bars from one to another: "bars 9 to 12". */
export const barsName = (song: Song, first: number, last: number): Said =>
  first === last ? barName(song, first) : said('bars {first} to {last}', { first: song.bars[first].number, last: song.bars[last].number });

/** Why a place may go wrong, without the bar: "flips going up over A4, by a leap". `flats`: how the song's key names its notes. */
export function riskInWords(r: Risk, voice: SongVoice, flats = false): Said {
  const named = (midi: number) => ({ note: midi, flats });
  const note = named(r.midi);
  const time = () => seconds(r.by!);
  switch (r.name) {
    case 'over-the-top':
      return said('{note} is {by} over {limit} {at}', { note, by: semitones(r.by!), limit: BY[voice.highBy], at: named(voice.high) });
    case 'under-the-bottom':
      return said('{note} is {by} under {limit} {at}', { note, by: semitones(r.by!), limit: BY[voice.lowBy], at: named(voice.low) });
    case 'near-the-top':
      return said('{note} for {time} at the top of what may be sung', { note, time: time() });
    case 'crosses': {
      const change = voice.changes[r.change!];
      const at = named(r.how === 'up' ? change.up : change.down);
      const of = { at, over: OVER[r.over!], does: DOES[change.name] };
      const crossing =
        r.how === 'up' ? said('goes up over {at} {over}, where {does}', of) : said('goes down over {at} {over}, where {does}', of);
      return r.vowel ? said('{crossing}, and on “{vowel}” more often than on its best vowel', { crossing, vowel: r.vowel }) : crossing;
    }
    case 'stays-on-the-change':
      return said('stays on the change for {time}, from {note}', { time: time(), note });
    case 'chest-carried':
      return said('{time} over the change, where this voice carries heavy chest up', { time: time() });
    case 'locked-under':
      return said('{time} in heavy chest under the change, and never over it', { time: time() });
    case 'no-chest-there':
      return said('{time} down where this voice has no chest', { time: time() });
    case 'first-head-notes':
      return said('{time} on the first head notes, which are weak in this voice', { time: time() });
    case 'insecure-note':
      return said('{note} for {time}, one of this voice’s insecure notes', { note, time: time() });
    case 'long-breath':
      return said('{time} on one breath', { time: time() });
  }
}
const DOES = texts({
  flip: 'this voice flips',
  toggle: 'this voice toggles',
  blended: 'this voice hands over smoothly',
  expected: 'such voices change',
});
const BY = texts({ pinned: 'the pinned', usable: 'the usable', touched: 'two semitones inside the touched' });

/** The weightiest reason of a phrase, or that there is none. */
export const phraseInWords = (p: PhraseRisk, voice: SongVoice, flats = false): Said =>
  p.risks.length ? riskInWords(p.risks[0], voice, flats) : said('nothing in it that this voice is known to have trouble with');

/** How a key lies to the original: "as written", "2 semitones higher", "an octave lower". */
export function keyInWords(key: Pick<SongKey, 'semitones'>, octave: number): Said {
  const by = key.semitones - octave;
  const octaves = Math.abs(octave) / 12;
  const written =
    octave === 0
      ? said('as written')
      : octave < 0
        ? said('{octaves, plural, one {an octave} other {# octaves}} lower', { octaves })
        : said('{octaves, plural, one {an octave} other {# octaves}} higher', { octaves });
  if (by === 0) return written;
  const moved = { by: semitones(Math.abs(by)) };
  const off = by > 0 ? said('{by} higher', moved) : said('{by} lower', moved);
  return octave === 0 ? off : said('{written}, and {off}', { written, off });
}

/** Why a key stands where it stands, in one sentence. */
export function keyBecause(key: SongKey, keys: readonly SongKey[], song: Song, voice: SongVoice): Said {
  const original = keys.find((k) => k.original)!;
  const { tessitura, flats } = key;
  const named = (midi: number) => ({ note: midi, flats });
  if (key.standing === 'passes-a-limit') {
    const over = tessitura.highest - voice.high;
    const under = voice.low - tessitura.lowest;
    const top = { top: named(tessitura.highest), over: semitones(over), highest: BY[voice.highBy], high: named(voice.high) };
    const bottom = { bottom: named(tessitura.lowest), under: semitones(under), lowest: BY[voice.lowBy], low: named(voice.low) };
    if (under <= 0) return said('Its top, {top}, is {over} over {highest} {high}.', top);
    if (over <= 0) return said('Its bottom, {bottom}, is {under} under {lowest} {low}.', bottom);
    return said('Its top, {top}, is {over} over {highest} {high}, and its bottom, {bottom}, is {under} under {lowest} {low}.', {
      ...top,
      ...bottom,
    });
  }
  if (key.standing === 'lowers-a-locked-voice')
    return said('Lower, this voice only stays longer in heavy chest under its change: go up, so that it tips over.');
  const locked = (k: SongKey) => k.phrases.filter((p) => p.risks.some((r) => r.name === 'locked-under')).length;
  if (isLocked(voice) && key.semitones > original.semitones && locked(key) < locked(original))
    return said('Higher, {phrases} of its phrases tip over the change instead of locking in chest under it.', {
      phrases: locked(original) - locked(key),
    });
  if (key.semitones < original.semitones && original.standing === 'passes-a-limit' && original.tessitura.highest > voice.high)
    return said('Lower, because as written its top, {top}, passes what may be sung.', {
      top: { note: original.tessitura.highest, flats: original.flats },
    });
  const risky = key.phrases.filter((p) => p.level === 'risky').length;
  const over = key.crossings.filter((c) => voice.changes[c.change].name !== 'blended').length;
  const worst = key.deciding.find((d) => d.risk);
  if (!worst)
    return said('Nothing in it meets a known trouble of this voice; most of it lies from {low} to {high}.', {
      low: named(tessitura.low),
      high: named(tessitura.high),
    });
  return said(
    '{risky} of {phrases} phrases risky{over, plural, =0 {} one {, # crossing of a change} other {, # crossings of a change}}; {bar}: {risk}.',
    { risky, phrases: key.phrases.length, over, bar: barName(song, worst.bar), risk: riskInWords(worst.risk!, voice, flats) },
  );
}

/** What is worth saying of the song as a whole for this voice. */
export function songCautions(best: SongKey, original: SongKey, voice: SongVoice): Said[] {
  const { tessitura } = best;
  const long = tessitura.histogram;
  const upper = voice.low + (2 / 3) * (voice.high - voice.low);
  const high = long.filter((h) => h.midi > upper).reduce((s, h) => s + h.seconds, 0) / tessitura.seconds;
  return [
    ...(voice.lean === 'light' && best.phrases.some((p) => p.risks.some((r) => r.name === 'no-chest-there'))
      ? [
          said(
            'A light voice, and this song wants weight where it has no chest: the easiest way to harm such a voice. Choose another song, or sing it light.',
          ),
        ]
      : []),
    ...(isLocked(voice) && best.phrases.some((p) => p.risks.some((r) => r.name === 'chest-carried'))
      ? [said('This voice carries heavy chest up: take what lies over the change lighter, through a straw first, and let loud songs wait.')]
      : []),
    ...(high > HIGH_SHARE
      ? [
          said('{percent} % of it lies in the upper third of this voice: sing it in parts, with rests.', {
            percent: Math.round(100 * high),
          }),
        ]
      : []),
    ...(voice.bandOnly
      ? [said('Only the comfortable band of this voice is sung: nothing at the ends, and no song for the sake of its high notes.')]
      : []),
    ...(best.semitones !== original.semitones
      ? [said('Singers sing along with what they know: a beginner may be better served by the original key where it fits.')]
      : []),
  ];
}
/** More of a song than this in the upper third of a voice tires it (common practice, no source). */
const HIGH_SHARE = 0.4;

/** Of bars in which a break can't be told. */
export const UNTOLD = said('a change is leapt over: whether it broke can’t be told');

/** What happened in a bar that broke. */
export function breakInWords({ name, midi }: { name: BreakName; midi: number }, flats = false): Said {
  return said(BROKE[name], { note: { note: midi, flats } });
}
const BROKE: Record<BreakName, string> = texts({
  leapt: 'the voice leapt at {note}',
  'changed-at-once': 'the colour changed at once at {note}',
  stopped: 'the sound stopped at {note}',
  'fell-short': '{note} wasn’t reached',
});
