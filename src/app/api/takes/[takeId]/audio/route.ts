import { byteRange } from '@/server/byte-range';
import { handle } from '@/server/handle';
import { presentStudio } from '@/server/let-in';
import { takeAudioStream, takeWithSound } from '@/studio/takes';

export const GET = handle('GET /api/takes/[takeId]/audio', async ({ params, request }) => {
  // The sound is read while the answer goes out.
  const run = await presentStudio();
  const take = await run(takeWithSound, params.takeId);
  const range = byteRange(request.headers.get('range'), take.bytes);
  if (range === 'past the end') return new Response(null, { status: 416, headers: { 'content-range': `bytes */${take.bytes}` } });
  const { from, to } = range ?? { from: 0, to: take.bytes };
  return new Response(takeAudioStream(run, take.id, from, to), {
    status: range ? 206 : 200,
    headers: {
      'content-type': 'audio/wav',
      'content-length': String(to - from),
      'accept-ranges': 'bytes',
      ...(range ? { 'content-range': `bytes ${from}-${to - 1}/${take.bytes}` } : {}),
    },
  });
});
