import { format } from 'date-fns';

/** The day of a moment where the studio's machine stands, as "2026-11-25": a lesson in the evening belongs to its own day. */
export const dayOf = (moment: Date): string => format(moment, 'yyyy-MM-dd');
