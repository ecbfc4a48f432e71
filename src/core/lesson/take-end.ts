import { patternSeconds, stepSemitones } from '../exercise/pattern';
import { hzToMidi, nearestOctave } from '../music/pitch';
import { HOP_S } from '../voice/types';
import { hasPattern, patternS, patternSteps } from './pattern';
import type { Ask, LessonStep } from './types';

/** A siren, a spoken row and a held note are over after so much quiet; between words and in a breath it is shorter. */
const QUIET_S = { siren: 1, scale: 0.9, sustain: 0.9, speech: 1.6, free: Infinity };
/** Least singing before a quiet can end a take. */
const LEAST_S = { siren: 1.2, scale: 0.8, sustain: 0.8, speech: 2, free: Infinity };
/** Nearly all of an exercise is over after less: the verdict is waited for. */
const QUIET_AFTER_ALL_S = 0.55;
const NEARLY_ALL = 0.8;
/** Where the voice has come to the last note, nothing more is to come: longer than a consonant, shorter than a breath. */
const QUIET_AFTER_LAST_S = 0.3;
/** So near the last note, in whatever octave, for so long, it has come to it. */
const LAST_ST = 0.7;
const LAST_S = 0.15;
/** Of a pattern's own length this much must have been sung. */
const LEAST_SHARE = 0.5;

/**
 * Hears when what was asked for is over, from live frames: enough singing, then quiet, so that nobody need press stop.
 * A free take never ends by itself. `push` answers whether it is over.
 */
export function createTakeEnd(ask: Ask): { push(frames: readonly { hz: number }[]): boolean } {
  // A pattern ends as a scale does, whatever it is taken for.
  const task = ask.step.task === 'free' && hasPattern(ask.step) ? 'scale' : ask.step.task;
  const least = Math.max(LEAST_S[task], task === 'scale' ? LEAST_SHARE * patternS(ask.step) : 0);
  const nearlyAll = ask.step.exercise ? NEARLY_ALL * patternS(ask.step) : Infinity;
  const last = ask.step.exercise && ask.tonicMidi !== null ? lastNote(ask.step, ask.tonicMidi) : null;
  let sung = 0;
  let quiet = 0;
  /** How long the voice is on the last note by now; what strays from it takes from it. */
  let onLast = 0;
  const longEnough = () => {
    if (sung < nearlyAll) return QUIET_S[task];
    return last && sung >= last.fromS && onLast >= LAST_S / 2 ? QUIET_AFTER_LAST_S : Math.min(QUIET_AFTER_ALL_S, QUIET_S[task]);
  };
  return {
    push(frames) {
      for (const { hz } of frames) {
        if (hz > 0) {
          sung += HOP_S;
          quiet = 0;
          const midi = hzToMidi(hz);
          const near = last && Math.abs(midi - nearestOctave(last.midi, midi)) <= LAST_ST;
          onLast = Math.min(LAST_S, Math.max(0, onLast + (near ? HOP_S : -HOP_S)));
        } else quiet += HOP_S;
      }
      return sung >= least && quiet >= longEnough();
    },
  };
}

/** A pattern's last note, and from when on it is asked for. */
function lastNote(step: LessonStep, tonicMidi: number) {
  const last = patternSteps(step).at(-1)!;
  return { midi: tonicMidi + stepSemitones(last), fromS: patternS(step) - patternSeconds({ steps: [last] }, step.tempo) };
}
