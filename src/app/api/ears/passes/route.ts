import { handle } from '@/server/handle';
import { inPresentStudio } from '@/server/let-in';
import { passesToHear } from '@/studio/ears';

export const GET = handle('GET /api/ears/passes', () => inPresentStudio(passesToHear));
