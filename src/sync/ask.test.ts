import { ask, addressOf, pathOf, requestOf } from './ask';

const asked: { path: string; init: RequestInit }[] = [];
let says: Response;
beforeEach(() => {
  asked.length = 0;
  says = Response.json({ id: 'made' });
  globalThis.fetch = (async (path: string, init: RequestInit) => {
    asked.push({ path, init });
    return says;
  }) as typeof fetch;
});

test('names in a path are filled in, and can’t leave their place', () => {
  expect(addressOf('GET /api/takes/[takeId]/audio', { takeId: 'a' })).toBe('/api/takes/a/audio');
  expect(pathOf('/api/door/join/[token]', { token: '../settings?x#y' })).toBe('/api/door/join/..%2Fsettings%3Fx%23y');
});

test('a request says its method, its path with what is asked, and its body', () => {
  expect(requestOf('GET /api/takes/[takeId]', { params: { takeId: 'a' }, query: { wait: '' } })).toEqual({
    method: 'GET',
    path: '/api/takes/a?wait=',
    body: undefined,
  });
  expect(requestOf('PATCH /api/takes/[takeId]', { params: { takeId: 'a' }, body: { note: 'x' } })).toEqual({
    method: 'PATCH',
    path: '/api/takes/a',
    body: { note: 'x' },
  });
});

test('what was asked comes back as the table says', async () => {
  const { id } = await ask('POST /api/lessons', { body: { id: 'l', singerId: 's', name: 'x', course: {} as never } });
  expect(id).toBe('made');
  expect(asked[0]).toMatchObject({ path: '/api/lessons', init: { method: 'POST', headers: { 'content-type': 'application/json' } } });
  await ask('POST /api/post');
  expect(asked[1].init.body).toBeUndefined();
});

test('a no comes in the server’s words; without any, or without a server, it says what to do', async () => {
  says = Response.json({ error: 'Another recording has this id.' }, { status: 409 });
  await expect(ask('POST /api/post')).rejects.toThrow('Another recording has this id.');
  says = new Response('<html>', { status: 502 });
  await expect(ask('POST /api/post')).rejects.toThrow('The server answered 502');
  globalThis.fetch = () => Promise.reject(new TypeError('failed'));
  await expect(ask('POST /api/post')).rejects.toThrow(/can’t be reached.*Nothing here is lost/);
});
