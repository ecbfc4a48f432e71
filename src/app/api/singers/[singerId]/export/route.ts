import { handle } from '@/server/handle';
import { presentStudio } from '@/server/let-in';
import { exportSinger } from '@/studio/export';

export const GET = handle('GET /api/singers/[singerId]/export', async ({ params }) => {
  const { name, zip } = await exportSinger(await presentStudio(), params.singerId);
  return new Response(zip, {
    headers: { 'content-type': 'application/zip', 'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}` },
  });
});
