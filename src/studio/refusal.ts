import type { Said } from '../core/words/said';
import { SaidError } from '../core/words/said-error';

/** Why something is not done. What a web answer's status is, `server/respond.ts` says. */
export const REFUSALS = [
  'incomplete',
  'signed-out',
  'not-allowed',
  'not-found',
  'too-slow',
  'conflict',
  'gone',
  'too-large',
  'wrong-address',
  'unfit',
  'too-often',
  'full',
] as const;
export type RefusalCode = (typeof REFUSALS)[number];

/**
 * A no that whoever asked can understand and mend: a code for programs, and words that are shown as they are. Anything else that is
 * thrown is a fault of ours.
 */
export class Refusal extends SaidError {
  constructor(
    readonly code: RefusalCode,
    says: Said,
  ) {
    super(says);
  }
}
