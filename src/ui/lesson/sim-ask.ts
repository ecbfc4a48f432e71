import type { Ask } from '../../core/lesson/types';
import { renderKey } from '../../core/exercise/render';
import { patternSteps } from '../../core/lesson/pattern';
import type { SimTask } from '../../core/sim/score';
import { COLOURS } from '../../core/take/types';

/** What the simulated singer sings when this is asked for. */
export function simulatedAsk({ step, tonicMidi, colour }: Ask, low: number): SimTask {
  if (step.task === 'speech') return { kind: 'speech', words: 10 };
  if (step.task === 'sustain')
    return { kind: 'sustain', midi: tonicMidi ?? low + 8, seconds: 2, ...(colour ? { head: COLOURS.indexOf(colour) / 3 } : {}) };
  if (step.exercise && tonicMidi !== null) return { kind: 'exercise', keys: [renderKey(step.exercise, tonicMidi, step.tempo)] };
  if (step.degrees && tonicMidi !== null && step.task !== 'siren')
    return { kind: 'pattern', degrees: step.degrees, tonics: [tonicMidi], noteS: (60 / step.tempo) * patternSteps(step)[0].beats };
  return { kind: 'siren', sirens: 1, ...(tonicMidi !== null ? { bottomMidi: tonicMidi, topMidi: tonicMidi + 12 } : {}) };
}
