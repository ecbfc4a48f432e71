import type { Said, SaidValue } from './said';

/** What stands in a plain gap, without a language. */
const plain = (value: SaidValue | undefined, gap: string): string =>
  typeof value === 'number' || typeof value === 'string' ? String(value) : value && 'own' in value ? value.own : gap;

/**
 * Something that can't be done, in words for whoever can mend it: what is wrong, and what to do. It is said in the reader's language by
 * whoever shows it (`saidOf`); `message` is its English with the plain gaps filled, for logs.
 *
 * @example throw new SaidError(said('“{file}” is empty: export it again.', { file: { own: file.name } }));
 */
export class SaidError extends Error {
  constructor(readonly says: Said) {
    super(typeof says === 'string' ? says : says.says.replace(/\{(\w+)\}/g, (gap, name: string) => plain(says.with[name], gap)));
  }
}

/** What an error says to the reader. */
export const saidOf = (error: unknown): Said => (error instanceof SaidError ? error.says : (error as Error).message);
