import { Patterned, renderKey } from '../exercise/render';
import { Exercise } from '../exercise/types';
import { Midi } from './midi-library';

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
