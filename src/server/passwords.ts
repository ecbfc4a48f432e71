import { ZxcvbnFactory } from '@zxcvbn-ts/core';
import { adjacencyGraphs, dictionary } from '@zxcvbn-ts/language-common';
import { Refusal } from '../studio/refusal';

/** The library's highest grade: more than 10^10 guesses, so that a stolen, slow hash is of no use either. */
const HARD = 4;

/** What is looked at: an estimate takes the longer the longer the word, and so much is never guessed for its end. */
const LOOKED_AT = 48;

let guesser: ZxcvbnFactory | undefined;

/** @throws Refusal (incomplete) when it is among the first that would be tried: known ones, keyboard runs, repeats, what is known of the person. */
export function mustBeHardToGuess(password: string, about: string[]): void {
  guesser ??= new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs });
  // The library takes whole words.
  const words = about.flatMap((text) => [text, ...text.split(/[^\p{L}\p{N}]+/u)]).filter((word) => word.length > 2);
  if (guesser.check(password.slice(0, LOOKED_AT), words).score < HARD)
    throw new Refusal(
      'incomplete',
      'This password would soon be guessed. Take three or four words that have nothing to do with each other or with you.',
    );
}
