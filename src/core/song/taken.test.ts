import { seededRandom } from '../signal/stats';
import { sing } from '../sim/sing';
import { songTask } from '../sim/song';
import { typicalProfile } from '../sim/typical';
import { analyseTake } from '../take/analyse';
import { drawnSong } from './made-song';
import { heardIn, KeptOutcome } from './outcome';
import { phrasesOf } from './phrases';
import { phraseSung, registerIn, takenAs, wentIn } from './taken';
import { Song } from './types';
import { typedSong } from './typed';
import type { SongVoice } from './voice';
import { Way, WAYS } from './ways';
import { inEnglish } from '../format/say';

const voiceAt = (up: number): SongVoice => ({
  low: 40,
  high: 90,
  lowBy: 'usable',
  highBy: 'usable',
  changes: [{ up, down: up - 1, first: up, last: up, name: 'flip', confidence: 0.9, vowels: [], takeIds: [] }],
  findings: {},
  lean: 'balanced',
  insecure: [],
  speaking: 50,
  bandOnly: false,
});

/** Two phrases: one under the change at F4, one over it. */
const SONG = typedSong({ title: 'x', tempo: 60, meter: [4, 4], melody: 'C4:2 D4:2, | A4:2 C5:2', words: 'low and high too' });
const [LOW, HIGH] = phrasesOf(SONG);
const VOICE = voiceAt(65);
/** The song as it was heard, `over` so much headier above the change than below. */
const heard = (over: number | null, broke: KeptOutcome['bars'][number]['broke'] = null): KeptOutcome => ({
  semitones: 0,
  tuningCents: 0,
  pace: 1,
  jumps: 0,
  notes: SONG.notes.map((n, i) => ({ note: i, startS: n.start, endS: n.start + n.beats, cents: 0, head: i < 2 ? 0 : over })),
  bars: [1, 0].map((bar) => ({ bar, called: 'risky', sung: true, broke: bar === 1 ? broke : null, inTune: 1, notes: 2 })),
});
const verdicts = (of: KeptOutcome) => WAYS.map((way) => takenAs(SONG, of, HIGH, way, VOICE)?.verdict);

test('chest is carried, head is handed over to, a mix hands over without a leap', () => {
  //                             chest      mix        tall       relaxed    falsetto
  expect(verdicts(heard(2))).toEqual(['not yet', 'yes', 'yes', 'yes', 'yes']);
  expect(verdicts(heard(-1))).toEqual(['yes', 'not yet', 'not yet', 'not yet', 'not yet']);
  const leapt = { name: 'leapt', midi: 65, timeS: 4 } as const;
  expect(verdicts(heard(2, leapt))).toEqual(['not yet', 'not yet', 'yes', 'yes', 'yes']);
  expect(inEnglish(takenAs(SONG, heard(2, leapt), HIGH, 'mix', VOICE)!.because)).toBe('the voice leapt at F4');
});

test('nothing is said of what wasn’t heard: no colour, colour between, nothing below, no change known, not sung', () => {
  for (const of of [heard(null), heard(0.1)]) expect(verdicts(of)).toEqual(Array(5).fill('not told'));
  const alone = { ...heard(2), notes: heard(2).notes.slice(2) };
  expect(verdicts(alone)).toEqual(Array(5).fill('not told'));
  const before = { ...heard(2), notes: heard(2).notes.map(({ head: _, ...n }) => n) };
  expect(verdicts(before)).toEqual(Array(5).fill('not told'));
  expect(registerIn(SONG, heard(2), HIGH, { ...VOICE, changes: [] })).toBe('not told');
  expect(takenAs(SONG, heard(2), LOW, 'head-tall', VOICE)).toBeNull();
  expect(takenAs(SONG, { ...heard(2), notes: heard(2).notes.slice(0, 2) }, HIGH, 'head-tall', VOICE)).toBeNull();
});

test('on closed vowels more is needed', () => {
  const closed: Song = { ...SONG, language: 'en', notes: SONG.notes.map((n) => ({ ...n, words: 'moon' })) };
  expect(registerIn(SONG, heard(1), HIGH, VOICE)).toBe('handed over');
  expect(registerIn(closed, heard(1), HIGH, VOICE)).toBe('not told');
});

test('a phrase is found where it was sung last, with what broke in it', () => {
  const of = heard(2, { name: 'leapt', midi: 65, timeS: 4 });
  expect(phraseSung(of, LOW)).toEqual({ startS: 0, endS: 4, inTune: 1, broke: null });
  const again = {
    ...of,
    notes: [
      ...of.notes,
      ...of.notes.slice(2).map((n) => ({ ...n, startS: n.startS + 10, endS: n.endS + 10, cents: n.note === 3 ? 80 : 0 })),
    ],
  };
  expect(phraseSung(again, HIGH)).toEqual({ startS: 14, endS: 18, inTune: 0.5, broke: { name: 'leapt', midi: 65, timeS: 4 } });
  expect(phraseSung({ ...of, notes: of.notes.slice(0, 2) }, HIGH)).toBeNull();
});

test('a phrase went as meant only where its way was heard; where it broke it did not', () => {
  const went = (of: KeptOutcome, ways: Record<string, Way>) => [...wentIn(SONG, of, [LOW, HIGH], ways, VOICE)];
  expect(went(heard(2), { 2: 'mix' })).toEqual([
    [0, null],
    [2, true],
  ]);
  expect(went(heard(2), {})[1]).toEqual([2, null]);
  expect(went(heard(0.1), { 2: 'mix' })[1]).toEqual([2, null]);
  expect(went(heard(-1), { 2: 'mix' })[1]).toEqual([2, false]);
  expect(went(heard(2, { name: 'stopped', midi: 65, timeS: 4 }), { 2: 'head-tall' })[1]).toEqual([2, false]);
  expect(went({ ...heard(2), notes: heard(2).notes.slice(0, 2) }, {})).toEqual([[0, null]]);
});

test('by sound: voices that hand over, and that carry chest, are told apart or not told', () => {
  const told = { flip: { right: 0, wrong: 0 }, pulled: { right: 0, wrong: 0 } };
  for (const [s, style] of (['flip', 'pulled', 'flip', 'pulled', 'flip', 'pulled', 'flip', 'pulled'] as const).entries()) {
    const singer = typicalProfile(s < 4 ? 'tenor' : 'mezzo', style);
    const up = singer.crossings[0].upMidi;
    const song = drawnSong(seededRandom(700 + s), { bars: 12, low: singer.lowMidi + 5, high: up + 5 });
    const { pcm } = sing(singer, songTask(song), { seed: s, sampleRate: 22050, snrDb: 45 });
    const { outcome } = heardIn({ song, predicted: [], semitones: 0 }, analyseTake(pcm, 'free', { asked: { slid: false } }));
    for (const phrase of phrasesOf(song)) {
      const register = registerIn(song, outcome!, phrase, voiceAt(up));
      if (register !== 'not told') told[style][(register === 'carried') === (style === 'pulled') ? 'right' : 'wrong']++;
    }
  }
  for (const { right, wrong } of Object.values(told)) {
    expect(right).toBeGreaterThanOrEqual(6);
    expect(wrong).toBe(0);
  }
});
