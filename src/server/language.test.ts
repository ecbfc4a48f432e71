import { languageAsked } from './language';

// Orders of preference as RFC 9110, 12.5.4, writes them.
test.each([
  ['de-AT,de;q=0.9,en;q=0.5', 'de'],
  ['pt-BR, fr;q=0.4, it;q=0.8', 'it'],
  ['en;q=0.2, es', 'es'],
  ['EN-us', 'en'],
  ['nl, *;q=0.1', 'en'],
  ['', 'en'],
  [null, 'en'],
])('a browser that asks for %s is spoken to in %s', (asked, language) => expect(languageAsked(asked)).toBe(language));
