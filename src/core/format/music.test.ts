import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import * as fc from 'fast-check';
import { parseMidi } from 'midi-file';
import * as Tonal from 'tonal';
import { parsePattern, patternText, PatternError, stepAt, stepSemitones } from '../exercise/pattern';
import { notate, renderKey } from '../exercise/render';
import { exerciseById, SHELF } from '../exercise/shelf';
import { tonicName } from '../music/scale';
import { lineOf } from '../exercise/tune';
import { toMidi } from './midi';
import { MusicFileError } from './music-file';
import { toMusicXml } from './musicxml';
import { songFromFile } from './song-file';

const siren = exerciseById('long-siren');
const arpeggio = exerciseById('octave-arpeggio');

describe('MIDI', () => {
  test('the registry’s parser reads tempo, chords, pattern and the bend of a slide', () => {
    const { header, tracks } = parseMidi(toMidi(siren, [57, 58], 80));
    expect(header.format).toBe(1);
    const all = tracks.flat();
    // A crotchet at 80 lasts 750 000 microseconds (Standard MIDI Files 1.0, from memory).
    expect(all.find((e) => e.type === 'setTempo')).toMatchObject({ microsecondsPerBeat: 750_000 });
    const on = (channel: number) =>
      all.flatMap((e) => (e.type === 'noteOn' && e.channel === channel && e.velocity > 0 ? [e.noteNumber] : []));
    expect(on(0)).toEqual([57, 61, 64, 58, 62, 65]);
    expect(on(1)).toEqual([57, 69, 57, 58, 70, 58]);
    const bends = all.flatMap((e) => (e.type === 'pitchBend' ? [e.value] : []));
    // Half way up an octave, of a bend range of two: a quarter of 8192.
    expect(Math.max(...bends)).toBeGreaterThan(3800);
    expect(Math.max(...bends)).toBeLessThan(4096);
  });

  const mftext = existsSync('/usr/bin/mftext') ? test : test.skip;
  mftext('another tool (abcmidi) reads the same notes', () => {
    const path = join(mkdtempSync(join(tmpdir(), 'wendel-midi-')), 'file.mid');
    writeFileSync(path, toMidi(arpeggio, [60], 100));
    const text = execFileSync('mftext', [path]).toString();
    const notes = [...text.matchAll(/Note on, chan=2 pitch=(\d+) vol=(?!0\b)\d+/g)].map((m) => Number(m[1]));
    expect(notes).toEqual([60, 64, 67, 72, 67, 64, 60]);
  });

  test('what was written is read back, slides and lengths included', () => {
    for (const e of SHELF) {
      const tune = songFromFile(toMidi(e, [55], e.tempo[1]), 'x.mid').song;
      expect({ id: e.id, notes: tune.notes.map((n) => n.midi) }).toEqual({
        id: e.id,
        notes: renderKey(e, 55, 90).notes.map((n) => n.midi),
      });
      expect(lineOf(tune.notes).steps.map((s) => [s.slide ?? false, s.beats])).toEqual(
        e.steps.map((s) => [s.slide ?? false, expect.closeTo(s.beats, 6)]),
      );
      expect(Math.round(tune.tempi[0].tempo)).toBe(e.tempo[1]);
    }
  });

  test('what is no tune is refused in words', () => {
    expect(() => songFromFile(new Uint8Array([1, 2, 3]), 'x.mid')).toThrow(MusicFileError);
    expect(() => songFromFile(toMidi({ name: '', steps: [] }, [60], 90), 'x.mid')).toThrow(/more than one note at once/);
  });
});

const read = (text: string) => songFromFile(new TextEncoder().encode(text), 'x.musicxml').song;

describe('MusicXML', () => {
  interface Toolkit {
    loadData(data: string): unknown;
    renderToMIDI(): string;
  }
  let verovio: Toolkit;
  beforeAll(async () => {
    const loaded = jest.requireActual<{
      module: { onRuntimeInitialized: () => void; calledRun?: boolean };
      toolkit: new () => Toolkit;
    }>('verovio');
    if (!loaded.module.calledRun) await new Promise<void>((resolve) => (loaded.module.onRuntimeInitialized = resolve));
    verovio = new loaded.toolkit();
  });

  test('an engraver from the registry reads and sounds every exercise as meant', () => {
    const keys = [58, 59];
    for (const e of SHELF) {
      expect(verovio.loadData(toMusicXml(e, { keys, tempo: 90, sound: 'oo', voice: 'baritone' }))).toBeTruthy();
      const midi = parseMidi(Buffer.from(verovio.renderToMIDI(), 'base64'));
      const notes = midi.tracks.flat().flatMap((n) => (n.type === 'noteOn' && n.velocity > 0 ? [n.noteNumber] : []));
      expect({ id: e.id, notes }).toEqual({ id: e.id, notes: keys.flatMap((k) => renderKey(e, k, 90).notes.map((n) => n.midi)) });
    }
  });

  test('read back: notes, lengths, slides, tempo', () => {
    for (const e of SHELF) {
      const tune = read(toMusicXml(e, { keys: [57], tempo: e.tempo[1], sound: 'oo' }));
      expect(tune.notes.map((n) => ({ midi: n.midi, beats: n.beats, slide: n.slide ?? false }))).toEqual(
        renderKey(e, 57, 90).notes.map((n, i) => ({ midi: n.midi, beats: expect.closeTo(e.steps[i].beats, 6), slide: n.slide })),
      );
      expect(tune.tempi[0].tempo).toBe(e.tempo[1]);
    }
  });

  test('names with markup in them, and files that are none', () => {
    expect(
      read(toMusicXml({ name: 'A & <B>', steps: [{ degree: 1, beats: 1 }] }, { keys: [60], tempo: 90, sound: '"oo" & <ah>' })).notes,
    ).toHaveLength(1);
    expect(() => read('no xml')).toThrow(MusicFileError);
    expect(() => read('<?xml version="1.0"?><score-timewise/>')).toThrow(/partwise/);
  });
});

test('spelling agrees with a music theory library in every key', () => {
  for (let tonic = 48; tonic < 60; tonic++) {
    const scale = Tonal.Scale.get(`${tonicName(tonic)} major`).notes;
    const steps = Array.from({ length: 8 }, (_, i) => ({ degree: i + 1, beats: 1 }));
    const names = notate({ steps }, tonic).notes.map(
      (n) => n.letter + '#'.repeat(Math.max(0, n.accidental)) + 'b'.repeat(Math.max(0, -n.accidental)),
    );
    expect(names).toEqual([...scale, scale[0]]);
    const minorThird = notate({ steps: [{ degree: 3, alter: -1, beats: 1 }] }, tonic).notes[0];
    expect(minorThird.letter + '#'.repeat(Math.max(0, minorThird.accidental)) + 'b'.repeat(Math.max(0, -minorThird.accidental))).toBe(
      Tonal.Note.transpose(tonicName(tonic), '3m'),
    );
  }
});

describe('a pattern as text', () => {
  const steps = fc.array(
    fc.record(
      {
        degree: fc.integer({ min: -6, max: 15 }),
        beats: fc.constantFrom(0.25, 0.5, 1, 1.5, 2, 4),
        alter: fc.constantFrom(-1 as const, 1 as const),
        slide: fc.constant(true),
      },
      { requiredKeys: ['degree', 'beats'] },
    ),
    { minLength: 1, maxLength: 12 },
  );
  test('is read back as it was written', () => {
    fc.assert(
      fc.property(steps, (some) => {
        const whole = some.map((s, i) => (i === some.length - 1 ? { ...s, slide: undefined } : s));
        expect(parsePattern(patternText(whole))).toEqual(whole);
      }),
    );
  });
  test('says what is wrong', () => {
    expect(() => parsePattern('1 x 3')).toThrow(PatternError);
    expect(() => parsePattern('')).toThrow(/at least one/);
    expect(parsePattern('1 ~ 5 1:0.5')).toEqual([
      { degree: 1, beats: 1, slide: true },
      { degree: 5, beats: 1 },
      { degree: 1, beats: 0.5 },
    ]);
  });
  test('every semitone has a degree that gives it back', () => {
    for (let st = -13; st <= 25; st++) expect(stepSemitones(stepAt(st, 1))).toBe(st);
  });
});
