import * as fc from 'fast-check';
import { Interval, Note } from 'tonal';
import { VoiceFile, mapOfVoice } from '../format/voice-file';
import { seededRandom } from '../signal/stats';
import { perform } from '../sim/score';
import { songTask } from '../sim/song';
import { typicalProfile } from '../sim/typical';
import { expectedChange, VOICE_TYPES, VoiceTypeId } from '../plan/voice-types';
import { crossingsOf } from './crossings';
import { DEMO_SONGS } from './demo-songs';
import { keysFor, octaveFor, rangeFit } from './keys';
import { drawnSong } from './made-song';
import { phrasesOf } from './phrases';
import { barRisks, levelOf, risksOf } from './risks';
import { tessituraOf } from './tessitura';
import { sungIn } from './sung-in';
import { typedSong } from './typed';
import { typedText } from './typed-text';
import { exerciseFrom, WORKS } from './work';
import { keysFor as keysOfExercise } from '../exercise/keys';
import { stepSemitones } from '../exercise/pattern';
import { ExerciseShape } from '../format/exercise';
import { anchorsOf } from '../plan/voice';
import { barAt, Song } from './types';
import { songVoice, SongVoice } from './voice';
import { vowelOf } from './vowel';
import { waysFor } from './ways';
import { keyBecause, phraseInWords } from './words';
import { inEnglish } from '../format/say';

const voiceOf = (more: object, type: VoiceTypeId = 'mezzo'): SongVoice =>
  songVoice(mapOfVoice(VoiceFile.parse({ range: { touched: { low: 'F3', high: 'B5' } }, ...more, person: { voiceType: type } })), type)!;
const typed = (melody: string, more: object = {}) => typedSong({ title: 'T', tempo: 60, meter: [4, 4], melody, ...more });
const flips = voiceOf({
  range: { touched: { low: 'F3', high: 'B5' }, usable: { low: 'G3', high: 'A5' } },
  passaggi: [{ up: 'A4', down: 'G4', name: 'flip' }],
});
const locks = voiceOf({
  range: { touched: { low: 'F3', high: 'B5' }, usable: { low: 'G3', high: 'A5' } },
  findings: [{ name: 'pulled-chest', midi: 'A4' }],
});

describe('where a melody lies', () => {
  // “Ode to Joy”, the theme of the Ninth Symphony's last movement (Beethoven, died 1827), in D, first eight bars; reckoned by hand:
  // crotchets on D4 4, E4 7.5, F#4 10, G4 4, A4 4 and, at the cadences' ends, D4 2 and E4 2 more; 32 less 1.5 held over as dotted notes.
  const ODE = typed(
    'F#4 F#4 G4 A4 | A4 G4 F#4 E4 | D4 D4 E4 F#4 | F#4:1.5 E4:0.5 E4:2 | F#4 F#4 G4 A4 | A4 G4 F#4 E4 | D4 D4 E4 F#4 | E4:1.5 D4:0.5 D4:2',
  );
  test('a published tune, reckoned by hand', () => {
    const t = tessituraOf(ODE);
    expect([t.lowest, t.highest, t.seconds]).toEqual([62, 69, 32]);
    expect(Object.fromEntries(t.histogram.map((h) => [Note.fromMidiSharps(h.midi), h.seconds]))).toEqual({
      D4: 2 + 2 + 2.5,
      E4: 1 + 1 + 2.5 + 1 + 1 + 1.5,
      'F#4': 2 + 1 + 1 + 1.5 + 2 + 1 + 1,
      G4: 4,
      A4: 4,
    });
    // (62 x 6.5 + 64 x 8 + 66 x 9.5 + 67 x 4 + 69 x 4) / 32
    expect(t.mean).toBeCloseTo((62 * 6.5 + 64 * 8 + 66 * 9.5 + 67 * 4 + 69 * 4) / 32, 9);
    expect([t.low, t.high]).toEqual([62, 69]);
  });

  test('every transposition is what the registry’s library says of its notes', () => {
    for (const k of keysFor(ODE, flips)) {
      const up = Interval.fromSemitones(k.semitones);
      expect(Note.midi(Note.transpose('D4', up))).toBe(k.tessitura.lowest);
      expect(Note.midi(Note.transpose('A4', up))).toBe(k.tessitura.highest);
      expect(Note.chroma(k.key)).toBe(Note.chroma(Note.transpose('C', up)));
    }
  });
});

describe('phrases', () => {
  test('rests, written breaths and ends of sentences part them; a long one is parted at its longest note', () => {
    const of = (song: Song) => phrasesOf(song).map((p) => [p.first, p.last]);
    expect(of(typed('C4 D4 r E4 F4'))).toEqual([
      [0, 1],
      [2, 3],
    ]);
    expect(of(typed('C4 D4, E4 F4'))).toEqual([
      [0, 1],
      [2, 3],
    ]);
    expect(of(typed('C4 D4 E4 F4', { words: 'so it. goes on' }))).toEqual([
      [0, 1],
      [2, 3],
    ]);
    expect(of(typed('C4 D4 E4:3 F4:2 G4:2 A4:2 B4:2 C5:2'))).toEqual([
      [0, 2],
      [3, 7],
    ]);
    expect(phrasesOf(typed('C4:2 D4:2 | r:4 E4:4'))).toMatchObject([
      { firstBar: 0, lastBar: 0, seconds: 4 },
      { firstBar: 2, lastBar: 2 },
    ]);
  });
});

describe('crossings', () => {
  const seen = (melody: string, voice = flips) => {
    const song = typed(melody);
    return crossingsOf(song, phrasesOf(song), voice).map((c) => `${c.direction} by ${c.by} in bar ${song.bars[c.bar].number}`);
  };
  // The change lies at A4 going up and at G4 coming down: the notes between are left in what one came from.
  test.each([
    ['G4 A4 B4', ['up by step in bar 1']],
    ['G4 A4 G4', []],
    ['E4 C5', ['up by leap in bar 1']],
    ['C5 A4 G4 E4', ['down by leap in bar 1']],
    ['C5 A4 G4 A4', []],
    ['A4~ C5', ['up by slide in bar 1']],
    ['A4 r C5', []],
    ['E4:4 B4 B4 B4 G4 | F4', ['up by leap in bar 2', 'down by step in bar 3']],
  ])('%s: %j', (melody, expected) => expect(seen(melody)).toEqual(expected));

  test('a flip is risky on every crossing, a blend is not, and staying clear of the change is safe', () => {
    const level = (melody: string, voice: SongVoice) => risksOf(typed(melody), voice).map((p) => p.level);
    const blends = voiceOf({ passaggi: [{ up: 'A4', down: 'G4', name: 'blended' }] });
    expect(level('F4 G4 B4 C5', flips)).toEqual(['risky']);
    expect(level('F4 G4 B4 C5', blends)).toEqual(['safe']);
    expect(level('C4 D4 E4 D4', flips)).toEqual(['safe']);
    expect(level('C4 D4 A5:2 B5', flips)).toEqual(['risky']);
    expect(inEnglish(phraseInWords(risksOf(typed('F4 G4 B4 C5'), flips)[0], flips))).toBe(
      'goes up over A4 by a leap, where this voice flips',
    );
  });

  test('where nothing was heard, a change is expected only if the voice goes so far', () => {
    expect(voiceOf({}).changes).toMatchObject([{ name: 'expected', up: expectedChange('mezzo') }]);
    expect(voiceOf({ range: { touched: { low: 'F3', high: 'G4' } } }).changes).toEqual([]);
  });
});

describe('which key', () => {
  test('a phrase that locks under the change goes up until it tips over; never down', () => {
    // Heavy chest to F4 and G4 under a change at A4 (common practice, no source: raise it, lowering locks it further).
    const song = typed('D4 E4 F4:2 | G4:2 F4 E4 | F4:2 G4:2 | F4:3 r');
    const keys = keysFor(song, locks);
    expect(keys[0].semitones).toBeGreaterThan(0);
    expect(keys[0].phrases.every((p) => p.risks.every((r) => r.name !== 'locked-under'))).toBe(true);
    expect(inEnglish(keyBecause(keys[0], keys, song, locks))).toMatch(/^Higher, 2 of its phrases tip over the change/);
    const lower = keys.filter((k) => k.semitones < 0);
    expect(lower.every((k) => k.standing !== 'fits')).toBe(true);
    // The same song and a voice that isn't locked: nothing speaks for going up.
    expect(keysFor(song, flips)[0].semitones).toBeLessThanOrEqual(0);
  });

  test('lower where the top passes what may be sung, also for a locked voice', () => {
    const song = typed('A4 C5 E5 G5 | A5 B5:2 A5 | G5:4');
    const [best] = keysFor(song, locks);
    expect(best.semitones).toBeLessThan(0);
    expect(best.tessitura.highest).toBeLessThanOrEqual(locks.high);
  });

  test('a key names its notes as it is written: a tone lower than C there is a Bb, a semitone lower a B', () => {
    const song = typed('C4 D4 E4 A5 | C5:3 r');
    const named = (semitones: number) => {
      const key = keysFor(song, flips).find((k) => k.semitones === semitones)!;
      return [
        key.key,
        inEnglish(keyBecause({ ...key, standing: 'passes-a-limit' }, keysFor(song, { ...flips, high: 70 }), song, { ...flips, high: 70 })),
      ];
    };
    expect(named(-2)[0]).toBe('Bb');
    expect(named(1)[0]).toBe('Db');
    expect(named(1)[1]).toMatch(/^Its top, Bb5, /);
    expect(named(2)[1]).toMatch(/^Its top, B5, /);
  });

  test('a key with a risky phrase in it is not called safe, however much of it is easy', () => {
    const easy = 'C4 D4 E4 D4 | C4:3 r | ';
    const [as] = keysFor(typed(easy.repeat(6)), flips).filter((k) => k.original);
    expect(as.level).toBe('safe');
    const [once] = keysFor(typed(`${easy.repeat(6)}F4 G4 B4 C5 | C5:3 r`), flips).filter((k) => k.original);
    expect(once.phrases.map((p) => p.level)).toContain('risky');
    expect(once.risk).toBeLessThan(0.25);
    expect(once.level).toBe('some care');
  });

  test('whom a range fits is told without its notes', () => {
    expect(rangeFit(60, 76, { low: 57, high: 79 })).toBe(0);
    expect(rangeFit(60, 80, { low: 57, high: 78 })).toBe(-2);
    expect(rangeFit(55, 70, { low: 57, high: 79 })).toBe(2);
    expect(rangeFit(60, 76, { low: 45, high: 67 })).toBe(0);
    expect(rangeFit(50, 79, { low: 57, high: 79 })).toBeNull();
  });

  test('lower is not advised where the top can be sung and little is won by it', () => {
    const [best] = keysFor(typed('C4 D4 E4 F4 | G4 F4 E4:2 | D4 E4 C4:2'), flips);
    expect(best.semitones).toBeGreaterThanOrEqual(0);
    // Where every bar crosses the change, much is won.
    const [low] = keysFor(typed('G4 B4 G4 B4 | F4 C5 F4 C5 | G4 B4 F4 B4'), flips);
    expect(low.semitones).not.toBe(0);
    expect(low.crossings.length).toBe(0);
  });

  test('men sing an octave lower what is written for women, and each key says two or three bars that decide it', () => {
    const bass = voiceOf({ range: { touched: { low: 'E2', high: 'E4' } } }, 'bass');
    for (const song of DEMO_SONGS) {
      expect(octaveFor(song, bass)).toBe(-12);
      expect(octaveFor(song, flips)).toBe(0);
      for (const k of keysFor(song, flips)) {
        expect([2, 3]).toContain(k.deciding.length);
        expect(new Set(k.deciding.map((d) => d.bar)).size).toBe(k.deciding.length);
      }
    }
  });

  const drawnVoice = fc.record({
    type: fc.constantFrom(...VOICE_TYPES.map((t) => t.id)),
    low: fc.integer({ min: -3, max: 3 }),
    wide: fc.integer({ min: 16, max: 30 }),
    change: fc.option(fc.integer({ min: -3, max: 3 })),
    name: fc.constantFrom('flip', 'toggle', 'blended'),
    finding: fc.option(fc.constantFrom('pulled-chest', 'flip', 'no-chest', 'weak-first-head')),
    pin: fc.option(fc.integer({ min: 12, max: 20 })),
  });
  test('200 drawn voices x 20 drawn melodies: no advice to lower a locked voice, none to pass a pin', () => {
    fc.assert(
      fc.property(drawnVoice, fc.integer({ min: 1, max: 1e6 }), (v, seed) => {
        const type = VOICE_TYPES.find((t) => t.id === v.type)!;
        const low = type.low + v.low;
        const change = expectedChange(type.id) + (v.change ?? 0);
        const pins = v.pin === null ? {} : { 'usable-low': low + 2, 'usable-high': low + v.pin };
        const voice = voiceOf(
          {
            range: { touched: { low, high: low + v.wide } },
            passaggi: v.change === null ? [] : [{ up: change, down: change - 1, name: v.name }],
            findings: v.finding ? [{ name: v.finding, midi: change }] : [],
            pins,
          },
          type.id,
        );
        const random = seededRandom(seed);
        for (let i = 0; i < 20; i++) {
          const song = drawnSong(random, { bars: 8, low: low + 2 + Math.floor(4 * random()), high: low + 10 + Math.floor(8 * random()) });
          const keys = keysFor(song, voice);
          const original = keys.find((k) => k.original)!;
          const fits = keys.filter((k) => k.standing === 'fits');
          for (const k of fits) expect(k.tessitura.lowest >= voice.low && k.tessitura.highest <= voice.high).toBe(true);
          if (v.pin !== null) expect([voice.low, voice.high]).toEqual([low + 2, low + v.pin]);
          if (v.finding === 'pulled-chest' && original.tessitura.highest <= voice.high)
            for (const k of fits) expect(k.semitones).toBeGreaterThanOrEqual(original.semitones);
          // Whatever fits stands before whatever doesn't.
          const order = keys.map((k) => k.standing === 'fits');
          expect(order.lastIndexOf(true)).toBeLessThan(order.includes(false) ? order.indexOf(false) : keys.length);
        }
      }),
      { numRuns: 200, seed: 1 },
    );
  });

  test('bars called risky break at least three times as often as bars called safe, in voices that flip or toggle', () => {
    // The simulated singer knows nothing of what is called risky: it breaks where its own register changes.
    const count = { risky: { bars: 0, broke: 0 }, 'some care': { bars: 0, broke: 0 }, safe: { bars: 0, broke: 0 } };
    VOICE_TYPES.forEach(({ id }, t) => {
      for (const style of ['flip', 'toggle', 'blend', 'pulled'] as const)
        for (let s = 0; s < 4; s++) {
          const random = seededRandom(100 * t + s);
          const singer = typicalProfile(id, style);
          const { upMidi, downMidi } = singer.crossings[0];
          const voice = voiceOf(
            {
              range: { touched: { low: singer.lowMidi, high: singer.highMidi }, usable: { low: singer.lowMidi, high: singer.highMidi } },
              passaggi: style === 'pulled' ? [] : [{ up: upMidi, down: downMidi, name: style === 'blend' ? 'blended' : style }],
              findings: style === 'pulled' ? [{ name: 'pulled-chest', midi: upMidi }] : [],
            },
            id,
          );
          const song = drawnSong(random, { bars: 16, low: singer.lowMidi + 2, high: singer.highMidi - 3 });
          const { truth } = perform(singer, songTask(song), random);
          const broke = new Set(
            truth.events.map((e) => {
              const n = truth.notes.findIndex((note) => e.timeS >= note.startS - 0.01 && e.timeS < note.endS);
              return barAt(song, song.notes[n].start);
            }),
          );
          for (const [bar, risk] of barRisks(song, risksOf(song, voice))) {
            count[levelOf(risk)].bars++;
            if (broke.has(bar)) count[levelOf(risk)].broke++;
          }
        }
    });
    const share = (c: { bars: number; broke: number }) => c.broke / c.bars;
    expect(count.risky.bars).toBeGreaterThan(100);
    expect(count.safe.bars).toBeGreaterThan(100);
    expect(share(count.risky)).toBeGreaterThan(3 * share(count.safe));
    expect(share(count.risky)).toBeGreaterThan(0.3);
  });
});

describe('a high phrase', () => {
  const ways = (melody: string, voice: SongVoice) => {
    const song = typed(melody);
    return Object.fromEntries(waysFor(song, phrasesOf(song)[0], voice, 0).map((w) => [w.way, w.fit]));
  };
  test('chest only if not too high, and never carried further by a voice that pulls', () => {
    expect(ways('F4 A4', flips).chest).toBe('good');
    expect(ways('F4 C#5', flips).chest).toBe('with care');
    expect(ways('F4 E5', flips).chest).toBe('no');
    expect(ways('F4 B4', locks).chest).toBe('no');
    expect(ways('F4 E5', flips)['head-tall']).toBe('good');
    // Over what may be sung there is no way.
    expect(new Set(Object.values(ways('F4 C6', flips)))).toEqual(new Set(['no']));
  });
});

test.each([
  ['moon', 'en', 'oo'],
  ['still', 'en', 'ee'],
  ['sun', 'en', 'uh'],
  ['ah', 'de', 'ah'],
  ['vie', 'de', 'ee'],
  ['cuo-', 'it', 'oh'],
  ['pst', 'en', null],
])('%s (%s) is held on %s', (word, language, vowel) => expect(vowelOf(word, language)).toBe(vowel));

describe('typed and sung in', () => {
  test('what is typed out is read back the same', () => {
    for (const song of [...DEMO_SONGS, drawnSong(seededRandom(8))]) {
      const back = typedSong(typedText(song));
      expect(back.notes.map(({ words: _, ...n }) => n)).toEqual(song.notes.map(({ words: _, ...n }) => n));
      expect(back.notes.map((n) => n.words)).toEqual(song.notes.map((n) => n.words));
      expect(back.bars).toEqual(song.bars);
    }
  });

  test('a take without accompaniment becomes notes in bars', () => {
    const song = typed('C4 D4 E4:2 | F4 E4 D4:2 | C4:4');
    const beat = 60 / 92;
    // Sung a little early and late, a consonant between, a slip of 50 ms.
    const spans = song.notes.map((n, i) => ({
      startS: 1.3 + n.start * beat + (i % 2 ? 0.05 : -0.04),
      endS: 1.3 + (n.start + n.beats) * beat - 0.06,
      midi: n.midi,
      cents: 0,
    }));
    spans.splice(3, 0, { startS: spans[2].endS, endS: spans[2].endS + 0.05, midi: 50, cents: 0 });
    const heard = sungIn(spans, { tempo: 92, meter: [4, 4], title: 'Sung in' })!;
    expect(heard.notes.map((n) => [n.midi, n.start, n.beats])).toEqual(song.notes.map((n) => [n.midi, n.start, n.beats]));
    expect(heard.bars).toHaveLength(3);
    expect(sungIn([], { tempo: 92, meter: [4, 4], title: 'x' })).toBeNull();
  });
});

describe('work from a song', () => {
  test.each(WORKS)('a hard place on %s: its notes, slower, in keys that walk from easy to the song’s own', (work) => {
    const [song] = DEMO_SONGS;
    const map = mapOfVoice(
      VoiceFile.parse({ range: { touched: { low: 'F3', high: 'C6' } }, passaggi: [{ up: 'A4', down: 'G4', name: 'flip' }] }),
    );
    const { anchors } = anchorsOf(map, 'mezzo')!;
    const place = risksOf(song, songVoice(map, 'mezzo')!).find((p) => p.level === 'risky')!;
    const id = '00000000-0000-4000-8000-000000000001';
    const e = ExerciseShape.parse(exerciseFrom(song, place, { id, semitones: -1, anchors, upward: false, work }));
    const keys = keysOfExercise(e, anchors);
    const sung = e.steps.map((s) => stepSemitones(s) + keys[keys.length - 1]);
    expect(sung).toEqual(song.notes.slice(place.first, place.last + 1).map((n) => n.midi - 1));
    expect(keys.length).toBeGreaterThan(1);
    expect(keys[0]).toBeLessThan(keys[keys.length - 1]);
    expect(e.tempo[1]).toBeLessThan(song.tempi[0].tempo);
    expect(e.sounds[0]).toMatch(work === 'vowels' ? /^(ah|oh|eh|ee|oo|uh)$/ : work === 'words' ? /^words: / : new RegExp(`^${work}$`));
  });
});
