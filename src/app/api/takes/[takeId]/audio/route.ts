import { byteRange } from '@/server/byte-range';
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
    const range = byteRange(request.headers.get('range'), take.bytes);
    if (range === 'past the end') return new Response(null, { status: 416, headers: { 'content-range': `bytes */${take.bytes}` } });
    const { from, to } = range ?? { from: 0, to: take.bytes };
    return new Response(await takeAudioStream(take.id, from, to), {
      status: range ? 206 : 200,
      headers: {
        'content-type': 'audio/wav',
        'content-length': String(to - from),
        'accept-ranges': 'bytes',
        ...(range ? { 'content-range': `bytes ${from}-${to - 1}/${take.bytes}` } : {}),
      },
    });
  });
}
