import { Id, newId } from '../core/format/id';
import { randomUUID } from 'node:crypto';
import { Client } from 'pg';
import { HeardInput } from '../contract/inputs';
import { inEnglish } from '../core/format/say';
import { AskedPass, PassWord } from '../core/ears/passes';
import { ENGINE } from '../core/engine';
import { sing } from '../core/sim/sing';
import { typicalProfile } from '../core/sim/typical';
import { analyseTake } from '../core/take/analyse';
import type { TakeFindings } from '../core/take/types';
import { inStudio, pool } from '../data/client';
import { doorPool, Member } from '../data/door';
import { studioSettings } from '../data/studios';
import { heardBlind } from '../data/ears';
import { wendelIn } from '../studio/context';
import * as ears from '../studio/ears';
import { poolOne } from '../studio/pooling';
import * as singers from '../studio/singers';
import * as takes from '../studio/takes';
import { entered } from './made-entry';

const addSinger = entered(singers.addSinger);
const viewSinger = entered(singers.viewSinger);
const discardTake = entered(takes.discardTake);
const passesToHear = entered(ears.passesToHear);
const viewEars = entered(ears.viewEars);
const takeBackHeard = entered(ears.takeBackHeard);
const sayHeard = entered(ears.sayHeard);

let mockMember: Member | null = null;
jest.mock('./session', () => ({
  presentMember: async () => mockMember,
  senderAddress: async () => 'test',
  afterAnswer: (work: () => Promise<unknown>) => void work(),
}));

const owner = new Client({ connectionString: process.env.WENDEL_OWNER_URL });
const as = (userId: string, role: Member['role'] = 'coach') => (mockMember = { ...mockMember!, userId, name: userId, role });
/** Six takes of a tenor who flips, two ways each. */
const findings = Array.from(
  { length: 6 },
  (_, i): TakeFindings =>
    analyseTake(
      sing(typicalProfile('tenor', 'flip'), { kind: 'siren', sirens: 1, legS: 2.5 }, { seed: i + 1, sampleRate: 22050, snrDb: 50 }).pcm,
      'siren',
    ).findings,
);
let studioId: Id<'studio'>;
let singerId: Id<'singer'>;
const takeIds = findings.map(() => newId('take'));

beforeAll(async () => {
  await owner.connect();
  studioId = (await owner.query('select id from studio order by created_at limit 1')).rows[0].id;
  mockMember = { userId: 'marit', name: 'Marit', email: 'marit@example.com', studioId, role: 'owner' };
  singerId = await addSinger({ name: 'Bram Weir', part: '', voiceType: 'tenor', note: '', email: null, intake: null, school: null });
  for (const [i, takeId] of takeIds.entries()) {
    await owner.query(
      `insert into take (id, studio_id, singer_id, task, vowel, source, sha256, bytes, duration_s, sample_rate, recorded_at)
       values ($1, $2, $3, 'siren', 'ah', 'file', $4, 1, 6, 22050, now() - make_interval(days => $5))`,
      [takeId, studioId, singerId, takeId.replaceAll('-', '').repeat(2), i],
    );
    await owner.query('insert into analysis (studio_id, take_id, engine, findings) values ($1, $2, $3, $4)', [
      studioId,
      takeId,
      ENGINE,
      JSON.stringify(findings[i]),
    ]);
  }
  while (await wendelIn(studioId)(poolOne));
});
afterAll(async () => {
  await owner.query('delete from singer where id = $1', [singerId]);
  await owner.end();
  await pool().end();
  await doorPool().end();
});
beforeEach(() => owner.query('delete from ear_answer'));

const say = ({ takeId, startS, endS, direction }: AskedPass, word: PassWord) =>
  sayHeard(HeardInput.parse({ id: randomUUID(), takeId, startS, endS, direction, word }));
const NOTHING: PassWord = { name: 'none', midi: null };
const passOf = (i: number, leg: number): AskedPass => {
  const { startS, endS, direction, lowestMidi, highestMidi } = findings[i].legs[leg];
  return { takeId: takeIds[i], startS, endS, direction, lowestMidi, highestMidi };
};
const heardBlindHere = () => inStudio(studioId, heardBlind);
const changeOnMap = async () => (await viewSinger(singerId)).map.passaggi.find((p) => p.name === 'flip')!;

test('a pass is asked of each take once, without a word of who sings it or what the machine hears', async () => {
  as('ada');
  const asked = (await passesToHear()).filter(({ takeId }) => takeIds.some((id) => id === takeId));
  expect(new Set(asked.map((pass) => pass.takeId)).size).toBe(asked.length);
  expect(asked.length).toBeGreaterThan(0);
  for (const pass of asked)
    expect(Object.keys(pass).sort()).toEqual(['direction', 'endS', 'highestMidi', 'lowestMidi', 'startS', 'takeId']);
  await say(asked[0], NOTHING);
  const again = await Promise.all([1, 2, 3].map(() => passesToHear()));
  for (const pass of again.flat()) expect([pass.takeId, pass.startS]).not.toEqual([asked[0].takeId, asked[0].startS]);
});

test('who answers is told what the machine and other coaches hear; each ear is compared by itself', async () => {
  as('ada');
  const first = await say(passOf(0, 0), { name: 'flip', midi: 65 });
  expect(first).toMatchObject({ machine: { name: 'flip' }, others: [], ears: { others: null, machine: { names: { n: 1, share: 1 } } } });
  as('bo');
  expect(await viewEars()).toEqual({ machine: null, others: null, self: null, byName: {}, bySchool: [] });
  const second = await say(passOf(0, 0), { name: 'toggle', midi: 66 });
  expect(second.others).toEqual([{ name: 'flip', midi: 65 }]);
  expect(second.ears.others).toMatchObject({ names: { n: 1, share: 0 }, placed: { n: 1, apartSt: 1 } });
  expect(second.ears.byName).toEqual({ flip: { asked: 1, there: 1, alike: 0 } });
});

test('ears are compared apart by the school the singer is taught by: their own, else the studio’s', async () => {
  as('ada');
  await say(passOf(0, 0), NOTHING);
  const schools = async () => (await viewEars()).bySchool.map(({ school, machine }) => [school, machine.names.n]);
  expect(await schools()).toEqual([[(await inStudio(studioId, studioSettings)).school, 1]]);
  await owner.query("update singer set school = 'bridges' where id = $1", [singerId]);
  expect(await schools()).toEqual([['bridges', 1]]);
  await owner.query('update singer set school = null where id = $1', [singerId]);
});

test('an answer sent twice is one; of a take that is gone, or not heard yet, it is refused with what to do', async () => {
  as('ada');
  const { takeId, startS, endS, direction } = passOf(0, 0);
  const sent = HeardInput.parse({ id: randomUUID(), takeId, startS, endS, direction, word: NOTHING });
  await sayHeard(sent);
  expect((await sayHeard(sent)).ears.machine!.names.n).toBe(1);
  await expect(sayHeard({ ...sent, id: newId('answer'), takeId: newId('take') })).rejects.toThrow(/go on with the next/);
  expect(HeardInput.safeParse({ ...sent, word: { name: 'yodel', midi: 60 } }).success).toBe(false);
  as('reeve', 'reader');
  await expect(sayHeard({ ...sent, id: newId('answer') })).rejects.toThrow();
  expect(await heardBlindHere()).toHaveLength(1);
});

test('changes that coaches, asked blind, do not hear weigh less on the map and in the plan’s reasons, and it is said', async () => {
  as('ada');
  const before = await changeOnMap();
  for (let i = 0; i < 6; i++) for (const leg of [0, 1]) await say(passOf(i, leg), NOTHING);
  const after = await changeOnMap();
  expect(after.confidence).toBeCloseTo(before.confidence * (10 / 22), 6);
  const said = (await viewSinger(singerId)).map.findings.find((f) => f.name === 'flip')!;
  expect(inEnglish(said.because)).toMatch(/^Around .* Heard blind, you found 0 of 12 such changes\.$/);
  await owner.query("update ear_answer set name = 'flip'");
  expect(await changeOnMap()).toEqual(before);
});

test('heard anew, the machine’s word on what was answered is in step; a take that is discarded takes the answers along', async () => {
  as('ada');
  await say(passOf(5, 0), { name: 'flip', midi: 65 });
  const silent = { ...findings[5], events: [], legs: findings[5].legs.map((leg) => ({ ...leg, crossOvers: [] })) };
  await owner.query('update analysis set findings = $2 where take_id = $1', [takeIds[5], JSON.stringify(silent)]);
  while (await wendelIn(studioId)(poolOne));
  expect((await heardBlindHere())[0].machine.name).not.toBe('flip');
  as('marit', 'owner');
  await discardTake(takeIds[5]);
  expect(await heardBlindHere()).toEqual([]);
});

test('a coach takes back their own words, one or all, and nobody else’s', async () => {
  as('ada');
  await say(passOf(0, 0), NOTHING);
  await say(passOf(1, 0), NOTHING);
  as('bo');
  await say(passOf(2, 0), NOTHING);
  const { id } = (await owner.query("select id from ear_answer where coach_id = 'ada' limit 1")).rows[0];
  expect((await takeBackHeard(id)).machine!.names.n).toBe(1);
  expect(await heardBlindHere()).toHaveLength(3);
  as('ada');
  expect((await takeBackHeard(id)).machine!.names.n).toBe(1);
  expect((await takeBackHeard(undefined)).machine).toBeNull();
  expect((await heardBlindHere()).map((s) => s.coachId)).toEqual(['bo']);
});

test('another studio sees none of it', async () => {
  as('ada');
  await say(passOf(0, 0), NOTHING);
  const { id } = (await owner.query("insert into studio (name) values ('Reed') returning id")).rows[0];
  try {
    expect(await inStudio(id, heardBlind)).toEqual([]);
    expect(await heardBlindHere()).toHaveLength(1);
  } finally {
    await owner.query('delete from studio where id = $1', [id]);
  }
});
