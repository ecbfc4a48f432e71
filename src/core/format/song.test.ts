import * as fc from 'fast-check';
import { parseMidi } from 'midi-file';
import { zipSync, strToU8 } from 'fflate';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Note } from 'tonal';
import { spellIn } from '../music/spell';
import { seededRandom } from '../signal/stats';
import { DEMO_SONGS } from '../song/demo-songs';
import { drawnSong } from '../song/made-song';
import { typedSong } from '../song/typed';
import { secondsAt, Song } from '../song/types';
import { MusicFileError } from './music-file';
import { SongShape } from './song';
import { songFromFile } from './song-file';
import { songToMidi } from './song-midi';
import { songFromMusicXml, songToMusicXml } from './song-musicxml';

const bytes = (text: string) => new TextEncoder().encode(text);
const score = (measures: string, more = '') =>
  `<?xml version="1.0"?><score-partwise version="4.0">${more}<part-list><score-part id="P1"><part-name>Voice</part-name></score-part></part-list><part id="P1">${measures}</part></score-partwise>`;
const read = (measures: string) => songFromMusicXml(bytes(score(measures))).song;
const ATTRIBUTES =
  '<attributes><divisions>2</divisions><key><fifths>-3</fifths></key><time><beats>3</beats><beat-type>4</beat-type></time></attributes>';
const pitch = (step: string, octave: number, alter = 0) =>
  `<pitch><step>${step}</step>${alter ? `<alter>${alter}</alter>` : ''}<octave>${octave}</octave></pitch>`;
const plain = (song: Song) => song.notes.map((n) => [n.midi, n.start, n.beats, n.words]);

describe('MusicXML', () => {
  test('what is written is read back: notes, bars, words, marks, breaths, slides, tempo, upbeat', () => {
    for (const song of [...DEMO_SONGS, drawnSong(seededRandom(3), { bars: 9 })]) {
      const back = songFromFile(bytes(songToMusicXml(song)), 'song.musicxml').song;
      const close = (s: Song) => s.notes.map((n) => ({ ...n, start: Math.round(n.start * 96) / 96, beats: Math.round(n.beats * 96) / 96 }));
      // A loudness mark that stays is written once, and stands for all that follow.
      expect(close(back)).toEqual(close(song));
      expect(back).toMatchObject({ title: song.title, meter: song.meter, fifths: song.fifths, bars: song.bars });
      expect(back.tempi[0].tempo).toBeCloseTo(song.tempi[0].tempo, 1);
    }
  });

  test('a score by hand: ties are one note, two voices keep the sung one, pickups, transposing parts, dynamics and breaths', () => {
    const song = read(`
      <measure number="0" implicit="yes">${ATTRIBUTES}<direction><sound tempo="72"/></direction>
        <note>${pitch('E', 4, -1)}<duration>2</duration><voice>1</voice><lyric><syllabic>begin</syllabic><text>ri</text></lyric></note></measure>
      <measure number="1"><direction><direction-type><dynamics><mf/></dynamics></direction-type></direction>
        <note>${pitch('G', 4)}<duration>4</duration><tie type="start"/><voice>1</voice><lyric><syllabic>end</syllabic><text>ver</text></lyric></note>
        <note>${pitch('G', 4)}<duration>2</duration><tie type="stop"/><voice>1</voice><notations><articulations><breath-mark/></articulations></notations></note>
        <backup><duration>6</duration></backup>
        <note>${pitch('C', 3)}<duration>6</duration><voice>2</voice></note></measure>
      <measure number="2"><attributes><transpose><chromatic>-2</chromatic></transpose></attributes>
        <note><grace/>${pitch('A', 5)}<voice>1</voice></note>
        <note><rest/><duration>2</duration><voice>1</voice></note>
        <note>${pitch('D', 5)}<duration>4</duration><voice>1</voice></note></measure>`);
    expect(plain(song)).toEqual([
      [63, 0, 1, 'ri-'],
      [67, 1, 3, 'ver'],
      [72, 5, 2, ''],
    ]);
    expect(song.bars.map((b) => [b.number, b.start, b.beats])).toEqual([
      ['0', 0, 1],
      ['1', 1, 3],
      ['2', 4, 3],
    ]);
    expect(song.notes.map((n) => [n.loud, n.breath])).toEqual([
      [undefined, undefined],
      ['mf', true],
      ['mf', undefined],
    ]);
    expect([song.tempi, song.fifths, song.meter]).toEqual([[{ start: 0, tempo: 72 }], -3, [3, 4]]);
  });

  test('of several parts the one with words is taken, and another can be asked for', () => {
    const part = (id: string, step: string, words: string) =>
      `<part id="${id}"><measure number="1">${ATTRIBUTES}<note>${pitch(step, 4)}<duration>2</duration>${words}</note></measure></part>`;
    const two = `<score-partwise><part-list><score-part id="A"><part-name>Flute</part-name></score-part><score-part id="B"><part-name>Elva</part-name></score-part></part-list>${part('A', 'C', '')}${part('B', 'D', '<lyric><text>la</text></lyric>')}</score-partwise>`;
    expect(songFromMusicXml(bytes(two))).toMatchObject({
      part: 'B',
      song: { notes: [{ midi: 62 }] },
      parts: [{ name: 'Flute' }, { words: 1 }],
    });
    expect(songFromMusicXml(bytes(two), 'A').song.notes[0].midi).toBe(60);
  });

  test('a compressed score is the same as a plain one', () => {
    const text = songToMusicXml(DEMO_SONGS[0]);
    const container = '<container><rootfiles><rootfile full-path="a/score.xml"/></rootfiles></container>';
    const mxl = zipSync({ 'META-INF/container.xml': strToU8(container), 'a/score.xml': strToU8(text), 'b.xml': strToU8('<x/>') });
    expect(songFromFile(mxl, 'x.mxl').song).toEqual(songFromFile(bytes(text), 'x.musicxml').song);
  });

  test('verovio reads the same pitches and times from what is written', () => {
    const file = join(mkdtempSync(join(tmpdir(), 'wendel-song-')), 'song.musicxml');
    for (const song of [DEMO_SONGS[0], DEMO_SONGS[1]]) {
      writeFileSync(file, songToMusicXml(song, 2));
      const { stdout } = spawnSync(
        process.execPath,
        [
          '--input-type=module',
          '-e',
          `
        import createVerovioModule from 'verovio/wasm'; import { VerovioToolkit } from 'verovio/esm'; import { readFileSync } from 'node:fs';
        const tk = new VerovioToolkit(await createVerovioModule()); tk.loadData(readFileSync(${JSON.stringify(file)}, 'utf8'));
        process.stdout.write(tk.renderToMIDI());`.trim(),
        ],
        { encoding: 'utf8', maxBuffer: 1e8 },
      );
      const { header, tracks } = parseMidi(Buffer.from(stdout, 'base64'));
      const events: [number, number][] = [];
      for (const track of tracks) {
        let ticks = 0;
        for (const e of track) {
          ticks += e.deltaTime;
          if (e.type === 'noteOn' && e.velocity > 0) events.push([e.noteNumber, ticks / header.ticksPerBeat!]);
        }
      }
      expect(events.map(([midi]) => midi)).toEqual(song.notes.map((n) => n.midi + 2));
      const upbeat = events[0][1] - song.notes[0].start;
      events.forEach(([, at], i) => expect(at - upbeat).toBeCloseTo(song.notes[i].start, 1));
    }
  });
});

describe('MIDI', () => {
  test('the registry’s parser reads notes, times, tempo and name', () => {
    const song = DEMO_SONGS[1];
    const { header, tracks } = parseMidi(songToMidi(song, -3));
    const all = tracks.flat();
    expect(all.find((e) => e.type === 'setTempo')).toMatchObject({ microsecondsPerBeat: Math.round(60e6 / 116) });
    const at: [number, number][] = [];
    for (const track of tracks) {
      let ticks = 0;
      for (const e of track) {
        ticks += e.deltaTime;
        if (e.type === 'noteOn' && e.velocity > 0) at.push([e.noteNumber, ticks / header.ticksPerBeat!]);
      }
    }
    expect(at.map(([midi]) => midi)).toEqual(song.notes.map((n) => n.midi - 3));
    at.forEach(([, beats], i) => expect(beats).toBeCloseTo(song.notes[i].start, 1));
  });

  test('the melody is proposed among tracks, and what was written is read back', () => {
    for (const song of DEMO_SONGS) {
      const { song: back, parts } = songFromFile(songToMidi(song), 'the-heron.mid');
      expect(back.notes.map((n) => [n.midi, n.start])).toEqual(song.notes.map((n) => [n.midi, n.start]));
      expect(secondsAt(back, 12)).toBeCloseTo(secondsAt(song, 12), 1);
      expect(parts).toMatchObject([{ name: 'Voice', chords: false }]);
    }
  });
});

test('notes are spelled as the registry’s library has them in each key’s scale', () => {
  for (let fifths = -6; fifths <= 6; fifths++)
    for (let midi = 48; midi < 72; midi++) {
      const { letter, accidental, octave } = spellIn(midi, fifths);
      expect(Math.abs(accidental)).toBeLessThanOrEqual(2);
      expect(Note.midi(`${letter}${(accidental < 0 ? 'b' : '#').repeat(Math.abs(accidental))}${octave}`)).toBe(midi);
    }
  expect([spellIn(66, 1).letter, spellIn(66, -5).letter, spellIn(70, 0).letter]).toEqual(['F', 'G', 'B']);
});

describe('files that are no song get words, at once', () => {
  const many = (n: number) => '<note><pitch><step>C</step><octave>4</octave></pitch><duration>1</duration></note>'.repeat(n);
  const bomb = zipSync({ 'score.xml': new Uint8Array(40e6) });
  const deep = `${'<a>'.repeat(20_000)}${'</a>'.repeat(20_000)}`;
  const entities = `<!DOCTYPE x [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;&a;&a;"><!ENTITY c "&b;&b;&b;&b;&b;&b;&b;&b;&b;&b;">]>`;
  test.each<[string, Uint8Array, RegExp]>([
    ['empty', new Uint8Array(0), /is empty/],
    ['no music', bytes('hello'), /not a MusicXML file/],
    ['cut off', bytes(songToMusicXml(DEMO_SONGS[0]).slice(0, 3000)), /not a MusicXML file/],
    ['another XML', bytes('<html><body/></html>'), /not a MusicXML file/],
    ['timewise', bytes('<score-timewise></score-timewise>'), /timewise/],
    ['without notes', bytes(score('<measure number="1"><note><rest/><duration>4</duration></note></measure>')), /no notes/],
    [
      'chords',
      bytes(score(`<measure number="1">${many(1)}<note><chord/>${pitch('E', 4)}<duration>1</duration></note></measure>`)),
      /more than one note/,
    ],
    ['10 MB', new Uint8Array(10e6).fill(32), /larger than 8 MB/],
    ['a bomb', bomb, /larger than 8 MB/],
    ['a ZIP of something else', zipSync({ 'x.txt': strToU8('x') }), /can’t be unpacked/],
    ['deep', bytes(deep), /not a MusicXML file/],
    ['a MIDI file cut off', songToMidi(DEMO_SONGS[0]).slice(0, 40), /MIDI/],
    ['too many notes', bytes(score(`<measure number="1">${many(6000)}</measure>`)), /can’t be taken as a song/],
    [
      'a note out of the world',
      bytes(score(`<measure number="1"><note>${pitch('C', 40)}<duration>1</duration></note></measure>`)),
      /can’t be taken/,
    ],
    [
      'no pitch',
      bytes(score('<measure number="1"><note><pitch><step>H</step></pitch><duration>1</duration></note></measure>')),
      /no pitch/,
    ],
  ])('%s', (_, file, says) => {
    const began = performance.now();
    expect(() => songFromFile(file, 'x')).toThrow(MusicFileError);
    expect(() => songFromFile(file, 'x')).toThrow(says);
    expect(performance.now() - began).toBeLessThan(20_000);
  });

  test('entities are not unfolded', () => {
    const file = bytes(entities + score(`<measure number="1">${many(1)}</measure>`, '<work><work-title>&c;</work-title></work>'));
    let title = '';
    try {
      title = songFromFile(file, 'x').song.title;
    } catch (error) {
      expect(error).toBeInstanceOf(MusicFileError);
    }
    expect(title.length).toBeLessThan(200);
  });

  test('1000 damaged scores: a song that may be kept, or words', () => {
    const whole = songToMusicXml(DEMO_SONGS[2]);
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: whole.length - 1 }),
        fc.integer({ min: 1, max: 60 }),
        fc.constantFrom('', '<', '9', '</note>', '\0', '-1'),
        (at, cut, put) => {
          try {
            const { song } = songFromFile(bytes(whole.slice(0, at) + put + whole.slice(at + cut)), 'x');
            expect(SongShape.safeParse(song).success).toBe(true);
          } catch (error) {
            expect(error).toBeInstanceOf(MusicFileError);
          }
        },
      ),
      { numRuns: 1000, seed: 4 },
    );
  });
});

test('what is typed says where it can’t be read', () => {
  const of = (melody: string) => () => typedSong({ title: 'x', tempo: 90, meter: [4, 4], melody });
  expect(of('C4 H5')).toThrow(/“H5” can’t be read/);
  expect(of('')).toThrow(/at least one note/);
  expect(of('r r')).toThrow(/at least one note/);
});
