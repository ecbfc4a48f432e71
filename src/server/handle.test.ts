import { newId } from '../core/format/id';
import { randomUUID } from 'node:crypto';
import { DEMO_SONGS } from '../core/song/demo-songs';
import type { Member } from '../data/door';
import { Refusal } from '../studio/refusal';
import { handle } from './handle';

let mockMember: Member | null = null;
jest.mock('./session', () => ({ presentMember: async () => mockMember }));

const member = (role: Member['role']): Member => ({
  userId: 'u',
  name: 'Marit',
  email: 'marit@example.com',
  studioId: newId('studio'),
  role,
});
const singerId = randomUUID();

/** Ask a handler of one route that tells what it was given. */
async function asked(body: unknown, of: { id?: string; as?: Member['role'] | null } = {}) {
  mockMember = of.as === null ? null : member(of.as ?? 'coach');
  const given = jest.fn();
  const route = handle('PUT /api/singers/[singerId]/pins', async (what) => given(what));
  let read = false;
  const request = new Request('http://localhost:3000/x', {
    method: 'PUT',
    headers: { host: 'localhost:3000', 'content-type': 'application/json' },
    duplex: 'half',
    body: new ReadableStream(
      {
        pull(stream) {
          read = true;
          stream.enqueue(new TextEncoder().encode(typeof body === 'string' ? body : JSON.stringify(body)));
          stream.close();
        },
      },
      { highWaterMark: 0 },
    ),
  } as RequestInit);
  const answer = await route(request, { params: Promise.resolve({ singerId: of.id ?? singerId }) });
  return { status: answer.status, says: await answer.json(), given: given.mock.calls[0]?.[0], read };
}

test('a handler is given what its shape makes of a request', async () => {
  const { status, given } = await asked({ what: 'usable-low', midi: 60, more: 'left out' });
  expect(status).toBe(200);
  expect(given).toMatchObject({ params: { singerId }, body: { what: 'usable-low', midi: 60 } });
  expect(given.body).not.toHaveProperty('more');
});

test('who may not is refused before anything of the request is read', async () => {
  expect(await asked({ what: 'usable-low', midi: 60 }, { as: 'reader' })).toMatchObject({ status: 403, given: undefined, read: false });
  expect(await asked({ what: 'usable-low', midi: 60 }, { as: null })).toMatchObject({ status: 401, given: undefined, read: false });
});

test.each(['x', '..', "'; drop table take; --", '00000000-0000', ''])(
  'an id that is none (%p) is nothing here, and no fault',
  async (id) => {
    expect(await asked({ what: 'usable-low', midi: 60 }, { id })).toMatchObject({ status: 404, given: undefined, read: false });
  },
);

test.each<[string, unknown]>([
  ['no JSON', '{"a":'],
  ['another shape', { what: 'nothing', midi: 60 }],
  ['a number out of bounds', { what: 'usable-low', midi: 1e308 }],
  ['no object', '7'],
  ['a sign no row holds', '{"what":"usable-low\\u0000","midi":60}'],
])('%s is refused in words', async (_, body) => {
  const { status, says, given } = await asked(body);
  expect([status, given]).toEqual([400, undefined]);
  expect(says.error).toMatch(/\w+/);
});

test('an id of its own stands in the path, whatever the body says', async () => {
  mockMember = member('coach');
  const own = randomUUID();
  const given = jest.fn();
  const route = handle('PUT /api/songs/[songId]', async ({ body }) => given(body.id));
  const request = new Request('http://localhost:3000/x', {
    method: 'PUT',
    headers: { host: 'localhost:3000' },
    body: JSON.stringify({ id: randomUUID(), song: DEMO_SONGS[0], note: '' }),
  });
  const answer = await route(request, { params: Promise.resolve({ songId: own }) });
  expect([answer.status, given.mock.calls]).toEqual([200, [[own]]]);
});

test('a refusal by a use case keeps its words', async () => {
  mockMember = member('owner');
  const route = handle('POST /api/post', () => Promise.reject(new Refusal('full', 'No room.')));
  const answer = await route(new Request('http://localhost:3000/x', { method: 'POST', headers: { host: 'localhost:3000' } }), {
    params: Promise.resolve(undefined),
  });
  expect([answer.status, await answer.json()]).toEqual([507, { error: 'No room.' }]);
});
