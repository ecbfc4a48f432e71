import * as library from '@tonejs/midi';
import { Patterned, renderKey } from '../exercise/render';
import { Exercise } from '../exercise/types';
import { MusicFileError } from './music-file';

// The package is a CommonJS one: plain Node shows its exports as `default` only, bundlers by name.
const { Midi } = 'Midi' in library ? library : (library as { default: typeof import('@tonejs/midi') }).default;

/** A tune as read from a file: MIDI notes and lengths in crotchets, joined by slides where the file says so. */
export interface Tune {
  notes: { midi: number; beats: number; slide: boolean }[];
  /** Crotchets a minute; null when the file doesn't say. */
  tempo: number | null;
}

const PIANO = 0;
const VOICE_OOHS = 53;
const CHORD_VELOCITY = 0.45;
const NOTE_VELOCITY = 0.8;
/** Slides are pitch bends of up to two octaves, told by the registered parameter 0 (MIDI 1.0). */
const BEND_ST = 24;
const BENDS_A_SLIDE = 32;
/** A bend as far as it goes (14 bits, half to each side). */
const BEND_STEPS = 8192;

/**
 * The whole follow-along of an exercise in its keys as a Standard MIDI File, type 1: the piano's chords on one track, the
 * pattern on another, slides as pitch bends. Tempo in crotchets a minute.
 */
export function toMidi(exercise: Pick<Exercise, 'name'> & Patterned, keys: readonly number[], tempo: number): Uint8Array {
  const file = new Midi();
  file.header.setTempo(tempo);
  file.header.name = exercise.name;
  const piano = file.addTrack();
  piano.name = 'Piano';
  piano.channel = 0;
  piano.instrument.number = PIANO;
  const voice = file.addTrack();
  voice.name = exercise.name;
  voice.channel = 1;
  voice.instrument.number = VOICE_OOHS;
  for (const [number, value] of [
    [101, 0],
    [100, 0],
    [6, BEND_ST / 127],
    [38, 0],
  ])
    voice.addCC({ number, value, time: 0 });
  let at = 0;
  for (const tonic of keys) {
    const key = renderKey(exercise, tonic, tempo);
    for (const midi of key.chord) piano.addNote({ midi, time: at, duration: key.chordS * 0.9, velocity: CHORD_VELOCITY });
    key.notes.forEach((note, i) => {
      const next = key.notes[i + 1];
      voice.addNote({ midi: note.midi, time: at + note.startS, duration: note.endS - note.startS, velocity: NOTE_VELOCITY });
      if (!note.slide || !next) return;
      for (let b = 0; b < BENDS_A_SLIDE; b++)
        voice.addPitchBend({
          time: at + note.startS + ((note.endS - note.startS) * b) / BENDS_A_SLIDE,
          value: Math.round((BEND_STEPS * (next.midi - note.midi) * b) / BENDS_A_SLIDE / BEND_ST),
        });
      voice.addPitchBend({ time: at + note.endS, value: 0 });
    });
    at += key.totalS;
  }
  return file.toArray();
}

/** Lengths are taken to the nearest of these parts of a crotchet: sixteenths and triplets. */
const GRID = [1 / 4, 1 / 3];

const onGrid = (beats: number): number => {
  const near = GRID.map((g) => Math.max(g, Math.round(beats / g) * g));
  return near.reduce((a, b) => (Math.abs(b - beats) < Math.abs(a - beats) - 1e-6 ? b : a));
};

/**
 * The tune of a Standard MIDI File: its first track with notes that is one voice (never two notes at once). A note lasts until
 * the next begins. @throws MusicFileError when there is none.
 */
export function fromMidi(bytes: ArrayLike<number> | ArrayBuffer): Tune {
  let file: library.Midi;
  try {
    file = new Midi(bytes as ArrayBuffer);
  } catch {
    throw new MusicFileError('This is not a MIDI file, or it is damaged: export it anew and try again.');
  }
  const { ppq } = file.header;
  const oneVoice = file.tracks.find(
    ({ notes }) =>
      notes.length > 0 && notes.every((n, i) => i === 0 || n.ticks >= notes[i - 1].ticks + notes[i - 1].durationTicks - ppq / 8),
  );
  if (!oneVoice)
    throw new MusicFileError(
      file.tracks.some((t) => t.notes.length > 0)
        ? 'Every track of this MIDI file sounds more than one note at once: keep only the melody and try again.'
        : 'There are no notes in this MIDI file.',
    );
  const { notes, pitchBends } = oneVoice;
  return {
    notes: notes.map((n, i) => {
      const next = notes[i + 1];
      const ticks = next ? next.ticks - n.ticks : n.durationTicks;
      // A rest longer than a crotchet after a note isn't part of it.
      const held = Math.min(ticks, n.durationTicks + ppq);
      const bent = (pitchBends ?? []).some((b) => b.ticks > n.ticks && b.ticks < n.ticks + n.durationTicks && b.value !== 0);
      return { midi: n.midi, beats: onGrid(held / ppq), slide: Boolean(next) && bent };
    }),
    tempo: file.header.tempos[0]?.bpm ?? null,
  };
}
