import type { Id } from '../core/format/id';
import { inStudio, StudioTx } from '../data/client';
import type { Role } from '../core/format/studio';

/** With what every use case works, wherever it is entered from: a page, a phone, the worker or the command line. */
export interface Context {
  /** A transaction that is held to one studio. */
  tx: StudioTx;
  /** As what somebody asks; Wendel itself may what an owner may. */
  as: Role | 'singer' | 'wendel';
  now: Date;
}

/** Do work in one studio, in a transaction of its own: all of it or nothing. */
export type Run = <Input extends unknown[], T>(work: (ctx: Context, ...input: Input) => Promise<T>, ...input: Input) => Promise<T>;

/** Wendel itself at work in a studio: the worker and the command line. */
export const wendelIn =
  (studioId: Id<'studio'>): Run =>
  (work, ...input) =>
    inStudio(studioId, (tx) => work({ tx, as: 'wendel', now: new Date() }, ...input));
