import { XMLBuilder } from 'fast-xml-parser';
import { writtenLengths } from '../exercise/lengths';
import { notate, Patterned, WrittenNote } from '../exercise/render';
import { Exercise } from '../exercise/types';
import { tonicName } from '../music/scale';
import type { VoiceTypeId } from '../plan/voice-types';

/** Parts of a crotchet that lengths are counted in: sixteenths and triplets both come out whole. */
const DIVISIONS = 12;
/** Sharps (positive) or flats of the major keys as they are spelled here. */
const FIFTHS: Record<string, number> = { C: 0, G: 1, D: 2, A: 3, E: 4, B: 5, 'F#': 6, F: -1, Bb: -2, Eb: -3, Ab: -4, Db: -5 };
const CLEFS = {
  treble: { sign: 'G', line: 2 },
  'treble-8': { sign: 'G', line: 2, 'clef-octave-change': -1 },
  bass: { sign: 'F', line: 4 },
} as const;

function noteXml(n: WrittenNote, before: WrittenNote | undefined, lyric: string | null): object[] {
  const parts = writtenLengths(n.beats);
  return parts.map((part, i) => {
    const first = i === 0;
    const last = i === parts.length - 1;
    const tie = [...(first ? [] : ['stop']), ...(last ? [] : ['start'])];
    const slide = [...(first && before?.slide ? ['stop'] : []), ...(last && n.slide ? ['start'] : [])];
    return {
      pitch: { step: n.letter, ...(n.accidental ? { alter: n.accidental } : {}), octave: n.octave },
      duration: Math.round(part.beats * DIVISIONS),
      ...(tie.length ? { tie: tie.map((type) => ({ '@type': type })) } : {}),
      voice: 1,
      type: part.type,
      ...(part.dots ? { dot: '' } : {}),
      ...(part.triplet ? { 'time-modification': { 'actual-notes': 3, 'normal-notes': 2 } } : {}),
      ...(tie.length || slide.length
        ? {
            notations: {
              ...(tie.length ? { tied: tie.map((type) => ({ '@type': type })) } : {}),
              ...(slide.length ? { slide: slide.map((type) => ({ '@type': type, '@number': 1, '@line-type': 'solid' })) } : {}),
            },
          }
        : {}),
      ...(first && lyric ? { lyric: { syllabic: 'single', text: lyric } } : {}),
    };
  });
}

/** An exercise in its keys as MusicXML 4.0: a bar a key, in the clef of the voice, with tempo, sound and slides. */
export function toMusicXml(
  exercise: Pick<Exercise, 'name'> & Patterned,
  { keys, tempo, sound, voice }: { keys: readonly number[]; tempo: number; sound: string; voice?: VoiceTypeId },
): string {
  const beats = exercise.steps.reduce((sum, s) => sum + s.beats, 0);
  const clef = notate(exercise, keys[0], voice).clef;
  const measures = keys.map((tonic, k) => {
    const { notes } = notate(exercise, tonic, voice);
    return {
      '@number': k + 1,
      attributes: {
        ...(k === 0 ? { divisions: DIVISIONS } : {}),
        key: { fifths: FIFTHS[tonicName(tonic)], mode: 'major' },
        ...(k === 0
          ? { time: { '@print-object': 'no', beats: Math.max(1, Math.round(beats * 4)), 'beat-type': 16 }, clef: CLEFS[clef] }
          : {}),
      },
      ...(k === 0
        ? {
            direction: {
              '@placement': 'above',
              'direction-type': { metronome: { 'beat-unit': 'quarter', 'per-minute': tempo } },
              sound: { '@tempo': tempo },
            },
          }
        : {}),
      note: notes.flatMap((n, i) => noteXml(n, notes[i - 1], i === 0 ? sound : null)),
    };
  });
  const builder = new XMLBuilder({ ignoreAttributes: false, attributeNamePrefix: '@', format: true, suppressEmptyNode: true });
  const body = builder.build({
    'score-partwise': {
      '@version': '4.0',
      work: { 'work-title': exercise.name },
      identification: { encoding: { software: 'Wendel' } },
      'part-list': { 'score-part': { '@id': 'P1', 'part-name': 'Voice' } },
      part: { '@id': 'P1', measure: measures },
    },
  });
  return `<?xml version="1.0" encoding="UTF-8"?>\n<!DOCTYPE score-partwise PUBLIC "-//Recordare//DTD MusicXML 4.0 Partwise//EN" "http://www.musicxml.org/dtds/partwise.dtd">\n${body}`;
}
