import { handle } from '@/server/handle';
import { inPresentStudio } from '@/server/let-in';
import { removeSong, saveSong } from '@/studio/songs';

export const PUT = handle('PUT /api/songs/[songId]', ({ body }) => inPresentStudio(saveSong, body));
export const DELETE = handle('DELETE /api/songs/[songId]', ({ params }) => inPresentStudio(removeSong, params.songId));
