import { said } from '../words/said';
import { allInEnglish, decimal, IN_ENGLISH, inEnglish, sayIn, type Tongue } from './say';

const GERMAN: Tongue = {
  language: 'de',
  naming: 'german',
  catalogue: {
    'The voice leapt at {note}.': 'Die Stimme sprang auf {note}.',
    '{n, plural, one {# key} other {# keys}}': '{n, plural, one {# Tonart} other {# Tonarten}}',
    'In {keys}.': 'In {keys}.',
    chest: 'Bruststimme',
    '{cents, number, ::.0} cents off': '{cents, number, ::.0} Cent daneben',
  },
};

test('what is said comes in the reader’s language, notes by the names they use', () => {
  const leapt = said('The voice leapt at {note}.', { note: { note: 58, flats: true } });
  expect(inEnglish(leapt)).toBe('The voice leapt at Bb3.');
  expect(sayIn(GERMAN, leapt)).toBe('Die Stimme sprang auf b.');
  expect(sayIn({ ...IN_ENGLISH, naming: 'italian' }, leapt)).toBe('The voice leapt at Sib2.');
});

test('numbers, plurals and lists follow the language', () => {
  const keys = (n: number) => said('{n, plural, one {# key} other {# keys}}', { n });
  expect([keys(1), keys(1200)].map(inEnglish)).toEqual(['1 key', '1,200 keys']);
  expect([keys(1), keys(1200)].map((k) => sayIn(GERMAN, k))).toEqual(['1 Tonart', '1.200 Tonarten']);
  expect(sayIn(GERMAN, said('{cents, number, ::.0} cents off', { cents: 2.5 }))).toBe('2,5 Cent daneben');
  const half = said('In {keys}.', { keys: 1.5 });
  expect([inEnglish(half), sayIn(GERMAN, half)]).toEqual(['In 1.5.', 'In 1,5.']);
  const listed = (as: 'and' | 'or' | 'comma') => said('In {keys}.', { keys: { all: ['chest', keys(1), keys(2)], as } });
  expect(inEnglish(listed('and'))).toMatch(/^In chest, 1 key,? and 2 keys\.$/);
  expect(sayIn(GERMAN, listed('and'))).toBe('In Bruststimme, 1 Tonart und 2 Tonarten.');
  expect(sayIn(GERMAN, listed('or'))).toBe('In Bruststimme, 1 Tonart oder 2 Tonarten.');
  expect(sayIn(GERMAN, listed('comma'))).toBe('In Bruststimme, 1 Tonart, 2 Tonarten.');
});

test('a number has the digits asked for, behind the point or comma of the language', () => {
  expect([decimal('en', 0.2, 2), decimal('de', 0.2, 2), decimal('fr', -1.25, 1), decimal('it', 12345.5)]).toEqual([
    '0.20',
    '0,20',
    '−1,3',
    '12345,5',
  ]);
});

test('somebody’s own words stay as they are, and what a catalogue lacks is said in English', () => {
  expect(sayIn(GERMAN, said('In {keys}.', { keys: { own: 'chest' } }))).toBe('In chest.');
  expect(sayIn(GERMAN, said('A day in {month}, {n, plural, one {# week} other {# weeks}}', { month: 'May', n: 1200 }))).toBe(
    'A day in May, 1,200 weeks',
  );
  // Names that every object has are no words of a catalogue.
  for (const name of ['constructor', 'toString', '__proto__']) expect(sayIn(GERMAN, name)).toBe(name);
});

test('an answer comes in English as a whole, and what isn’t said in it stays', () => {
  const answer = { at: 58, because: [said('The voice leapt at {note}.', { note: { note: 65 } }), 'plain'], none: null };
  expect(allInEnglish(answer)).toEqual({ at: 58, because: ['The voice leapt at F4.', 'plain'], none: null });
});
