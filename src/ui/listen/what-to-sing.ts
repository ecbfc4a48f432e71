import type { VoiceMap } from '../../core/map/types';
import { CrossingStyle } from '../../core/sim/profile';
import type { SimTask } from '../../core/sim/score';
import { Colour, COLOURS, Task } from '../../core/take/types';
import { said, Said, texts } from '../../core/words/said';

/** The vowels offered, hardest to cross on first. */
export const VOWELS = ['ah', 'oh', 'eh', 'ee', 'oo', 'uh'] as const;
export type ListenVowel = (typeof VOWELS)[number];

export const STYLE_WORDS: readonly (readonly [CrossingStyle, string])[] = texts([
  ['flip', 'flips at the change'],
  ['toggle', 'toggles'],
  ['blend', 'blends'],
  ['pulled', 'pulls chest up'],
  ['no-chest', 'has no chest'],
]);

const FIVE_NOTES = [1, 2, 3, 4, 5, 4, 3, 2, 1];

/** What the singer is told, in large letters, and one line on how. */
export function whatToSing(task: Task, vowel: string, map: VoiceMap | null, fallbackLow: number): { title: Said; how: Said } {
  const low = Math.round(map?.usable?.low.midi ?? map?.extreme?.low.midi ?? fallbackLow);
  return {
    siren: {
      title: said('Siren on “{vowel}”', { vowel }),
      how: said(
        'One slide, never stopping: from a comfortable low note (about {note}) to the top and back, in 5 to 8 seconds. Pass through the change.',
        { note: { note: low + 2 } },
      ),
    },
    scale: {
      title: said('Five notes on “{vowel}”', { vowel }),
      how: said('Up and down from {note}, then a semitone higher each time, until the voice says stop.', { note: { note: low + 4 } }),
    },
    sustain: {
      title: said('Hold one note on “{vowel}”', { vowel }),
      how: said('A steady, comfortable note for three seconds or more. Then another.'),
    },
    speech: { title: said('Count aloud'), how: said('From one to twenty, as you would across a table.') },
    free: { title: said('Sing freely'), how: said('Anything: a phrase, a siren, a note that feels odd.') },
  }[task];
}

/** One note in four colours shows this singer's own way from chest to head (common practice: speech to song). */
export const COLOUR_WORDS: readonly (readonly [Colour, string])[] = texts([
  ['chest', 'in chest'],
  ['chest-blend', 'in a chest blend'],
  ['head-blend', 'in a head blend'],
  ['head', 'in head'],
]);

export const COLOUR_HOW = texts(
  'Say it, then hold it for two seconds. The same note four times, in chest, chest blend, head blend and head: then every take is read by this voice’s own colours.',
);

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
