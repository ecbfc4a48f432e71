import { MOST_SHORT_BYTES } from '@/core/format/short-sound';
import { bytesOf } from '@/server/body';
import { handle } from '@/server/handle';
import { bySinger } from '@/server/links';
import { keepSpoken, mayBringSpoken } from '@/studio/spoken';

export const PUT = handle('PUT /api/p/[token]/spoken/[entryId]', async ({ params: { token }, query, request }) => {
  // Nobody unknown sends anything.
  await bySinger(token)(mayBringSpoken);
  await bySinger(token)(keepSpoken, query, await bytesOf(request, MOST_SHORT_BYTES));
});
