import { exerciseById } from '../exercise/shelf';
import { renderKey } from '../exercise/render';
import type { TakeEvent } from '../take/types';
import { eventIn, noteAt, stepped, whereIn } from './hearing';
import { madeHearing, madeTake } from './made-trace';

/** One key of an exercise sung as asked, with what was heard to happen in it. */
function key(id: string, event?: Partial<TakeEvent>) {
  const exercise = exerciseById(id);
  const asked = { exercise, sound: 'ah', keys: [55], tempo: exercise.tempo[1] };
  const events = event
    ? [{ kind: 'flip', direction: 'up', fromMidi: 60, toMidi: 63, midi: 60, confidence: 0.9, ...event } as TakeEvent]
    : [];
  const { keys, hearing } = madeHearing(asked, madeTake([renderKey(exercise, 55, asked.tempo)]).trace, events);
  return { heard: keys[0], found: eventIn(keys[0], hearing, ['flip']) };
}
const siren = key('long-siren').heard;
const [up] = siren.notes;
const middleS = (up.startS + up.endS) / 2;

test('an event inside a slide is told, with the note that was asked for there and how far it leapt', () => {
  const { heard, found } = key('long-siren', { timeS: middleS });
  expect(found).toBeDefined();
  expect(whereIn(heard, found!)).toEqual({ midi: up.midi, by: 3 });
});

test('one of another kind, doubted, misread or after the key is none of it', () => {
  for (const other of [
    { kind: 'dip' as const },
    { confidence: 0.49 },
    { toMidi: 69.5 },
    { timeS: siren.endS - 0.1 },
    { timeS: siren.startS - 0.1 },
  ])
    expect([other, key('long-siren', { timeS: middleS, ...other }).found]).toEqual([other, undefined]);
});

test('where a slide meets a step that was asked for nothing can be told; in what is all stepped everything is', () => {
  const { heard } = key('falling-siren');
  const n = heard.notes.findIndex((note, i) => note.slide && i > 0 && !heard.notes[i - 1].slide);
  const slide = heard.notes[n];
  expect(key('falling-siren', { timeS: slide.startS + 0.05 }).found).toBeUndefined();
  expect(key('falling-siren', { timeS: (slide.startS + slide.endS) / 2 }).found).toBeDefined();
  // In the held note before it: not asked of slides.
  expect(key('falling-siren', { timeS: slide.startS - 0.2 }).found).toBeUndefined();
  expect(key('five-note-ah', { timeS: key('five-note-ah').heard.notes[2].startS + 0.02 }).found).toBeDefined();
});

test('a moment lies in the note that is sung then, the last one after it', () => {
  const { notes } = siren;
  expect(noteAt(siren, up.startS + 0.01)).toBe(up);
  expect(noteAt(siren, notes[1].startS + 0.01)).toBe(notes[1]);
  expect(noteAt(siren, siren.endS + 5)).toBe(notes[notes.length - 1]);
});

test('a note is stepped to from another pitch, not from a slide or from itself', () => {
  const five = key('five-note-ah').heard;
  expect(five.notes.map((_, n) => stepped(five, n))).toEqual(five.notes.map((_, n) => n > 0));
  expect(siren.notes.map((_, n) => stepped(siren, n))).toEqual(siren.notes.map(() => false));
});
