import { drizzle } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Client } from 'pg';

const FOLDER = 'src/data/migrations';
const journal = JSON.parse(readFileSync(join(FOLDER, 'meta/_journal.json'), 'utf8'));
const id = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const hash = 'a'.repeat(64);
const day = '2026-03-04';
const at = '2026-03-04T10:00:00+00:00';

/** A row of every table, each after those it points at; a version knows some of the columns. */
const ROWS: Record<string, Record<string, unknown>> = {
  studio: { id: id(1), name: 'Reed', school: 'bridges', keep_months: 6 },
  singer: {
    id: id(2),
    studio_id: id(1),
    name: 'Wren',
    part: 'Heron',
    voice_type: 'tenor',
    note: 'n',
    intake: { health: 'h' },
    evidence: 3,
  },
  lesson: { id: id(3), studio_id: id(1), singer_id: id(2), name: 'Sirens', course: { at: 1 }, note: 'l', ended_at: at },
  protocol: { id: id(4), studio_id: id(1), name: 'Own', purpose: 'p', asks_health: false, steps: [] },
  exercise: { id: id(5), studio_id: id(1), exercise: { name: 'Own' } },
  template: { id: id(6), studio_id: id(1), name: 'Set', items: [] },
  song: { id: id(30), studio_id: id(1), song: { title: 'Own' }, note: 'n' },
  repertoire: { studio_id: id(1), singer_id: id(2), song_id: id(30), chosen: { semitones: 2 } },
  pin: { studio_id: id(1), singer_id: id(2), what: 'speaking', midi: 50 },
  voice_map: { studio_id: id(1), singer_id: id(2), engine: 'e', evidence: 3, map: {}, summary: {} },
  take: {
    id: id(7),
    studio_id: id(1),
    singer_id: id(2),
    task: 'siren',
    vowel: 'ah',
    colour: 'chest',
    source: 'file',
    sha256: hash,
    bytes: 3,
    duration_s: 1,
    sample_rate: 44100,
    lesson_id: id(3),
    step: 's',
    asked: {},
    note: 't',
    recorded_at: at,
  },
  take_audio: { studio_id: id(1), take_id: id(7), part: 0, bytes: '\\x010203', stored_as: 'k' },
  sound_to_delete: { studio_id: id(1), key: 'k', gone_at: at },
  analysis: { studio_id: id(1), take_id: id(7), engine: 'e', findings: { a: 1 }, trace: {} },
  mark: { id: id(8), studio_id: id(1), take_id: id(7), time_s: 1, midi: 60, direction: 'up', verdict: 'add', by: 'singer' },
  ear_answer: {
    id: id(32),
    studio_id: id(1),
    take_id: id(7),
    coach_id: 'c',
    start_s: 1,
    end_s: 4,
    direction: 'up',
    name: 'flip',
    midi: 60,
    machine_name: 'none',
  },
  model: { id: id(31), studio_id: id(1), singer_id: id(2), exercise_id: 'e', manner: 'like-this', wav: '\\x010203' },
  spoken_word: { id: id(33), studio_id: id(1), singer_id: id(2), wav: '\\x010203' },
  song_take: { take_id: id(7), studio_id: id(1), song_id: id(30), semitones: 2, predicted: [] },
  assignment: { id: id(9), studio_id: id(1), singer_id: id(2), note: 'a', items: [], starts_on: day, stand: { phase: 'p' } },
  link: { id: id(10), studio_id: id(1), singer_id: id(2), token_hash: hash, expires_at: at },
  message: {
    id: id(11),
    studio_id: id(1),
    singer_id: id(2),
    recipient: 'r',
    address: 'r@reed.example',
    subject: 's',
    body: 'b',
    for_owners: true,
  },
  practice: { id: id(12), studio_id: id(1), singer_id: id(2), assignment_id: id(9), day, at, what: { kind: 'before' } },
  coach: { id: 'c', name: 'Ada', email: 'ada@reed.example' },
  session: { id: 's', user_id: 'c', token: 't', expires_at: at },
  credential: { id: 'k', user_id: 'c', account_id: 'c', provider_id: 'credential', password: 'p' },
  verification: { id: 'v', identifier: 'i', value: 'c', expires_at: at },
  tries: { key: 'k', points: 1, expire: 1 },
  two_factor: { id: 'f', user_id: 'c', secret: 's', backup_codes: 'b' },
  member: { user_id: 'c', studio_id: id(1), role: 'owner' },
  invite: { id: id(13), studio_id: id(1), email: 'b@reed.example', role: 'coach', token_hash: hash, expires_at: at },
};

/** The migrations up to a version, in a folder of their own. */
function upTo(version: number): string {
  const folder = mkdtempSync(join(tmpdir(), 'wendel-migrations-'));
  cpSync(FOLDER, folder, { recursive: true });
  writeFileSync(join(folder, 'meta/_journal.json'), JSON.stringify({ ...journal, entries: journal.entries.slice(0, version) }));
  return folder;
}

/** Work in an empty database of the owner's. */
async function inDatabase(name: string, work: (db: Client) => Promise<void>): Promise<void> {
  const admin = new Client({ connectionString: process.env.WENDEL_ADMIN_URL });
  await admin.connect();
  await admin.query(`create database ${name} owner wendel_owner`);
  const url = new URL(process.env.WENDEL_OWNER_URL!);
  url.pathname = name;
  const db = new Client({ connectionString: url.href });
  try {
    await db.connect();
    await work(db);
  } finally {
    await db.end();
    await admin.query(`drop database ${name}`);
    await admin.end();
  }
}

const columnsOf = async (db: Client, table: string): Promise<string[]> =>
  (
    await db.query("select column_name from information_schema.columns where table_schema = 'public' and table_name = $1", [table])
  ).rows.map((r) => r.column_name);
const rowsOf = async (db: Client, table: string) => (await db.query(`select to_jsonb(t) as row from ${table} t`)).rows.map((r) => r.row);

const versions: number[] = journal.entries.map((_: unknown, i: number) => i + 1).slice(0, -1);

test.each(versions)('what version %i held is all there after coming up to date', async (version) => {
  await inDatabase(`upgrade_${version}`, async (db) => {
    const early = upTo(version);
    await migrate(drizzle(db), { migrationsFolder: early });
    rmSync(early, { recursive: true });
    const before: Record<string, unknown[]> = {};
    for (const [table, row] of Object.entries(ROWS)) {
      const columns = (await columnsOf(db, table)).filter((c) => c in row);
      if (columns.length === 0) continue;
      await db.query(`insert into ${table} (${columns}) select ${columns} from jsonb_populate_record(null::${table}, $1)`, [
        JSON.stringify(row),
      ]);
      before[table] = [];
    }
    // Rows may change with those that come after them: evidence is counted.
    for (const table of Object.keys(before)) before[table] = await rowsOf(db, table);
    // Each version's tables are all in the sample: a new one must be added to it.
    const tables = (
      await db.query("select table_name from information_schema.tables where table_schema = 'public' and table_type = 'BASE TABLE'")
    ).rows;
    expect(tables.map((t) => t.table_name).filter((t) => !(t in before) && t !== 'audit')).toEqual([]);
    await migrate(drizzle(db), { migrationsFolder: FOLDER });
    for (const [table, rows] of Object.entries(before)) {
      const after = await rowsOf(db, table);
      expect([table, after]).toEqual([table, rows.map((row) => expect.objectContaining(row as object))]);
    }
  });
});
