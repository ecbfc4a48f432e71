import { Problem } from '@/server/problem';
import { respond } from '@/server/respond';
import { takeAudioStream, takeRecord } from '@/server/takes';

export async function GET(request: Request, { params }: { params: Promise<{ takeId: string }> }) {
  return respond(request, 'reader', async () => {
    const take = await takeRecord((await params).takeId);
    if (take.soundRemovedAt)
      throw new Problem(
        'The sound of this take was deleted when its time was over, as the studio’s settings want; what was found in it stays.',
        410,
      );
    const range = /^bytes=(\d+)-(\d*)$/.exec(request.headers.get('range') ?? '');
    const from = range ? Math.min(Number(range[1]), take.bytes) : 0;
    const to = range?.[2] ? Math.min(Number(range[2]) + 1, take.bytes) : take.bytes;
    return new Response(await takeAudioStream(take.id, from, to), {
      status: range ? 206 : 200,
      headers: {
        'content-type': 'audio/wav',
        'content-length': String(to - from),
        'accept-ranges': 'bytes',
        'cache-control': 'private, max-age=86400, immutable',
        ...(range ? { 'content-range': `bytes ${from}-${to - 1}/${take.bytes}` } : {}),
      },
    });
  });
}
