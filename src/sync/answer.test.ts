import { Away, answerOf, expectYes, Refused } from './answer';

const kindOf = (status: number | null) => {
  try {
    expectYes(status === null ? null : { status, error: status < 400 ? null : 'No.' });
    return 'yes';
  } catch (error) {
    return error instanceof Away ? 'away' : error instanceof Refused ? 'refused' : 'trouble';
  }
};

// What RFC 9110 and RFC 6585 mean by them: whether the same request may ever be taken, and whether any would be now.
test.each([
  [200, 'yes'],
  [400, 'refused'],
  [403, 'refused'],
  [404, 'refused'],
  [409, 'refused'],
  [413, 'refused'],
  [422, 'refused'],
  // Later, and nothing else before.
  [401, 'away'],
  [429, 'away'],
  [503, 'away'],
  [null, 'away'],
  // Later, while others go on.
  [408, 'trouble'],
  [500, 'trouble'],
  [502, 'trouble'],
  [507, 'trouble'],
])('an answer of %p is a %s', (status, kind) => expect(kindOf(status)).toBe(kind));

describe('asking', () => {
  const answers = (answer: () => Promise<Response>) => jest.spyOn(globalThis, 'fetch').mockImplementation(answer);
  const ask = () => answerOf('/api/x', { method: 'PUT', headers: { 'content-type': 'audio/wav' } });
  afterEach(() => jest.restoreAllMocks());

  test('no network is no answer', async () => {
    answers(() => Promise.reject(new TypeError('Failed to fetch')));
    expect(await ask()).toBeNull();
  });

  test('the server’s own words are passed on; a proxy’s page is not read out', async () => {
    answers(async () => Response.json({ error: 'This take is gone.' }, { status: 410 }));
    expect(await ask()).toEqual({ status: 410, error: 'This take is gone.' });
    answers(async () => new Response('<html>Bad Gateway</html>', { status: 502 }));
    expect(await ask()).toEqual({ status: 502, error: { says: 'The server answered {status}.', with: { status: 502 } } });
    answers(async () => new Response('null', { status: 500 }));
    expect(await ask()).toMatchObject({ status: 500, error: { with: { status: 500 } } });
  });

  test('a yes is one whatever it holds', async () => {
    for (const body of ['{"ok":true}', '', '{"error":"x"}']) {
      answers(async () => new Response(body, { status: 200 }));
      expect(await ask()).toEqual({ status: 200, error: null });
    }
  });
});
