import { said } from '../words/said';
import { SaidError } from '../words/said-error';
import { degreeToSemitones } from '../music/scale';
import { Exercise, Step } from './types';

/** Semitones of a note of a pattern above its tonic. */
export const stepSemitones = (step: Pick<Step, 'degree' | 'alter'>): number => degreeToSemitones(step.degree) + (step.alter ?? 0);

/** Lowest and highest note of a pattern above its tonic, semitones. */
export function patternSpan({ steps }: Pick<Exercise, 'steps'>): { bottom: number; top: number } {
  const semitones = steps.map(stepSemitones);
  return { bottom: Math.min(...semitones), top: Math.max(...semitones) };
}

/** Which way a pattern goes first: by its first slide, otherwise from its highest note down or to its highest note up. */
export function directionOf({ steps }: Pick<Exercise, 'steps'>): 'up' | 'down' | 'both' {
  const semitones = steps.map(stepSemitones);
  const slide = steps.findIndex((s, i) => s.slide && i + 1 < steps.length);
  if (slide >= 0) return semitones[slide + 1] > semitones[slide] ? 'up' : 'down';
  const top = Math.max(...semitones);
  if (top === Math.min(...semitones)) return 'both';
  return semitones[0] === top ? 'down' : semitones[semitones.length - 1] === top ? 'up' : 'both';
}

/** A pattern's degrees where it keeps to the scale; null where it raises or lowers one, or goes under the tonic. */
export const degreesOf = ({ steps }: Pick<Exercise, 'steps'>): number[] | null =>
  steps.every((s) => !s.alter && s.degree >= 1) ? steps.map((s) => s.degree) : null;

/** Seconds the pattern lasts at a tempo in crotchets a minute. */
export const patternSeconds = ({ steps }: Pick<Exercise, 'steps'>, tempo: number): number =>
  (steps.reduce((sum, s) => sum + s.beats, 0) * 60) / tempo;

/** What was written isn't a pattern: in words, with what to write instead. */
export class PatternError extends SaidError {}

const NOTE = /^([b#]?)(-?\d{1,2})(?::(\d+(?:\.\d+)?))?$/;

/**
 * A pattern from text: degrees apart by spaces, "1 3 5 3 1"; "5~8" slides; "5:2" lasts two crotchets, otherwise `beats`; "b3" and
 * "#4" alter the scale. @throws PatternError with advice.
 */
export function parsePattern(text: string, beats = 1): Step[] {
  const notes = text
    .trim()
    .replace(/\s*~\s*/g, '~')
    .split(/\s+/)
    .filter(Boolean)
    .flatMap((part) => part.split('~').map((note, i, all) => ({ note, slide: i < all.length - 1 })));
  if (notes.length === 0) throw new PatternError('Write at least one degree of the scale, such as 1 2 3 2 1.');
  return notes.map(({ note, slide }) => {
    const match = NOTE.exec(note);
    if (!match)
      throw new PatternError(
        said(
          '“{note}” is not a degree: write 1 for the tonic, 8 for its octave, b3 for a lowered third, 5:2 for two beats, 1~5 for a slide.',
          { note: { own: note } },
        ),
      );
    const [, sign, degree, length] = match;
    return {
      degree: Number(degree),
      ...(sign ? { alter: sign === 'b' ? (-1 as const) : (1 as const) } : {}),
      beats: length ? Number(length) : beats,
      ...(slide ? { slide: true } : {}),
    };
  });
}

/** A pattern as text that `parsePattern` reads back. */
export function patternText(steps: readonly Step[]): string {
  const usual = 1;
  return steps
    .map(
      (s) => `${s.alter === -1 ? 'b' : s.alter === 1 ? '#' : ''}${s.degree}${s.beats === usual ? '' : `:${s.beats}`}${s.slide ? '~' : ' '}`,
    )
    .join('')
    .trim();
}

/** Degree and alteration of each semitone over the tonic, as a singer would name them. */
const DEGREES: readonly [degree: number, alter: -1 | 0 | 1][] = [
  [1, 0],
  [2, -1],
  [2, 0],
  [3, -1],
  [3, 0],
  [4, 0],
  [4, 1],
  [5, 0],
  [6, -1],
  [6, 0],
  [7, -1],
  [7, 0],
];

/** A step from a note's semitones over the tonic. */
export function stepAt(semitones: number, beats: number, slide = false): Step {
  const octave = Math.floor(semitones / 12);
  const [degree, alter] = DEGREES[semitones - 12 * octave];
  return { degree: degree + 7 * octave, ...(alter ? { alter } : {}), beats, ...(slide ? { slide: true } : {}) };
}

/** The tonic a tune most likely has: its last note's name, at or under its lowest note. */
export function likelyTonic(notes: readonly number[]): number {
  const last = notes[notes.length - 1];
  const lowest = Math.min(...notes);
  return last - 12 * Math.ceil((last - lowest) / 12);
}
