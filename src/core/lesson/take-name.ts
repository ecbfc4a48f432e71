import { noteName } from '../music/pitch';
import type { Ask } from './types';

const LONGEST_NAME = 60;

/**
 * What a take of a lesson is called: the step, the colour in words where one is asked for, and its key or its number.
 * @example takeName({ step: { name: 'Scale up' }, tonicMidi: 60, … }) // "Scale up in C4"
 */
export const takeName = (ask: Ask, colourWords: string | null): string =>
  [
    ask.step.exercise ? `${ask.step.name} on ${ask.vowel}` : ask.step.name,
    colourWords,
    ask.tonicMidi !== null && !ask.step.colours ? `in ${noteName(ask.tonicMidi)}` : ask.of !== null && ask.of > 1 && `${ask.number}`,
  ]
    .filter(Boolean)
    .join(' ')
    .slice(0, LONGEST_NAME);

/** The part of a take's name that all takes of its step carry. @example stepOfTake('Scale up in C4') // "Scale up" */
export const stepOfTake = (name: string): string => name.replace(/ (in [A-G]#?-?\d+|\d+)$/, '');
