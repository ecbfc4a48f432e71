import { health } from '@/server/health';

export const dynamic = 'force-dynamic';

/** `?live`: whether this process answers; `?ready`: whether it reaches the database; else whether somebody listens to takes as well. */
export async function GET(request: Request) {
  const { searchParams } = new URL(request.url);
  const answer = (state: object, ok: boolean) => Response.json(state, { status: ok ? 200 : 503, headers: { 'cache-control': 'no-store' } });
  if (searchParams.has('live')) return answer({ ok: true }, true);
  const state = await health();
  return answer(state, searchParams.has('ready') ? state.database === 'ready' : state.ok);
}
