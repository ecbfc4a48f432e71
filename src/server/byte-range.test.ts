import { byteRange } from './byte-range';

// RFC 9110, 14.1.2 and 14.4, the examples of a file of 10000 bytes.
test.each([
  ['bytes=0-499', { from: 0, to: 500 }],
  ['bytes=500-999', { from: 500, to: 1000 }],
  ['bytes=-500', { from: 9500, to: 10_000 }],
  ['bytes=9500-', { from: 9500, to: 10_000 }],
  ['bytes=9999-20000', { from: 9999, to: 10_000 }],
  ['bytes=10000-', 'past the end'],
  ['bytes=-0', 'past the end'],
  ['bytes=5-4', 'past the end'],
  // What isn't understood is not there.
  ['bytes=0-0,-1', null],
  ['lines=1-2', null],
  [null, null],
])('%s', (header, part) => {
  expect(byteRange(header, 10_000)).toEqual(part);
});
