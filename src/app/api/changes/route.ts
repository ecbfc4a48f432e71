import { changesOfStudio } from '@/server/events';
import { handle } from '@/server/handle';

export const GET = handle('GET /api/changes', changesOfStudio);
