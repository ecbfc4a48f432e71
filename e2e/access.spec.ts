import { APIRequestContext, APIResponse, request } from '@playwright/test';
import { createHash, randomUUID } from 'node:crypto';
import { Client } from 'pg';
import { databaseUrls } from '../bin/lib/postgres.mjs';
import { exerciseById } from '../src/core/exercise/shelf';
import { writeWav } from '../src/core/format/wav';
import { anchorsFor, beginCourse } from '../src/core/lesson/course';
import { PROTOCOLS } from '../src/core/lesson/protocols';
import { USUAL_TERMS } from '../src/core/plan/request';
import { DEMO_SONGS } from '../src/core/song/demo-songs';
import { sing } from '../src/core/sim/sing';
import { typicalProfile } from '../src/core/sim/typical';
import { BASE_URL, COPY, expect, NOBODY, SIGNED_IN, test } from './browser';
import { allWays } from './ways';

/** Who may at least: a singer by their own link; anyone; or a member of the studio of that role. */
type Who = 'anyone' | 'link' | 'reader' | 'coach' | 'owner';

interface Attempt {
  path: string;
  body?: unknown;
}

/** What a studio keeps of its own, by the name of its route. */
type Own = 'protocols' | 'exercises' | 'templates' | 'songs';

/** Things of the studio to try at, made anew for each attempt by its owner. */
interface Things {
  singer(): Promise<string>;
  take(singerId?: string): Promise<string>;
  lesson(singerId?: string): Promise<string>;
  assignment(): Promise<string>;
  own(kind: Own): Promise<{ id: string; body: object }>;
  invite(): Promise<{ id: string; token: string }>;
  /** A model for a new singer, with where it is kept. */
  model(singerId?: string): Promise<{ id: string; path: string }>;
  /** A word that a new singer spoke. */
  spoken(): Promise<string>;
  /** A line of a new singer's log. */
  line(): Promise<string>;
  member(): Promise<string>;
  /** The token of a new singer's link, with the singer. */
  link(): Promise<{ token: string; singerId: string }>;
  /** A session of whoever tries, or of the owner where it is another studio's coach who tries. */
  session(): Promise<string>;
}

const wav = Buffer.from(
  writeWav(sing(typicalProfile('tenor', 'flip'), { kind: 'siren', legS: 1, sirens: 1 }, { seed: 1, sampleRate: 16000 }).pcm, 16),
);
const modelWav = Buffer.from(writeWav({ samples: new Float32Array(8000), sampleRate: 16000 }, 16));
const spokenPath = (token: string, id: string) =>
  `/api/p/${token}/spoken/${id}?sha256=${createHash('sha256').update(modelWav).digest('hex')}`;
const takePath = (base: string, singerId: string, bytes = wav) =>
  `${base}?${new URLSearchParams({
    singerId,
    task: 'siren',
    source: 'file',
    sha256: createHash('sha256').update(bytes).digest('hex'),
    recordedAt: '2026-11-01T10:00:00Z',
  })}`;
const course = beginCourse(PROTOCOLS[0], anchorsFor(null, 'tenor'));
const singerBody = { name: 'Wren Abel', voiceType: 'mezzo' };
const item = {
  exerciseId: 'five-note-warm-up',
  part: 'warm-up',
  keys: [55],
  sound: 'vv',
  tempo: 72,
  minutes: 2,
  timesADay: 1,
  days: [0],
  reason: '',
  caution: '',
  rules: [],
  advance: '',
};
const pass = { startS: 0.5, endS: 3, direction: 'up', word: { name: 'flip', midi: 64 } };
const entries = {
  entries: [
    {
      id: randomUUID(),
      assignmentId: null,
      day: '2026-11-25',
      at: '2026-11-25T10:00:00Z',
      what: { kind: 'before', hoarse: false, ill: false, pain: false, tired: true },
    },
  ],
};
const settings = { name: 'The barge studio', school: 'classical', keepMonths: null };

type Rule = [who: Who, attempt: (things: Things) => Promise<Attempt> | Attempt];
const page = (path: string) => () => ({ path });
const ofSinger =
  (rest: string, body?: unknown): Rule[1] =>
  async (t) => ({ path: `/singers/${await t.singer()}${rest}`, body });
const apiOfSinger =
  (rest: string, body?: unknown): Rule[1] =>
  async (t) => ({ path: `/api/singers/${await t.singer()}${rest}`, body });
const ofTake =
  (rest: string, body?: unknown): Rule[1] =>
  async (t) => ({ path: `/api/takes/${await t.take()}${rest}`, body });
const put = (kind: Own): Rule => [
  'coach',
  async (t) => {
    const { id, body } = await t.own(kind);
    return { path: `/api/${kind}/${id}`, body };
  },
];
const remove = (kind: Own): Rule => ['coach', async (t) => ({ path: `/api/${kind}/${(await t.own(kind)).id}` })];

/** The rule of every way in. A new way without one fails the test below. */
const RULES: Record<string, Rule> = {
  'GET /': ['reader', page('/')],
  'GET /exercises': ['reader', page('/exercises')],
  'GET /lessons': ['reader', page('/lessons')],
  'GET /songs': ['reader', page('/songs')],
  'GET /songs/[songId]': ['reader', async (t) => ({ path: `/songs/${(await t.own('songs')).id}` })],
  'GET /singers/[singerId]/songs': ['reader', ofSinger('/songs')],
  'GET /singers/[singerId]/songs/[songId]': [
    'reader',
    async (t) => ({ path: `/singers/${await t.singer()}/songs/${(await t.own('songs')).id}` }),
  ],
  'GET /together': ['reader', page('/together')],
  'GET /straws': ['reader', page('/straws')],
  'GET /ears': ['reader', page('/ears')],
  'GET /post': ['coach', page('/post')],
  'GET /settings': ['reader', page('/settings')],
  'GET /settings/account': ['reader', page('/settings/account')],
  'GET /settings/coaches': ['owner', page('/settings/coaches')],
  'GET /settings/log': ['owner', page('/settings/log')],
  'GET /assignments/[assignmentId]': ['reader', async (t) => ({ path: `/assignments/${await t.assignment()}` })],
  'GET /singers/[singerId]/listen': ['reader', ofSinger('/listen')],
  'GET /singers/[singerId]/map': ['reader', ofSinger('/map')],
  'GET /singers/[singerId]/plan': ['reader', ofSinger('/plan')],
  'GET /singers/[singerId]/progress': ['reader', ofSinger('/progress')],
  'GET /singers/[singerId]/lessons/[lessonId]': [
    'reader',
    async (t) => {
      const singerId = await t.singer();
      return { path: `/singers/${singerId}/lessons/${await t.lesson(singerId)}` };
    },
  ],
  'GET /singers/[singerId]/takes/[takeId]': [
    'reader',
    async (t) => {
      const singerId = await t.singer();
      return { path: `/singers/${singerId}/takes/${await t.take(singerId)}` };
    },
  ],
  'GET /sign-in': ['anyone', page('/sign-in')],
  'GET /sign-up': ['anyone', page('/sign-up')],
  'GET /forgot': ['anyone', page('/forgot')],
  'GET /new-password': ['anyone', page('/new-password?token=x')],
  'GET /not-allowed': ['anyone', page('/not-allowed')],
  'GET /too-often': ['anyone', page('/too-often')],
  'GET /join/[token]': ['anyone', async (t) => ({ path: `/join/${(await t.invite()).token}` })],
  'GET /p/[token]': ['link', async (t) => ({ path: `/p/${(await t.link()).token}` })],
  // Names the page and holds nothing of the singer's: good for any token, so that an installed page whose link ended still opens.
  'GET /p/[token]/manifest.webmanifest': ['anyone', page('/p/any-token-of-all/manifest.webmanifest')],
  'POST /api/p/[token]/entries': ['link', async (t) => ({ path: `/api/p/${(await t.link()).token}/entries`, body: entries })],
  'PUT /api/p/[token]/takes/[takeId]': [
    'link',
    async (t) => {
      const { token, singerId } = await t.link();
      return { path: takePath(`/api/p/${token}/takes/${randomUUID()}`, singerId), body: wav };
    },
  ],
  'GET /api/health': ['anyone', page('/api/health')],
  // Nothing, for whoever has no token: not set here.
  'GET /api/metrics': ['anyone', page('/api/metrics')],
  'GET /api/changes': ['reader', page('/api/changes')],
  'POST /api/assignments': [
    'coach',
    async (t) => ({ path: '/api/assignments', body: { singerId: await t.singer(), note: '', startsOn: '2026-11-23', items: [item] } }),
  ],
  // To those who were heard; whoever wasn't, as here, is given nothing, in words.
  'POST /api/together': [
    'coach',
    async (t) => ({
      path: '/api/together',
      body: { singerIds: [await t.singer()], set: 'warm-up-3', note: '', startsOn: '2026-11-23', beside: true },
    }),
  ],
  'GET /api/assignments/[assignmentId]': ['reader', async (t) => ({ path: `/api/assignments/${await t.assignment()}` })],
  'PUT /api/exercises/[exerciseId]': put('exercises'),
  'DELETE /api/exercises/[exerciseId]': remove('exercises'),
  'PUT /api/protocols/[protocolId]': put('protocols'),
  'DELETE /api/protocols/[protocolId]': remove('protocols'),
  'PUT /api/songs/[songId]': put('songs'),
  'DELETE /api/songs/[songId]': remove('songs'),
  'GET /api/songs/[songId]/singers': ['reader', async (t) => ({ path: `/api/songs/${(await t.own('songs')).id}/singers` })],
  'PUT /api/singers/[singerId]/songs/[songId]': [
    'coach',
    async (t) => ({ path: `/api/singers/${await t.singer()}/songs/${(await t.own('songs')).id}`, body: { semitones: 2 } }),
  ],
  'DELETE /api/singers/[singerId]/songs/[songId]': [
    'coach',
    async (t) => ({ path: `/api/singers/${await t.singer()}/songs/${(await t.own('songs')).id}` }),
  ],
  'PUT /api/templates/[templateId]': put('templates'),
  'DELETE /api/templates/[templateId]': remove('templates'),
  'POST /api/lessons': [
    'coach',
    async (t) => ({ path: '/api/lessons', body: { id: randomUUID(), singerId: await t.singer(), name: 'Sirens', course } }),
  ],
  'PUT /api/lessons/[lessonId]': ['coach', async (t) => ({ path: `/api/lessons/${await t.lesson()}`, body: { note: 'seen' } })],
  'POST /api/singers': ['coach', () => ({ path: '/api/singers', body: singerBody })],
  'GET /api/singers/[singerId]': ['coach', apiOfSinger('')],
  'PUT /api/singers/[singerId]': ['coach', apiOfSinger('', { ...singerBody, part: 'changed' })],
  'PATCH /api/singers/[singerId]': ['coach', apiOfSinger('', { archived: true })],
  'DELETE /api/singers/[singerId]': ['coach', apiOfSinger('', { name: singerBody.name })],
  'GET /api/singers/[singerId]/export': ['coach', apiOfSinger('/export')],
  'GET /api/singers/[singerId]/crossings': ['reader', apiOfSinger('/crossings?midi=60')],
  'GET /api/singers/[singerId]/map': ['reader', apiOfSinger('/map?until=2026-11-25T00:00:00Z')],
  'PUT /api/singers/[singerId]/pins': ['coach', apiOfSinger('/pins', { what: 'speaking', midi: 50 })],
  'PUT /api/singers/[singerId]/plan': ['coach', apiOfSinger('/plan', { terms: { ...USUAL_TERMS, minutesADay: 11 } })],
  'GET /api/singers/[singerId]/takes': ['reader', apiOfSinger('/takes')],
  'POST /api/singers/[singerId]/link': ['coach', apiOfSinger('/link')],
  'DELETE /api/singers/[singerId]/link': ['coach', async (t) => ({ path: `/api/singers/${(await t.link()).singerId}/link` })],
  'PUT /api/takes/[takeId]': ['coach', async (t) => ({ path: takePath(`/api/takes/${randomUUID()}`, await t.singer()), body: wav })],
  'GET /api/takes/[takeId]': ['reader', ofTake('')],
  'PATCH /api/takes/[takeId]': ['coach', ofTake('', { note: 'seen' })],
  'DELETE /api/takes/[takeId]': ['coach', ofTake('')],
  'GET /api/takes/[takeId]/audio': ['reader', ofTake('/audio')],
  'PUT /api/takes/[takeId]/marks/[markId]': [
    'coach',
    (t) => ofTake(`/marks/${randomUUID()}`, { timeS: 1, midi: 60, direction: 'up', verdict: 'add' })(t),
  ],
  'DELETE /api/takes/[takeId]/marks/[markId]': ['coach', ofTake(`/marks/${randomUUID()}`)],
  'GET /api/ears/passes': ['coach', page('/api/ears/passes')],
  'PUT /api/ears/answers/[answerId]': [
    'coach',
    async (t) => {
      const takeId = await t.take();
      // What isn't heard by the machine yet can't be compared with it.
      await expect.poll(async () => (await (await owner.get(`/api/takes/${takeId}`)).json()).analysis !== null).toBe(true);
      return { path: `/api/ears/answers/${randomUUID()}`, body: { ...pass, takeId } };
    },
  ],
  'DELETE /api/ears/answers': ['coach', page('/api/ears/answers')],
  // One's own: somebody else's stays, whoever names it.
  'DELETE /api/ears/answers/[answerId]': ['coach', page(`/api/ears/answers/${randomUUID()}`)],
  'PUT /api/practice/[entryId]': ['coach', async (t) => ({ path: `/api/practice/${await t.line()}`, body: { answer: 'Yes, softer.' } })],
  'GET /api/practice/[entryId]/spoken': ['reader', async (t) => ({ path: `/api/practice/${await t.spoken()}/spoken` })],
  'DELETE /api/practice/[entryId]/spoken': ['coach', async (t) => ({ path: `/api/practice/${await t.spoken()}/spoken` })],
  'PUT /api/p/[token]/spoken/[entryId]': [
    'link',
    async (t) => ({ path: spokenPath((await t.link()).token, randomUUID()), body: modelWav }),
  ],
  'PUT /api/models/[modelId]': ['coach', async (t) => ({ path: (await t.model()).path, body: modelWav })],
  'GET /api/models/[modelId]': ['reader', async (t) => ({ path: `/api/models/${(await t.model()).id}` })],
  'DELETE /api/models/[modelId]': ['coach', async (t) => ({ path: `/api/models/${(await t.model()).id}` })],
  'GET /p/[token]/models/[modelId]': [
    'link',
    async (t) => {
      const { token, singerId } = await t.link();
      return { path: `/p/${token}/models/${(await t.model(singerId)).id}` };
    },
  ],
  'PUT /api/settings': ['owner', () => ({ path: '/api/settings', body: settings })],
  'POST /api/post': ['coach', page('/api/post')],
  'GET /api/bundle': ['owner', page('/api/bundle')],
  // An empty ZIP: who may bring one in is told what it lacks.
  'POST /api/bundle': ['owner', () => ({ path: '/api/bundle?dry', body: Buffer.from(`504b0506${'00'.repeat(18)}`, 'hex') })],
  'POST /api/door/sign-up': [
    'anyone',
    () => ({
      path: '/api/door/sign-up',
      body: { name: 'Ada', email: `${randomUUID()}@reed.example`, password: 'three words here', studio: 'Reed' },
    }),
  ],
  'POST /api/door/sign-in': ['anyone', () => ({ path: '/api/door/sign-in', body: { email: OTHER.email, password: OTHER.password } })],
  'POST /api/door/forgot': ['anyone', () => ({ path: '/api/door/forgot', body: { email: `${randomUUID()}@reed.example` } })],
  'POST /api/door/new-password': [
    'anyone',
    () => ({ path: '/api/door/new-password', body: { token: 'none', password: 'three words here' } }),
  ],
  'POST /api/door/join/[token]': [
    'anyone',
    async (t) => ({ path: `/api/door/join/${(await t.invite()).token}`, body: { name: 'Ada', password: 'three words here' } }),
  ],
  'POST /api/door/code': ['anyone', () => ({ path: '/api/door/code', body: { code: '000000' } })],
  'POST /api/door/sign-out': ['reader', page('/api/door/sign-out')],
  'PUT /api/account/password': [
    'reader',
    () => ({ path: '/api/account/password', body: { present: 'not this one', password: 'three words here' } }),
  ],
  'POST /api/account/second-factor': ['reader', () => ({ path: '/api/account/second-factor', body: { present: 'not this one' } })],
  'PUT /api/account/second-factor': ['reader', () => ({ path: '/api/account/second-factor', body: { code: '000000' } })],
  'DELETE /api/account/second-factor': ['reader', () => ({ path: '/api/account/second-factor', body: { present: 'not this one' } })],
  'DELETE /api/account/sessions/[sessionId]': ['reader', async (t) => ({ path: `/api/account/sessions/${await t.session()}` })],
  'PUT /api/members/[userId]': ['owner', async (t) => ({ path: `/api/members/${await t.member()}`, body: { role: 'coach' } })],
  'DELETE /api/members/[userId]': ['owner', async (t) => ({ path: `/api/members/${await t.member()}` })],
  'POST /api/invites': ['owner', () => ({ path: '/api/invites', body: { email: `${randomUUID()}@reed.example`, role: 'reader' } })],
  'DELETE /api/invites/[inviteId]': ['owner', async (t) => ({ path: `/api/invites/${(await t.invite()).id}` })],
};

/** Let in, and refused for a reason of its own: a wrong key or password, an empty file. */
const LET_IN_BUT: Record<string, number> = {
  'GET /api/metrics': 404,
  'POST /api/door/new-password': 400,
  'PUT /api/account/password': 400,
  'POST /api/door/code': 401,
  'POST /api/account/second-factor': 400,
  'PUT /api/account/second-factor': 400,
  'DELETE /api/account/second-factor': 400,
  'POST /api/bundle': 422,
  'POST /api/together': 409,
};

const OTHER = { name: 'Ada Reed', email: 'ada@reed.example', password: 'three words here', studio: 'Reed' };
const RANK = ['reader', 'coach', 'owner'] as const;
type Role = (typeof RANK)[number];

let db: Client;
let baseURL: string;
let owner: APIRequestContext;
let other: APIRequestContext;
let nobody: APIRequestContext;
let studioId: string;
let otherStudio: string;
const member = {} as Record<Role, APIRequestContext>;

// Tries are counted by sender; many coaches at one machine would be one.
let senders = 0;
const context = (storageState: string | typeof NOBODY = NOBODY) =>
  request.newContext({
    baseURL,
    storageState,
    maxRedirects: 0,
    extraHTTPHeaders: { 'x-forwarded-for': `10.${process.pid % 250}.${Date.now() % 250}.${senders++ % 250}` },
  });
async function ok<T>(answer: APIResponse): Promise<T> {
  expect([answer.url(), answer.status(), answer.ok() ? '' : await answer.text()]).toEqual([answer.url(), 200, '']);
  return (await answer.json()) as T;
}

/** A new coach of the demo's studio, signed in. */
async function newMember(role: Role): Promise<APIRequestContext> {
  const made = await ok<{ address: string }>(await owner.post('/api/invites', { data: { email: `${randomUUID()}@barge.example`, role } }));
  const them = await context();
  await ok(
    await them.post(`/api/door/join/${made.address.split('/join/')[1]}`, { data: { name: `A ${role}`, password: 'three words here' } }),
  );
  return them;
}

test.beforeAll(async () => {
  baseURL = BASE_URL;
  db = new Client({ connectionString: databaseUrls(COPY.data).ownerUrl });
  await db.connect();
  owner = await context(SIGNED_IN);
  nobody = await context();
  other = await context();
  if ((await other.post('/api/door/sign-in', { data: OTHER })).status() !== 200)
    await ok(await other.post('/api/door/sign-up', { data: OTHER }));
  for (const role of RANK) member[role] = await newMember(role);
  const studios = await db.query('select m.studio_id, c.email from member m join coach c on c.id = m.user_id');
  otherStudio = studios.rows.find((r) => r.email === OTHER.email).studio_id;
  studioId = (await db.query('select studio_id from singer order by created_at limit 1')).rows[0].studio_id;
});
test.afterAll(async () => {
  // The rooms are left as they were.
  await db.query("delete from invite where email like '%@reed.example' or email ~ '^[0-9a-f-]{36}@'");
  await db.query("delete from message where recipient like '%reed.example%' or recipient like '%barge.example%'");
  for (const named of ['protocol where name', 'template where name', "exercise where exercise->>'name'", "song where song->>'title'"])
    await db.query(`delete from ${named} in ('Our own', 'Changed')`);
  await db.query('delete from singer where name = $1', [singerBody.name]);
  await db.query("delete from studio where name = 'Reed'");
  await db.query("delete from coach where email like '%@reed.example' or (email like '%@barge.example' and name like 'A %')");
  await db.end();
});

const things = (tries: () => Promise<APIRequestContext>): Things => {
  const singer = async () => (await ok<{ id: string }>(await owner.post('/api/singers', { data: singerBody }))).id;
  const link = async () => {
    const singerId = await singer();
    const { address } = await ok<{ address: string }>(await owner.post(`/api/singers/${singerId}/link`));
    return { token: address.split('/p/')[1], singerId };
  };
  return {
    singer,
    link,
    take: async (singerId) => {
      const id = randomUUID();
      await ok(await owner.put(takePath(`/api/takes/${id}`, singerId ?? (await singer())), { data: wav }));
      return id;
    },
    lesson: async (singerId) => {
      const id = randomUUID();
      await ok(await owner.post('/api/lessons', { data: { id, singerId: singerId ?? (await singer()), name: 'Sirens', course } }));
      return id;
    },
    assignment: async () =>
      (
        await ok<{ id: string }>(
          await owner.post('/api/assignments', { data: { singerId: await singer(), note: '', startsOn: '2026-11-23', items: [item] } }),
        )
      ).id,
    own: async (kind) => {
      const id = randomUUID();
      const body = {
        protocols: { ...PROTOCOLS[1], name: 'Our own' },
        exercises: { ...exerciseById('five-note-warm-up'), name: 'Our own' },
        templates: { name: 'Our own', items: [item] },
        songs: { name: 'Our own', song: { ...DEMO_SONGS[0], title: 'Our own' } },
      }[kind];
      await ok(await owner.put(`/api/${kind}/${id}`, { data: body }));
      return { id, body: { ...body, name: 'Changed', ...('song' in body ? { song: { ...DEMO_SONGS[0], title: 'Changed' } } : {}) } };
    },
    invite: async () => {
      const email = `${randomUUID()}@reed.example`;
      const { address } = await ok<{ address: string }>(await owner.post('/api/invites', { data: { email, role: 'reader' } }));
      const { rows } = await db.query('select id from invite where email = $1', [email]);
      return { id: rows[0].id, token: address.split('/join/')[1] };
    },
    model: async (singerId) => {
      const id = randomUUID();
      const path = `/api/models/${id}?exerciseId=long-siren&manner=like-this&singerId=${singerId ?? (await singer())}`;
      await ok(await owner.put(path, { data: modelWav }));
      return { id, path };
    },
    spoken: async () => {
      const id = randomUUID();
      await ok(await nobody.put(spokenPath((await link()).token, id), { data: modelWav }));
      return id;
    },
    line: async () => {
      const { token } = await link();
      const [line] = entries.entries;
      const id = randomUUID();
      await ok(await nobody.post(`/api/p/${token}/entries`, { data: { entries: [{ ...line, id }] } }));
      return id;
    },
    member: async () => {
      const them = await newMember('reader');
      return idOf(them);
    },
    session: async () => {
      const { rows } = await db.query('select id from session where user_id = $1 order by created_at desc limit 1', [
        await idOf(await tries()),
      ]);
      return rows[0].id;
    },
  };
};

/** Whose session a context holds. */
async function idOf(them: APIRequestContext): Promise<string> {
  const cookie = (await them.storageState()).cookies.find((c) => c.name === 'wendel.session_token')!;
  const { rows } = await db.query('select user_id from session where token = $1', [decodeURIComponent(cookie.value).split('.')[0]]);
  return rows[0].user_id;
}

/** Messages that are written with what is asked for; others (of a place, a password) are written once it was answered, at any time after. */
const SAID_AT_ONCE = " and subject in ('Your practice page', 'A place in a voice studio')";

/** What a studio holds, as one hash: all that people entered and who may come in; not what the machine works out or notes. */
async function contents(studio: string): Promise<string> {
  const tables = [
    'studio',
    'singer',
    'lesson',
    'model',
    'protocol',
    'exercise',
    'template',
    'song',
    'repertoire',
    'pin',
    'take',
    'mark',
    'assignment',
    'practice',
    'message',
    'member',
    'invite',
  ];
  const parts = await db.query(
    tables
      .map(
        (t) =>
          `select '${t}' as t, md5(coalesce(string_agg(md5((to_jsonb(x) - 'evidence' - 'axis')::text), '' order by to_jsonb(x)::text), '')) as h from ${t} x where ${t === 'studio' ? 'id' : 'studio_id'} = $1${t === 'message' ? SAID_AT_ONCE : ''}`,
      )
      .join(' union all '),
    [studio],
  );
  return JSON.stringify(parts.rows);
}

/** A cookie that says it is a session's. */
const sessionCookie = (value: string) => ({
  name: 'wendel.session_token',
  value,
  domain: new URL(baseURL).hostname,
  path: '/',
  expires: -1,
  httpOnly: true,
  secure: false,
  sameSite: 'Lax' as const,
});

/** How a stream that never ends begins to answer. */
async function beginningOf(them: APIRequestContext, path: string): Promise<APIResponse> {
  const { cookies } = await them.storageState();
  const gone = new AbortController();
  const { status, headers } = await fetch(baseURL + path, {
    headers: { cookie: cookies.map((c) => `${c.name}=${c.value}`).join('; ') },
    signal: gone.signal,
  });
  gone.abort();
  return { status: () => status, ok: () => false, headers: () => Object.fromEntries(headers) } as APIResponse;
}

async function tryAt(them: APIRequestContext, way: string, attempt: Attempt): Promise<APIResponse> {
  if (way === 'GET /api/changes') return beginningOf(them, attempt.path);
  const method = way.split(' ')[0];
  // A connection kept from an earlier test may be closed by the server at the very moment it is used again.
  return them.fetch(attempt.path, { method, maxRetries: 1, ...(attempt.body === undefined ? {} : { data: attempt.body }) });
}

test('every way into the application has a rule, and every rule a way', () => {
  expect(Object.keys(RULES).sort()).toEqual(allWays());
});

/** The status of being let in, or kept out, for a page or an API. */
const isPage = (way: string) => way.startsWith('GET /') && !way.startsWith('GET /api/') && !way.startsWith('GET /p/');
const leadsTo = (answer: APIResponse) => new URL(answer.headers().location ?? '', baseURL).pathname;

for (const way of Object.keys(RULES)) {
  const [who, attempt] = RULES[way];
  test(`${way}: ${who}`, async () => {
    const inside = who === 'reader' || who === 'coach' || who === 'owner';
    const letIn = (answer: APIResponse) => expect([way, answer.status()]).toEqual([way, LET_IN_BUT[way] ?? 200]);
    /** Kept out, and nothing of the studio is changed by it. */
    const keptOut = async (them: APIRequestContext, trial: Attempt, statuses: number[], door: string) => {
      const before = await contents(studioId);
      const answer = await tryAt(them, way, trial);
      if (isPage(way) && answer.status() === 307) expect(leadsTo(answer)).toBe(door);
      else expect([way, statuses.includes(answer.status()) ? 'kept out' : answer.status()]).toEqual([way, 'kept out']);
      expect(await contents(studioId)).toBe(before);
    };
    const by = (them: () => Promise<APIRequestContext>) => attempt(things(them));

    if (who === 'anyone') {
      // Some of these sign in: whoever tries is nobody else's nobody.
      const anyone = await context();
      letIn(await tryAt(anyone, way, await by(async () => anyone)));
      return anyone.dispose();
    }

    if (who === 'link') {
      const open = await by(async () => nobody);
      letIn(await tryAt(nobody, way, open));
      // A link that has ended, one that never was, and no link at all in spite of a coach's account.
      const ended = await by(async () => nobody);
      const token = /\/p\/([^/?]+)/.exec(ended.path)![1];
      const { rows } = await db.query('update link set revoked_at = now() where token_hash = $1 returning singer_id', [
        createHash('sha256').update(token).digest('hex'),
      ]);
      expect(rows).toHaveLength(1);
      await keptOut(nobody, ended, [404], '');
      await keptOut(nobody, { ...ended, path: ended.path.replace(token, 'x'.repeat(43)) }, [404], '');
      await keptOut(owner, ended, [404], '');
      return;
    }

    // Nobody, whatever they hold: a singer's link opens nothing of the studio.
    await keptOut(nobody, await by(async () => owner), [401], '/sign-in');
    const { token } = await things(async () => owner).link();
    const singer = await request.newContext({ baseURL, maxRedirects: 0, storageState: { cookies: [sessionCookie(token)], origins: [] } });
    await keptOut(singer, await by(async () => owner), [401], '/sign-in');
    await singer.dispose();

    // Another studio's owner: what belongs to none is their own to see and change; what is ours is not there for them.
    const theirs = await by(async () => owner);
    const before = await contents(studioId);
    const answer = await tryAt(other, way, theirs);
    const namesOurs = /\[/.test(way) || ['POST /api/assignments', 'POST /api/together', 'POST /api/lessons'].includes(way);
    if (namesOurs && !/^DELETE .*\/(protocols|exercises|templates|songs|models|answers)\//.test(way))
      expect([way, [404, 409].includes(answer.status())]).toEqual([way, true]);
    expect(await contents(studioId)).toBe(before);
    if (answer.ok() && way !== 'POST /api/door/sign-out') expect(await answer.text()).not.toContain('Lio Fenn');
    if (way === 'POST /api/door/sign-out') await ok(await other.post('/api/door/sign-in', { data: OTHER }));

    for (const role of RANK) {
      const them = way === 'POST /api/door/sign-out' || way.includes('/sessions/') ? await newMember(role) : member[role];
      const trial = await by(async () => them);
      if (RANK.indexOf(role) < RANK.indexOf(who)) await keptOut(them, trial, [403], '/not-allowed');
      else if (way === 'DELETE /api/singers/[singerId]' || inside) letIn(await tryAt(them, way, trial));
    }
  });
}

test('one singer’s link does not reach another singer', async () => {
  const make = things(async () => owner);
  const [mine, theirs] = [await make.link(), await make.link()];
  const assignment = await make.assignment();
  const id = randomUUID();
  // A recording said to be another singer's is kept as the holder's own.
  await ok(await nobody.put(takePath(`/api/p/${mine.token}/takes/${id}`, theirs.singerId), { data: wav }));
  expect((await db.query('select singer_id from take where id = $1', [id])).rows).toEqual([{ singer_id: mine.singerId }]);
  // A line for another singer's week is kept without the week.
  const line = { ...entries.entries[0], id: randomUUID(), assignmentId: assignment };
  await ok(await nobody.post(`/api/p/${mine.token}/entries`, { data: { entries: [line] } }));
  expect((await db.query('select singer_id, assignment_id from practice where id = $1', [line.id])).rows).toEqual([
    { singer_id: mine.singerId, assignment_id: null },
  ]);
  // An id that is another's already is taken, and theirs stays as it is.
  const taken = await make.take();
  const before = (await db.query('select t::text as row from take t where id = $1', [taken])).rows;
  const longer = Buffer.concat([wav, Buffer.from([0, 0])]);
  const answer = await nobody.put(takePath(`/api/p/${mine.token}/takes/${taken}`, mine.singerId, longer), { data: longer });
  expect(answer.ok()).toBe(false);
  expect((await db.query('select t::text as row from take t where id = $1', [taken])).rows).toEqual(before);
});

test('a way that changes something is refused when another site’s page asks for it', async () => {
  for (const way of Object.keys(RULES).filter((w) => !w.startsWith('GET'))) {
    const attempt = await RULES[way][1](things(async () => owner));
    const before = await contents(studioId);
    const elsewhere = { method: way.split(' ')[0], ...(attempt.body === undefined ? {} : { data: attempt.body }) };
    const sites: Record<string, string>[] = [
      { 'sec-fetch-site': 'cross-site' },
      { 'sec-fetch-site': 'same-site' },
      { origin: 'https://elsewhere.example' },
    ];
    for (const headers of sites) expect([way, (await owner.fetch(attempt.path, { ...elsewhere, headers })).status()]).toEqual([way, 403]);
    expect(await contents(studioId)).toBe(before);
  }
});

test('a reader is offered nothing that would be refused', async ({ browser }) => {
  const { rows } = await db.query(
    "select s.id as singer, t.id as take from singer s join take t on t.singer_id = s.id where s.name = 'Lio Fenn' order by t.recorded_at limit 1",
  );
  const [{ singer, take }] = rows;
  const offers = /^(Add a singer|About |Pin$|Right|I hear it|Assign|Write (one|a song)|Make a variant)/;
  const paths = ['/', `/singers/${singer}/map`, `/singers/${singer}/takes/${take}`, `/singers/${singer}/plan`, '/exercises'];
  for (const role of ['owner', 'reader'] as const) {
    const page = await browser.newPage({ baseURL, storageState: await member[role].storageState() });
    for (const path of paths) {
      await page.goto(path);
      await expect(page.getByRole('main')).toBeVisible();
      // The map keeps its pins folded away.
      const pins = page.getByText('Pinned by you');
      if (await pins.isVisible()) await pins.click();
      const seen = await page.getByRole('button', { name: offers }).count();
      expect([role, path, seen > 0]).toEqual([role, path, role === 'owner']);
    }
    await page.close();
  }
});

test('a studio made here sees nothing of another', async () => {
  expect(otherStudio).not.toBe(studioId);
  const seen = await (await other.get('/')).text();
  expect(seen).not.toContain('Lio Fenn');
});
