import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Midi } from '../../core/format/midi-library';
import { readWav } from '../../core/format/wav';
import { drawnSong, SungAs, wayThrough } from '../../core/song/made-song';
import type { Song } from '../../core/song/types';
import type { Pcm } from '../../core/voice/types';
import { inFolder, ranProgram } from './debian';
import type { Beginning } from './found-in';
import { RATE } from './makers';

const FLUIDSYNTH = '/usr/bin/fluidsynth';
const SOUNDS = '/usr/share/sounds/sf2/TimGM6mb.sf2';
export const renders = existsSync(FLUIDSYNTH) && existsSync(SOUNDS);

/** Programs of General MIDI, counted from 0, that hold one pitch as a voice does. Its voices fade as struck strings do. */
export const PROGRAMS = { clarinet: 71, flute: 73 } as const;

/** A song drawn at random as FluidSynth renders it from a MIDI file, with what singers do to it. */
export function renderedByFluidsynth(
  random: () => number,
  as: SungAs,
  program: keyof typeof PROGRAMS,
  bars = 12,
): { song: Song; pcm: Pcm; truth: Beginning[] } {
  const song = drawnSong(random, { bars });
  const truth: Beginning[] = [];
  const midi = new Midi();
  const track = midi.addTrack();
  track.instrument.number = PROGRAMS[program];
  let at = 0;
  for (const { note, seconds, midi: pitch } of wayThrough(song, random, as)) {
    if (note !== null) {
      track.addNote({ midi: pitch, time: at, duration: seconds, velocity: 0.8 });
      truth.push({ note, fromS: at, byS: at });
    }
    at += seconds;
  }
  const pcm = inFolder((folder) => {
    const [file, wav] = ['song.mid', 'song.wav'].map((name) => join(folder, name));
    writeFileSync(file, midi.toArray());
    // Its own chorus and reverberation off: rooms are drawn here.
    ranProgram(FLUIDSYNTH, ['-ni', '-q', '-C', '0', '-R', '0', '-r', String(RATE), '-F', wav, SOUNDS, file]);
    return readWav(readFileSync(wav));
  });
  return { song, pcm, truth };
}
