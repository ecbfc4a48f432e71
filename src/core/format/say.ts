import { IntlMessageFormat } from 'intl-messageformat';
import { keyCalled, type Naming, nameOf } from '../music/naming';
import type { Said, SaidValue } from '../words/said';

/** The languages of the interface; English is the one its words are written in. */
export const LANGUAGES = ['en', 'de', 'es', 'fr', 'it'] as const;
export type Language = (typeof LANGUAGES)[number];

/** By which rules dates and numbers are written; British ones for English, where a day stands before its month. */
export const LOCALES: Record<Language, string> = { en: 'en-GB', de: 'de', es: 'es', fr: 'fr', it: 'it' };

/** Translations by their English message. */
export type Catalogue = Readonly<Record<string, string>>;

/** How a reader is spoken to. */
export interface Tongue {
  language: Language;
  /** Empty for English. What isn't in it is said in English. */
  catalogue: Catalogue;
  naming: Naming;
  /** Whether what a note is called in movable do stands with the notes of exercises. */
  movableDo?: boolean;
}

export const IN_ENGLISH: Tongue = { language: 'en', catalogue: {}, naming: 'letters' };

/** A message as a catalogue has it. */
const translation = (catalogue: Catalogue, message: string): string | undefined =>
  Object.hasOwn(catalogue, message) ? catalogue[message] : undefined;

/** More than all of ours with gaps in five languages. What is sent to the server is read here too, and must not fill its memory. */
const MOST_READ = 8000;
/** Messages once read, by language and text. */
const read = new Map<string, IntlMessageFormat>();

/** A message as it is formatted, in the reader's language, or in English where that lacks it. */
export function messageIn({ language, catalogue }: Tongue, message: string): IntlMessageFormat {
  const translated = translation(catalogue, message);
  const key = `${translated === undefined ? 'en' : language} ${translated ?? message}`;
  let found = read.get(key);
  if (!found) {
    if (read.size >= MOST_READ) read.clear();
    read.set(key, (found = new IntlMessageFormat(translated ?? message, translated === undefined ? 'en' : language)));
  }
  return found;
}

/** More than a number has. */
const MOST_DIGITS = 20;

/** A number as a language writes it, with so many digits behind its point or comma; by default as many as it has. @example decimal('de', 0.2, 2) // "0,20" */
export function decimal(language: Language, n: number, digits?: number): string {
  const fixed = { minimumFractionDigits: digits ?? 0, maximumFractionDigits: digits ?? MOST_DIGITS };
  return new Intl.NumberFormat(language, { ...fixed, useGrouping: false }).format(n).replace('-', '−');
}

const SIGNS = { comma: ', ', semicolon: '; ', dot: ' · ' };

/** What stands in a gap, as text or number. */
function valueIn(tongue: Tongue, value: SaidValue): string | number {
  if (typeof value === 'number') return value;
  if (typeof value === 'object' && 'note' in value) return nameOf(value.note, tongue.naming, value.flats);
  if (typeof value === 'object' && 'key' in value) return keyCalled(value.key, tongue.naming);
  if (typeof value === 'object' && 'own' in value) return value.own;
  if (typeof value === 'object' && 'all' in value) {
    const words = value.all.map((one) => sayIn(tongue, one));
    return value.as in SIGNS
      ? words.join(SIGNS[value.as as keyof typeof SIGNS])
      : new Intl.ListFormat(tongue.language, { type: value.as === 'and' ? 'conjunction' : 'disjunction' }).format(words);
  }
  return sayIn(tongue, value);
}

/** What stands in the gaps of a message. A number that isn't whole is written as the language does, also where the message leaves that open. */
export function valuesIn(tongue: Tongue, message: string, values: Readonly<Record<string, SaidValue>>): Record<string, string | number> {
  const filled = Object.entries(values).map(([name, value]): [string, string | number] => {
    const put = valueIn(tongue, value);
    const open = typeof put === 'number' && !Number.isInteger(put) && message.includes(`{${name}}`);
    return [name, open ? decimal(tongue.language, put) : put];
  });
  return Object.fromEntries(filled);
}

/**
 * What is said, in the reader's language, notes by the names they use.
 * @example sayIn(IN_ENGLISH, said('The voice leapt at {note}.', { note: { note: 65 } })) // "The voice leapt at F4."
 */
export function sayIn(tongue: Tongue, what: Said): string {
  if (typeof what === 'string') return translation(tongue.catalogue, what) ?? what;
  return messageIn(tongue, what.says).format(valuesIn(tongue, what.says, what.with)) as string;
}

/** The type of an answer in which everything that is said is text. */
export type InEnglish<T> = [Said] extends [T]
  ? string | Exclude<T, Said>
  : T extends readonly (infer One)[]
    ? InEnglish<One>[]
    : T extends object
      ? { [Name in keyof T]: InEnglish<T[Name]> }
      : T;

/** Everything that is said in an answer, in English: what the command line prints as JSON. */
export function allInEnglish<T>(answer: T): InEnglish<T>;
export function allInEnglish(answer: unknown): unknown {
  if (answer === null || typeof answer !== 'object') return answer;
  if (Array.isArray(answer)) return answer.map((one) => allInEnglish<unknown>(one));
  if ('says' in answer && 'with' in answer) return inEnglish(answer as Said);
  return Object.fromEntries(Object.entries(answer).map(([name, value]) => [name, allInEnglish<unknown>(value)]));
}

/** What is said, in English: for the command line and for what is kept as text. */
export const inEnglish = (what: Said): string => sayIn(IN_ENGLISH, what);
