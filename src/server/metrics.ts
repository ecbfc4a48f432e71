import { timingSafeEqual } from 'node:crypto';
import { collectDefaultMetrics, Gauge, Registry } from 'prom-client';
import { queueNow } from '../data/queue';
import { health } from './health';

// On globalThis: pages and routes may each have a copy of this module, and figures are registered once.
const held = globalThis as unknown as { wendelMetrics?: Registry };

/** What Prometheus reads: how this process is, and what waits. Each figure says nothing of anybody. */
function registry(): Registry {
  if (held.wendelMetrics) return held.wendelMetrics;
  const all = new Registry();
  collectDefaultMetrics({ register: all, prefix: 'wendel_web_' });
  const gauge = (name: string, help: string) => new Gauge({ name, help, registers: [all] });
  const workers = gauge('wendel_workers', 'Analysis processes alive');
  const database = gauge('wendel_database_up', 'Whether the database answers');
  const waiting = gauge('wendel_takes_waiting', 'Takes that wait to be listened to');
  const longest = gauge('wendel_takes_waiting_seconds', 'How long the take that somebody waits for longest has waited');
  const failed = gauge('wendel_analyses_failed', 'Analyses of the last day that were given up');
  const collect = all.metrics.bind(all);
  all.metrics = async () => {
    const state = await health();
    workers.set(state.workers);
    database.set(state.database === 'ready' ? 1 : 0);
    if (state.database === 'ready') {
      const queue = await queueNow();
      waiting.set(queue.waiting);
      longest.set(queue.longestS);
      failed.set(queue.failed);
    }
    return collect();
  };
  return (held.wendelMetrics = all);
}

/** Figures for whoever shows WENDEL_METRICS_TOKEN; without that setting there is nothing here. */
export async function metrics(authorization: string | null): Promise<Response> {
  const token = process.env.WENDEL_METRICS_TOKEN;
  const [given, right] = [Buffer.from(authorization ?? ''), Buffer.from(`Bearer ${token}`)];
  if (!token || given.length !== right.length || !timingSafeEqual(given, right)) return new Response(null, { status: 404 });
  const all = registry();
  return new Response(await all.metrics(), { headers: { 'content-type': all.contentType, 'cache-control': 'no-store' } });
}
