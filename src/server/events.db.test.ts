import type { Id } from '../core/format/id';
import { randomUUID } from 'node:crypto';
import { Client } from 'pg';
import type { Change } from '../contract/answers';
import { inStudio, pool } from '../data/client';
import { doorPool, Member } from '../data/door';
import { onChange, stopListening } from '../data/events';
import { insertSinger } from '../data/singers';
import { addPractice } from '../data/practice';
import { changesOfStudio } from './events';

let mockMember: Member | null = null;
jest.mock('./session', () => ({ presentMember: async () => mockMember }));

const owner = new Client({ connectionString: process.env.WENDEL_OWNER_URL });
/** Who may end others' connections. */
const admin = new Client({ connectionString: process.env.WENDEL_ADMIN_URL });
let ours: Id<'studio'>;
let theirs: Id<'studio'>;
let singerId: Id<'singer'>;

beforeAll(async () => {
  await owner.connect();
  await admin.connect();
  // Studios of its own: other tests may be at work in the first.
  [ours, theirs] = (await owner.query("insert into studio (name) values ('Ours'), ('Another') returning id")).rows.map(({ id }) => id);
  const fields = { part: '', voiceType: 'tenor' as const, note: '', email: null, intake: null, school: null };
  singerId = await inStudio(ours, (tx) => insertSinger(tx, { name: 'Odo Lark', ...fields }));
  mockMember = { userId: 'marit', name: 'Marit', email: 'marit@example.com', studioId: ours, role: 'reader' };
});
afterAll(async () => {
  // The log of a studio is written to its last singer's end.
  await owner.query('delete from singer where id = $1', [singerId]);
  await owner.query('delete from studio where id = any($1)', [[ours, theirs]]);
  await stopListening();
  await owner.end();
  await admin.end();
  await pool().end();
  await doorPool().end();
});

const practise = (fail = false) =>
  inStudio(ours, async (tx) => {
    const what = { kind: 'before' as const, hoarse: false, ill: false, pain: false, tired: false };
    await addPractice(tx, singerId, [{ id: randomUUID(), assignmentId: null, day: '2026-11-25', at: '2026-11-25T08:00:00Z', what }]);
    if (fail) throw new Error('not this time');
  });

/** Changes as they are told, until `stop`. */
function listening(studioId: Id<'studio'>): { told: Change[]; stop(): void } {
  const told: Change[] = [];
  return { told, stop: onChange(studioId, (change) => told.push(change)) };
}
const until = async (true_: () => boolean) => {
  for (let i = 0; i < 500 && !true_(); i++) await new Promise((resolve) => setTimeout(resolve, 10));
  expect(true_()).toBe(true);
};
const TOLD = () => ({ what: 'practised', id: singerId });

test('what is stored is told to its own studio, and what failed to nobody', async () => {
  const [here, there] = [listening(ours), listening(theirs)];
  // The first listener opens the connection.
  await until(() => (void practise(), here.told.length > 0));
  await expect(practise(true)).rejects.toThrow('not this time');
  await new Promise((resolve) => setTimeout(resolve, 200));
  const before = here.told.length;
  await practise();
  await until(() => here.told.length > before);
  expect(here.told).toEqual(here.told.map(TOLD));
  expect(there.told).toEqual([]);
  here.stop();
  await practise();
  expect(here.told).toHaveLength(before + 1);
  there.stop();
});

test('a listener hears on after the database let its connection go', async () => {
  const { told, stop } = listening(ours);
  await until(() => (void practise(), told.length > 0));
  const { rows } = await admin.query(
    "select pg_terminate_backend(pid) as gone from pg_stat_activity where query like 'listen wendel_changes%'",
  );
  expect(rows).toEqual([{ gone: true }]);
  const before = told.length;
  await until(() => (void practise(), told.length > before + 1));
  stop();
});

test('a page is told as server-sent events; who goes makes room, and one too many is refused', async () => {
  const streams = await Promise.all(Array.from({ length: 8 }, () => changesOfStudio()));
  await expect(changesOfStudio()).rejects.toMatchObject({ code: 'too-often' });
  const [{ headers, body }, ...others] = streams;
  expect(headers.get('content-type')).toBe('text/event-stream');
  const reader = body!.getReader();
  const next = async () => new TextDecoder().decode((await reader.read()).value);
  expect(await next()).toMatch(/^retry: \d+\n\n$/);
  await practise();
  expect(await next()).toBe(`data: ${JSON.stringify(TOLD())}\n\n`);
  await reader.cancel();
  const again = await changesOfStudio();
  await Promise.all([again, ...others].map((stream) => stream.body!.cancel()));
  expect(process.listenerCount('SIGTERM')).toBeLessThan(3);
});

test('a connection that breaks in the middle of a transaction fails the transaction, not the process', async () => {
  // Jest fails where an error is emitted that nobody hears.
  const broken = inStudio(ours, async (tx) => {
    const { rows } = await tx.execute('select pg_backend_pid() as pid');
    const { rows: ended } = await admin.query('select pg_terminate_backend($1) as gone', [(rows as { pid: number }[])[0].pid]);
    expect(ended).toEqual([{ gone: true }]);
    // Nothing is asked while it breaks.
    await new Promise((resolve) => setTimeout(resolve, 200));
    await tx.execute('select 1');
  });
  await expect(broken).rejects.toThrow(/terminat|not queryable|closed/i);
  await practise();
});
