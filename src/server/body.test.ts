import { jsonOf } from './body';

/** A body that comes in pieces, as from a slow line, without saying how long it will be; counts what was asked of it. */
function inPieces(piece: string, times: number) {
  let given = 0;
  const body = new ReadableStream<Uint8Array>({
    pull(controller) {
      if (given === times) return controller.close();
      given++;
      controller.enqueue(Buffer.from(piece));
    },
  });
  return { request: new Request('http://here/', { method: 'POST', body, duplex: 'half' } as RequestInit), given: () => given };
}

test('what was sent comes back, in however many pieces', async () => {
  expect(await jsonOf(new Request('http://here/', { method: 'POST', body: '{"a":["ü",2]}' }))).toEqual({ a: ['ü', 2] });
  const cut = Buffer.from('{"a":"ü"}');
  const body = new ReadableStream<Uint8Array>({
    start(controller) {
      // In the middle of a letter of two bytes.
      controller.enqueue(cut.subarray(0, 7));
      controller.enqueue(cut.subarray(7));
      controller.close();
    },
  });
  expect(await jsonOf(new Request('http://here/', { method: 'POST', body, duplex: 'half' } as RequestInit))).toEqual({ a: 'ü' });
});

test('a body without end is refused after what it may hold, and read no further', async () => {
  const { request, given } = inPieces('[],'.repeat(1000), 1e6);
  await expect(jsonOf(request, 10_000)).rejects.toMatchObject({ code: 'too-large' });
  expect(given()).toBeLessThan(8);
});

test('one that says it is too long isn’t read at all', async () => {
  const { request, given } = inPieces('[]', 100);
  request.headers.set('content-length', String(150e6));
  await expect(jsonOf(request)).rejects.toMatchObject({ code: 'too-large' });
  expect(given()).toBeLessThanOrEqual(1);
});

test('nothing, and no JSON, are errors of their own', async () => {
  await expect(jsonOf(new Request('http://here/', { method: 'POST' }))).rejects.toThrow(SyntaxError);
  await expect(jsonOf(new Request('http://here/', { method: 'POST', body: '{' }))).rejects.toThrow(SyntaxError);
});

test.each(['{"a":"b\\u0000c"}', '{"a\\u0000":1}', '{"a":["\\ud800"]}', '{"a":"\\udc00\\ud800"}'])(
  '%s holds what no row can',
  async (text) => {
    await expect(jsonOf(new Request('http://here/', { method: 'POST', body: text }))).rejects.toMatchObject({ code: 'incomplete' });
  },
);

test('pairs that stand for one sign are taken', async () => {
  expect(await jsonOf(new Request('http://here/', { method: 'POST', body: '{"a":"\\ud834\\udd1e"}' }))).toEqual({ a: '𝄞' });
});
