import { ownHost } from './own-host';

afterEach(() => void delete process.env.WENDEL_URL);

test.each(['127.0.0.1:3000', '192.168.1.5', '[::1]:3000', 'localhost:3000', 'piano:3000', 'studio.local', 'box.lan'])(
  '%s is ours',
  (host) => {
    expect(ownHost(host)).toBe(true);
  },
);

test.each(['rebind.evil.com', '127.0.0.1.evil.com', 'local.evil.com', '', 'a b', null])('%s is not', (host) => {
  expect(ownHost(host)).toBe(false);
});

test('the address we were told is ours, and no other under it', () => {
  process.env.WENDEL_URL = 'https://sing.reed.com/';
  expect([ownHost('sing.reed.com'), ownHost('sing.reed.com:443'), ownHost('reed.com'), ownHost('x.sing.reed.com')]).toEqual([
    true,
    true,
    false,
    false,
  ]);
});
