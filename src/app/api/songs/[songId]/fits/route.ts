import { handle } from '@/server/handle';
import { inPresentStudio } from '@/server/let-in';
import { fitsOf } from '@/studio/songs';

export const GET = handle('GET /api/songs/[songId]/fits', ({ params }) => inPresentStudio(fitsOf, params.songId));
