/**
 * What is said to a reader, before it is put into their language: an English message, and what stands in its gaps. Messages are in
 * ICU MessageFormat ("{n, plural, one {# key} other {# keys}}"); the English is also the key under which translations stand.
 */
export type Said = string | Readonly<{ says: string; with: Readonly<Record<string, SaidValue>> }>;

/**
 * A note is named as the reader names notes, and so is a key by its tonic; what is itself said is put into their language first; somebody's own words stay as they
 * are; a list is joined.
 */
export type SaidValue =
  | number
  | Said
  | { note: number; flats?: boolean }
  | { key: number }
  | { own: string }
  | { all: readonly Said[]; as: (typeof JOINS)[number] };

/** A message with its gaps filled. @example said('The voice leapt at {note}.', { note: { note: 65 } }) */
export const said = (says: string, values?: Readonly<Record<string, SaidValue>>): Said => (values ? { says, with: values } : says);

/** A note and how far from it in cents, as `noteWithCents` writes it: "E4 +12". */
export function inCents(midi: number): Said {
  const cents = Math.round((midi - Math.round(midi)) * 100);
  const note = { note: midi };
  return cents === 0 ? said('{note}', { note }) : said('{note} {by}', { note, by: `${cents > 0 ? '+' : '−'}${Math.abs(cents)}` });
}

/** How what is listed is joined: in words, or by signs. */
export const JOINS = ['and', 'or', 'comma', 'semicolon', 'dot'] as const;

/** Marks words that are looked up later: the test of the catalogues collects what stands in here. */
export const texts = <const T>(words: T): T => words;
