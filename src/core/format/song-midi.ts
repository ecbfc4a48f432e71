import { said } from '../words/said';
import { Bar, secondsAt, Song, SongNote } from '../song/types';
import { Midi } from './midi-library';
import { MusicFileError } from './music-file';
import { MOST_FILE_BYTES, SongFile, SongPart, tidyTempi } from './song-musicxml';

const PERCUSSION = 9;
/** Two notes sound at once when they overlap by more than this, crotchets: players let keys go late. */
const OVERLAP = 0.26;
/** A track is one voice when at most this share of its notes sounds with another. */
const TOGETHER = 0.02;
/** Places and lengths are taken to the nearest of these parts of a crotchet: thirty-seconds, and triplets of sixteenths. */
const GRID = [1 / 8, 1 / 6];
const SUNG = /voice|vocal|sing|melod|lead|sopran|alt|tenor|bariton|mezzo|solo|gesang/i;
/** Where a melody usually lies, MIDI; basses and fills lie elsewhere. */
const USUAL = { low: 48, high: 81 };
const VOICE_OOHS = 53;
const VELOCITY = 0.8;

const onGrid = (beats: number): number => {
  const near = GRID.map((g) => Math.round(beats / g) * g);
  return near.reduce((a, b) => (Math.abs(b - beats) < Math.abs(a - beats) - 1e-6 ? b : a));
};

/**
 * The melody of a Standard MIDI File: of the track asked for (by its place in the file), else of the likeliest one that is one voice:
 * called a voice, with words, where melodies lie. @throws MusicFileError with what to do.
 */
export function songFromMidi(bytes: Uint8Array, wanted?: string): SongFile {
  if (bytes.length > MOST_FILE_BYTES)
    throw new MusicFileError(
      said('This file is larger than {most} MB: export the melody alone and try again.', { most: MOST_FILE_BYTES / 1e6 }),
    );
  let file: InstanceType<typeof Midi>;
  try {
    // A copy: the library reads the buffer behind a view from its beginning.
    file = new Midi(bytes.slice().buffer);
  } catch {
    throw new MusicFileError('This is not a MIDI file, or it is damaged: export it anew and try again.');
  }
  const { ppq } = file.header;
  if (!(ppq > 0)) throw new MusicFileError('This MIDI file counts in film frames, not in beats: export it anew and try again.');
  const voices = file.tracks.map((track, i) => ({ track, part: partOf(track, i, ppq) })).filter(({ part }) => part.notes > 0);
  if (voices.length === 0) throw new MusicFileError('There are no notes in this MIDI file.');
  const score = ({ track, part }: (typeof voices)[number]) => {
    const mean = track.notes.reduce((sum, n) => sum + n.midi, 0) / track.notes.length;
    return (part.chords ? 0 : 8) + (SUNG.test(part.name) ? 4 : 0) + (mean >= USUAL.low && mean <= USUAL.high ? 2 : 0) + mean / 200;
  };
  const taken =
    wanted === undefined ? voices.reduce((best, v) => (score(v) > score(best) ? v : best)) : voices.find((v) => v.part.id === wanted);
  if (!taken) throw new MusicFileError('There is no such track with notes in this file.');
  if (taken.part.chords)
    throw new MusicFileError(
      voices.length > 1 && wanted !== undefined
        ? 'This track sounds more than one note at once: choose another.'
        : 'Every track of this MIDI file sounds more than one note at once: keep only the melody and try again.',
    );
  const notes = notesOf(taken.track, ppq);
  const [first] = file.header.timeSignatures;
  const meter: [number, number] = first ? [first.timeSignature[0], first.timeSignature[1]] : [4, 4];
  const end = notes[notes.length - 1].start + notes[notes.length - 1].beats;
  return {
    song: {
      title: file.header.name || 'Untitled',
      style: '',
      language: '',
      meter,
      fifths: fifthsIn(file.header.keySignatures[0]),
      tempi: tidyTempi(
        file.header.tempos
          .filter(({ bpm }) => bpm >= 10 && bpm <= 500)
          .map(({ ticks, bpm }) => ({ start: ticks / ppq, tempo: Math.round(bpm * 100) / 100 })),
      ),
      bars: barsOf(
        file.header.timeSignatures.map((t) => ({ start: t.ticks / ppq, beats: (t.timeSignature[0] * 4) / t.timeSignature[1] })),
        end,
      ),
      notes,
    },
    parts: voices.map((v) => v.part),
    part: taken.part.id,
  };
}

type Track = InstanceType<typeof Midi>['tracks'][number];

function partOf(track: Track, i: number, ppq: number): SongPart {
  const sung = track.channel === PERCUSSION ? [] : track.notes;
  const together = sung.filter((n, j) => j > 0 && n.ticks < sung[j - 1].ticks + sung[j - 1].durationTicks - OVERLAP * ppq).length;
  return {
    id: String(i),
    name: track.name || track.instrument.name || `Track ${i + 1}`,
    notes: sung.length,
    words: 0,
    chords: together > TOGETHER * sung.length,
  };
}

/** Notes one after another; one whose pitch is bent on its way is slid from. */
function notesOf({ notes, pitchBends }: Track, ppq: number): SongNote[] {
  const out: SongNote[] = [];
  for (const n of notes) {
    const start = onGrid(n.ticks / ppq);
    const beats = Math.max(GRID[0], onGrid(n.durationTicks / ppq));
    const last = out[out.length - 1];
    if (last && start <= last.start + 1e-6) continue;
    if (last) last.beats = Math.min(last.beats, start - last.start);
    const bent = (pitchBends ?? []).some((b) => b.ticks > n.ticks && b.ticks < n.ticks + n.durationTicks && b.value !== 0);
    out.push({ midi: n.midi, start, beats, words: '', ...(bent ? { slide: true } : {}) });
  }
  delete out[out.length - 1]?.slide;
  return out;
}

/** Bars by the meters from their places on, to the end of the song. */
export function barsOf(meters: readonly { start: number; beats: number }[], end: number): Bar[] {
  const out: Bar[] = [];
  const from = meters.length && meters[0].start <= 0 ? meters : [{ start: 0, beats: 4 }, ...meters];
  for (let at = 0, m = 0; at < end - 1e-6 && out.length < 3000;) {
    while (m + 1 < from.length && from[m + 1].start <= at + 1e-6) m++;
    const beats = from[m].beats;
    out.push({ number: String(out.length + 1), start: at, beats });
    at += beats;
  }
  return out.length ? out : [{ number: '1', start: 0, beats: from[0].beats }];
}

const KEYS = ['Cb', 'Gb', 'Db', 'Ab', 'Eb', 'Bb', 'F', 'C', 'G', 'D', 'A', 'E', 'B', 'F#', 'C#'];
/** Sharps or flats of a key signature; the library calls it by the major key that has them, in minor too. */
const fifthsIn = (signature: { key: string } | undefined): number =>
  signature && KEYS.includes(signature.key) ? KEYS.indexOf(signature.key) - 7 : 0;

/** A song as a Standard MIDI File of one track, `semitones` higher than it is kept, with its tempo and words. */
export function songToMidi(song: Song, semitones = 0): Uint8Array {
  const file = new Midi();
  file.header.name = song.title;
  file.header.tempos = song.tempi.map((t) => ({ ticks: Math.round(t.start * file.header.ppq), bpm: t.tempo }));
  file.header.timeSignatures = [{ ticks: 0, timeSignature: [...song.meter], measures: 0 }];
  file.header.update();
  const track = file.addTrack();
  track.name = 'Voice';
  track.instrument.number = VOICE_OOHS;
  for (const n of song.notes) {
    const time = secondsAt(song, n.start);
    track.addNote({ midi: n.midi + semitones, time, duration: secondsAt(song, n.start + n.beats) - time, velocity: VELOCITY });
  }
  return file.toArray();
}
