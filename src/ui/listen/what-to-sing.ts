import type { VoiceMap } from '../../core/map/types';
import { noteName } from '../../core/music/pitch';
import { CrossingStyle } from '../../core/sim/profile';
import type { SimTask } from '../../core/sim/score';
import { Colour, COLOURS, Task } from '../../core/take/types';

/** The vowels offered, hardest to cross on first. */
export const VOWELS = ['ah', 'oh', 'eh', 'ee', 'oo', 'uh'] as const;
export type ListenVowel = (typeof VOWELS)[number];

export const STYLE_WORDS: readonly (readonly [CrossingStyle, string])[] = [
  ['flip', 'flips at the change'],
  ['toggle', 'toggles'],
  ['blend', 'blends'],
  ['pulled', 'pulls chest up'],
  ['no-chest', 'has no chest'],
];

const FIVE_NOTES = [1, 2, 3, 4, 5, 4, 3, 2, 1];

/** What the singer is told, in large letters, and one line on how. */
export function whatToSing(task: Task, vowel: string, map: VoiceMap | null, fallbackLow: number): { title: string; how: string } {
  const low = Math.round(map?.usable?.low.midi ?? map?.extreme?.low.midi ?? fallbackLow);
  const on = `“${vowel}”`;
  return {
    siren: {
      title: `Siren on ${on}`,
      how: `One slide, never stopping: from a comfortable low note (about ${noteName(low + 2)}) to the top and back, in 5 to 8 seconds. Pass through the change.`,
    },
    scale: {
      title: `Five notes on ${on}`,
      how: `Up and down from ${noteName(low + 4)}, then a semitone higher each time, until the voice says stop.`,
    },
    sustain: { title: `Hold one note on ${on}`, how: 'A steady, comfortable note for three seconds or more. Then another.' },
    speech: { title: 'Count aloud', how: 'From one to twenty, as you would across a table.' },
    free: { title: 'Sing freely', how: 'Anything: a phrase, a siren, a note that feels odd.' },
  }[task];
}

/** One note in four colours shows this singer's own way from chest to head (common practice: speech to song). */
export const COLOUR_WORDS: readonly (readonly [Colour, string])[] = [
  ['chest', 'in chest'],
  ['chest-blend', 'in a chest blend'],
  ['head-blend', 'in a head blend'],
  ['head', 'in head'],
];

export const COLOUR_HOW =
  'Say it, then hold it for two seconds. The same note four times, in chest, chest blend, head blend and head: then every take is read by this voice’s own colours.';

/** The same task for the simulated singer. */
export function simulatedTask(task: Task, colour: Colour | null, lowMidi: number, highMidi: number): SimTask {
  const middle = Math.round(lowMidi + 5);
  if (task === 'scale')
    return {
      kind: 'pattern',
      degrees: FIVE_NOTES,
      tonics: [0, 3, 6, 9].map((s) => middle + s).filter((t) => t + 7 < highMidi),
      noteS: 0.4,
    };
  if (task === 'sustain' && colour) return { kind: 'sustain', midi: middle + 3, seconds: 2, head: COLOURS.indexOf(colour) / 3 };
  if (task === 'sustain') return { kind: 'sustain', midi: middle + 3, seconds: 3 };
  if (task === 'speech') return { kind: 'speech', words: 10 };
  return { kind: 'siren', sirens: 1 };
}
