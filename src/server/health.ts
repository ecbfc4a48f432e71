import packageJson from '../../package.json';
import { ENGINE } from '../core/engine';
import { pool } from '../data/client';
import { WORKER_LOCK } from '../data/queue';
import { presentMember } from './session';

/** Whether the database answers and how many workers live (each holds a shared lock); to members also what runs here. */
export async function health() {
  const base = (await presentMember().catch(() => null)) ? { version: packageJson.version, engine: ENGINE } : {};
  try {
    const { rows } = await pool().query(
      "select count(*)::int as workers from pg_locks where locktype = 'advisory' and mode = 'ShareLock' and granted and objid = $1",
      [WORKER_LOCK],
    );
    const workers: number = rows[0].workers;
    return { ok: workers > 0, ...base, database: 'ready', worker: workers > 0 ? 'ready' : 'away', workers };
  } catch {
    return { ok: false, ...base, database: 'away', worker: 'unknown', workers: 0 };
  }
}
