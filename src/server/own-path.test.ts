import { ownPath } from './own-path';

test.each(['/', '/singers/3', '/singers/3/takes/4?at=2.5', '/exercises#low', '/%09/reeds'])('%s is a page of ours', (to) => {
  expect(ownPath(to)).toBe(to);
});

test.each([
  '//evil.example',
  '/\t/evil.example',
  '/\n//evil.example',
  '/\\evil.example',
  '\\\\evil.example',
  '/.//evil.example',
  '/a/..//evil.example',
  'https://evil.example',
  'javascript:alert(1)',
  'evil.example',
  '',
])('%j leads nowhere but to the first page', (to) => {
  expect(ownPath(to)).toBe('/');
  // And what is left is no way out, however a browser reads it.
  expect(new URL(ownPath(to), 'https://wendel.example').origin).toBe('https://wendel.example');
});
