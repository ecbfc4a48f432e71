// Brings a database to the present schema, as its owner: tables, row-level security, the job queue, the first studio.
import { drizzle } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import { Client } from 'pg';
import PgBoss from 'pg-boss';
import { ANALYSE_QUEUE } from '../data/queue';

/** A worker that dies holds its job for at most this long; then another takes it. The longest take (15 minutes) takes a tenth of it. */
const LONGEST_ANALYSIS_S = 120;
const FIRST_STUDIO = 'The barge studio';

async function main() {
  const connectionString = process.env.WENDEL_OWNER_URL!;
  const client = new Client({ connectionString });
  await client.connect();
  await migrate(drizzle(client), { migrationsFolder: process.env.WENDEL_MIGRATIONS ?? 'src/data/migrations' });
  const boss = new PgBoss({ connectionString, supervise: false, schedule: false });
  boss.on('error', () => {});
  await boss.start();
  const queue = { name: ANALYSE_QUEUE, retryLimit: 3, retryDelay: 1, expireInSeconds: LONGEST_ANALYSIS_S };
  await boss.createQueue(ANALYSE_QUEUE, queue);
  // One that is there already keeps what it was made with.
  await boss.updateQueue(ANALYSE_QUEUE, queue);
  await boss.stop({ graceful: false });
  await client.query('grant usage on schema pgboss to wendel_app');
  await client.query('grant select, insert, update, delete on all tables in schema pgboss to wendel_app');
  await client.query('grant execute on all functions in schema pgboss to wendel_app');
  await client.query('insert into studio (name) select $1 where not exists (select from studio)', [FIRST_STUDIO]);
  await client.end();
}

main().catch((error: Error) => {
  process.stderr.write(`The database could not be brought up to date: ${error.message}\n`);
  process.exit(1);
});
