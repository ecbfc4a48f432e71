'use client';
import { flatsIn } from '../../core/music/scale';
import { createContext, Fragment, use, useContext, useMemo } from 'react';
import { decimal, IN_ENGLISH, type Language, messageIn, sayIn, type Tongue, valuesIn } from '../../core/format/say';
import { nameOf, type Naming } from '../../core/music/naming';
import type { Said, SaidValue } from '../../core/words/said';
import { catalogueOf } from '../../words/catalogues';
import { dateOf, dateTimeOf } from '../kit/dates';

const Spoken = createContext<Tongue>(IN_ENGLISH);

interface Reader {
  language: Language;
  naming: Naming;
  movableDo: boolean;
  children: React.ReactNode;
}

/** Everything inside speaks a reader's language and names notes as they do. */
export function InLanguage({ language, naming, movableDo, children }: Reader) {
  const catalogue = use(catalogueOf(language));
  const tongue = useMemo(() => ({ language, catalogue, naming, movableDo }), [language, catalogue, naming, movableDo]);
  return <Spoken value={tongue}>{children}</Spoken>;
}

type Values = Readonly<Record<string, SaidValue>>;
type Wrap = (inside: React.ReactNode) => React.ReactNode;

/** What a component says its words with. */
export function useLanguage() {
  const tongue = useContext(Spoken);
  return useMemo(() => speaker(tongue), [tongue]);
}

export type Speaker = ReturnType<typeof speaker>;

function speaker(tongue: Tongue) {
  return {
    tongue,
    language: tongue.language,
    /** A message in the reader's language: as it stands, with its gaps filled, or said elsewhere. */
    t: (message: Said, values?: Values): string =>
      sayIn(tongue, values && typeof message === 'string' ? { says: message, with: values } : message),
    /** The same with parts of it set in elements. @example rich('<b>{n}</b> left', { n }, { b: (inside) => <b>{inside}</b> }) */
    rich: (message: string, values: Values, wraps: Readonly<Record<string, Wrap>>): React.ReactNode => {
      const parts = messageIn(tongue, message).format<React.ReactNode>({ ...valuesIn(tongue, message, values), ...wraps });
      return Array.isArray(parts) ? parts.map((part, i) => <Fragment key={i}>{part}</Fragment>) : parts;
    },
    /** The date of a moment, or a day: "25 Nov". */
    dateOf: (moment: Date | string): string => dateOf(moment, tongue.language),
    /** "25 Nov, 19:05". */
    dateTimeOf: (moment: Date | string): string => dateTimeOf(moment, tongue.language),
    /** A number with so many digits behind its point or comma; by default as many as it has. */
    decimal: (n: number, digits?: number): string => decimal(tongue.language, n, digits),
    /** A note by the name the reader uses. */
    note: (midi: number, flats = false): string => nameOf(midi, tongue.naming, flats),
    /** A key by its tonic, spelt as its staff is: B♭3, not A#3. */
    keyNote: (tonicMidi: number): string => nameOf(tonicMidi, tongue.naming, flatsIn(tonicMidi)),
  };
}
