import { renderKey, targetCurve, TargetPoint } from '../exercise/render';
import { HOP_S } from '../voice/types';
import { hasPattern, patternSteps } from './pattern';
import type { Ask } from './types';

/** A voice has begun when it has sounded for so long without a gap: a knock or a breath before it is no note. */
const BEGUN_S = 0.1;
const BEGUN_FRAMES = Math.ceil(BEGUN_S / HOP_S);

/** Where a voice begins in live frames (MIDI, 0 where none is heard), seconds; null while it hasn't. */
export function voiceBegins(midi: readonly number[]): number | null {
  let run = 0;
  for (let i = 0; i < midi.length; i++) {
    run = midi[i] > 0 ? run + 1 : 0;
    if (run === BEGUN_FRAMES) return (i + 1 - BEGUN_FRAMES) * HOP_S;
  }
  return null;
}

/** The pitch that is meant, in runs from the first note's beginning on (see targetCurve); none where the singer chooses the notes. */
export function targetOf({ step, tonicMidi }: Ask): TargetPoint[][] {
  if (tonicMidi === null || !hasPattern(step)) return [];
  const key = renderKey({ steps: patternSteps(step) }, tonicMidi, step.tempo);
  return targetCurve(key).map((run) => run.map((p) => ({ ...p, timeS: p.timeS - key.chordS })));
}
