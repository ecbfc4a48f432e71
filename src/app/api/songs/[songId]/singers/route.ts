import { handle } from '@/server/handle';
import { inPresentStudio } from '@/server/let-in';
import { singersOfSong } from '@/studio/songs';

export const GET = handle('GET /api/songs/[songId]/singers', ({ params }) => inPresentStudio(singersOfSong, params.songId));
