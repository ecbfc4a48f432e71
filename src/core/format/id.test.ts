import { areIds, Id, IdShape, IdsIn, newId } from './id';

const UUID = '8859f8ef-2e6b-4445-96dd-c0a9936a85ec';

test('names in an address that end in Id are ids of their kinds, but for those of accounts and for tokens', () => {
  expect(areIds({ takeId: UUID, userId: 'b7Xq', sessionId: 'k', token: 'x' })).toBe(true);
  for (const text of ['', 'x', `${UUID}0`, UUID.slice(1), `${UUID}' or true`])
    expect([text, areIds({ takeId: text })]).toEqual([text, false]);
  expect(areIds({})).toBe(true);
});

test('an id of one kind doesn’t pass for another’s, nor a text for an id', () => {
  const songOf = ({ songId }: IdsIn<'songId' | 'token'>): Id<'song'> => songId;
  const song = IdShape('song').parse(UUID);
  expect(songOf({ songId: song, token: 'x' })).toBe(UUID);
  // @ts-expect-error A take’s.
  songOf({ songId: newId('take'), token: 'x' });
  // @ts-expect-error A text.
  songOf({ songId: UUID, token: 'x' });
  expect(IdShape('song').safeParse('x').success).toBe(false);
  expect(areIds({ songId: newId('song') })).toBe(true);
});
