import { DrizzleQueryError } from 'drizzle-orm';
import { z } from 'zod';
import { SoundFileError } from '../core/format/wav';
import { said } from '../core/words/said';
import { Refusal } from '../studio/refusal';
import { faultWords, respond } from './respond';

jest.mock('./let-in', () => ({ asAtLeast: (_role: string, work: () => unknown) => work() }));

const SECRET = 'SECRETHEALTH';
/** What the database throws, as the query builder passes it on: with the values that were sent. */
function refusedByDatabase(code: string): DrizzleQueryError {
  const cause = Object.assign(new Error(`invalid value: "${SECRET}"`), { code, constraint: 'singer_name_given', detail: `(${SECRET})` });
  return new DrizzleQueryError('insert into singer (intake) values ($1)', [SECRET], cause);
}
const asked = (headers: Record<string, string> = {}, method = 'POST') =>
  new Request('http://localhost/api/x', { method, headers: { host: 'localhost:3000', ...headers } });
const answer = (error: unknown) => respond(asked(), 'coach', () => Promise.reject(error));

let logged: string[];
beforeEach(() => {
  logged = [];
  jest.spyOn(console, 'error').mockImplementation((...words) => void logged.push(words.join(' ')));
});

test.each<[string, () => unknown, number]>([
  ['a problem of ours', () => new Refusal('gone', 'no'), 410],
  ['a file that is no sound', () => new SoundFileError('no'), 422],
  ['what doesn’t fit the schema', () => z.string().safeParse(1).error, 400],
  ['no JSON', () => new SyntaxError('x'), 400],
  ['a change by a reader', () => refusedByDatabase('25006'), 403],
  ['an id that is taken', () => refusedByDatabase('23505'), 409],
  ['an id that is none', () => refusedByDatabase('22P02'), 400],
  ['a time out of bounds', () => refusedByDatabase('22008'), 400],
  ['a sign no text holds', () => refusedByDatabase('22021'), 400],
  ['a row that points nowhere', () => refusedByDatabase('23503'), 400],
  ['a row against a rule', () => refusedByDatabase('23514'), 400],
  ['the database stopped', () => refusedByDatabase('57P01'), 503],
  ['the database away', () => Object.assign(new Error('connect'), { code: 'ECONNREFUSED' }), 503],
  ['a fault', () => new TypeError('x is not a function'), 500],
  ['a fault of the database', () => refusedByDatabase('42703'), 500],
])('%s', async (_name, error, status) => {
  const said = await answer(error());
  expect(said.status).toBe(status);
  expect(said.headers.get('cache-control')).toBe('private, no-store');
  expect(await said.text()).not.toContain(SECRET);
  // Only a fault is worth a line.
  expect(logged).toHaveLength(status === 500 ? 1 : 0);
});

const TOO_LONG = said('The recording is {minutes} minutes long; at most {most} can be taken in: cut it into shorter takes.', {
  minutes: 20,
  most: 15,
});
test.each<[Record<string, string>, string]>([
  [{}, 'The recording is 20 minutes long; at most 15 can be taken in: cut it into shorter takes.'],
  [{ 'accept-language': 'de-AT,en;q=0.5' }, 'Die Aufnahme ist 20 Minuten lang; höchstens 15 gehen: schneide sie in kürzere Aufnahmen.'],
  [
    { 'accept-language': 'de', cookie: 'a=1; wendel-language=it' },
    'La registrazione dura 20 minuti; se ne accettano al massimo 15: tagliala in registrazioni più corte.',
  ],
  // Another's cookie of a like name, and a language there is none of.
  [
    { 'accept-language': 'fr', cookie: 'not-wendel-language=it; wendel-language=xx' },
    'L’enregistrement dure 20 minutes\u00a0; 15 au plus sont acceptées\u00a0: coupez-le en prises plus courtes.',
  ],
])('a no is said to whoever asked by %j in their language', async (headers, says) => {
  const said = await respond(asked(headers), 'coach', () => Promise.reject(new SoundFileError(TOO_LONG)));
  expect(await said.json()).toEqual({ error: says });
});

test('what is wrong with what was sent is said part by part', async () => {
  const Sent = z.object({
    singer: z.object({ name: z.string().min(1, 'Give the singer a name.') }),
    steps: z.array(z.string()).min(1, 'Write at least one note.'),
  });
  const { error } = Sent.safeParse({ singer: { name: '' }, steps: [] });
  const no = await respond(asked({ 'accept-language': 'es' }), 'coach', () => Promise.reject(error));
  expect(await no.json()).toEqual({
    error: 'La petición no está completa: singer.name: Ponle un nombre al cantante.; steps: Escribe al menos una nota.',
  });
});

test('the log says which query and which rule, and never with what values', () => {
  const words = JSON.stringify(faultWords(refusedByDatabase('42703')));
  expect(words).not.toContain(SECRET);
  expect(words).toContain('insert into singer');
  expect(words).toContain('singer_name_given');
  expect(words).toContain('respond.test.ts');
  expect(JSON.stringify(faultWords(new TypeError('x is not a function')))).toContain('x is not a function');
});

test('an answer is kept by nobody; a change asked for by another site, or at another’s address, is refused', async () => {
  const work = jest.fn(async () => ({ a: 1 }));
  const good = await respond(asked(), 'coach', work);
  expect([good.status, good.headers.get('cache-control'), await good.json()]).toEqual([200, 'private, no-store', { a: 1 }]);
  work.mockClear();
  for (const headers of [
    { 'sec-fetch-site': 'cross-site' },
    { origin: 'https://evil.com' },
    { host: 'rebind.evil.com' },
    // By the same origin as it claims to be.
    { host: 'rebind.evil.com', origin: 'http://rebind.evil.com', 'sec-fetch-site': 'same-origin' },
  ] as Record<string, string>[])
    expect([403, 421]).toContain((await respond(asked(headers), 'anyone', work)).status);
  expect(work).not.toHaveBeenCalled();
});
