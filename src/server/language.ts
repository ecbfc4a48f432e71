import type { Metadata } from 'next';
import { cookies, headers } from 'next/headers';
import { type Language, LANGUAGES, sayIn } from '../core/format/say';
import { type Naming, NAMINGS } from '../core/music/naming';
import type { Said } from '../core/words/said';
import { catalogueOf, LANGUAGE_COOKIE, MOVABLE_DO_COOKIE, NAMING_COOKIE, namingIn } from '../words/catalogues';

const isOne = <T extends string>(all: readonly T[], value: string | undefined): value is T => all.includes(value as T);

/** Of what a browser asks for, in its own order ("de-AT,de;q=0.9,en;q=0.5"), the first language there is; English without one. */
export function languageAsked(accepted: string | null): Language {
  const asked = (accepted ?? '')
    .split(',')
    .map((part, i) => {
      const [tag, ...more] = part.trim().toLowerCase().split(';');
      const q = /^\s*q=([\d.]+)$/.exec(more.join(';'))?.[1];
      return { language: tag.split('-')[0], q: q === undefined ? 1 : Number(q), i };
    })
    .sort((a, b) => b.q - a.q || a.i - b.i);
  return (asked.map((a) => a.language).find((tag) => isOne(LANGUAGES, tag)) as Language) ?? 'en';
}

/** How somebody is spoken to, without the translations. */
interface Spoken {
  language: Language;
  naming: Naming;
  movableDo: boolean;
}

/** As was chosen in a browser (`cookie` reads one of its cookies), else as it asks. */
function spokenBy(cookie: (name: string) => string | undefined, accepted: string | null): Spoken {
  const chosen = cookie(LANGUAGE_COOKIE);
  const language = isOne(LANGUAGES, chosen) ? chosen : languageAsked(accepted);
  const notes = cookie(NAMING_COOKIE);
  return { language, naming: isOne(NAMINGS, notes) ? notes : namingIn(language), movableDo: cookie(MOVABLE_DO_COOKIE) === 'yes' };
}

/** In which language, and by which names of notes, the reader of this page is spoken to. */
export async function spokenHere(): Promise<Spoken> {
  const [jar, head] = await Promise.all([cookies(), headers()]);
  return spokenBy((name) => jar.get(name)?.value, head.get('accept-language'));
}

const sayTo = async ({ language, naming }: Spoken, what: Said) => sayIn({ language, naming, catalogue: await catalogueOf(language) }, what);

/** What is said, to the reader of this page. */
export const sayHere = async (what: Said): Promise<string> => sayTo(await spokenHere(), what);

/** What is said, to whoever sent a request. */
export function sayInAnswer({ headers }: Request, what: Said): Promise<string> {
  const sent = headers.get('cookie') ?? '';
  // Ours are plain words.
  const cookie = (name: string) => new RegExp(`(?:^|;\\s*)${name}=([a-z]+)`).exec(sent)?.[1];
  return sayTo(spokenBy(cookie, headers.get('accept-language')), what);
}

/** A page's title in the reader's language. @example export const generateMetadata = () => titled(texts('Studio')); */
export const titled = async (title: string): Promise<Metadata> => ({ title: await sayHere(title) });
