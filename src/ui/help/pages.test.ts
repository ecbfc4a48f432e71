import { readdirSync } from 'node:fs';
import { findHelp, HELP, helpAt } from './pages';

test('every page of a studio has help, and all help is of a page', () => {
  const pages = readdirSync('src/app/(studio)', { recursive: true, encoding: 'utf8' })
    .filter((file) => file.endsWith('page.tsx'))
    .map((file) => `/${file.replace(/\/?page\.tsx$/, '')}`);
  expect(HELP.map(({ at }) => at).sort()).toEqual(pages.sort());
});

test('the help shown is that of the page one is on', () => {
  expect(helpAt('/')?.name).toBe('Studio');
  expect(helpAt('/singers/0b1c/songs/7')?.name).toBe('A song on the ladder');
  expect(helpAt('/singers/0b1c')).toBeUndefined();
});

test.each([
  ['passaggio', 'Map'],
  ['assign', 'Plan'],
  ['MusicXML', 'Songs'],
  ['record file', 'Listen'],
  ['link', 'Practice sheet'],
  ['pulled chest', 'Map'],
  ['like this', 'Exercises'],
  ['delete', 'Studio'],
  ['print', 'A song'],
])('whoever looks for “%s” finds %s', (words, name) => {
  expect(findHelp(words).map((page) => page.name)).toContain(name);
});

test('nothing is found where nothing is, and nothing asked finds nothing', () => {
  expect(findHelp('trombone')).toEqual([]);
  expect(findHelp('  ')).toEqual([]);
});

test('help is short: read in half a minute, each thing to press in a line', () => {
  for (const { name, shows, press } of HELP) {
    expect([name, shows.join(' ').split(/\s+/).length <= 75]).toEqual([name, true]);
    for (const [what, then] of press) expect([what, what.length <= 30, then.length <= 150]).toEqual([what, true, true]);
  }
});
