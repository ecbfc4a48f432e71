import { z } from 'zod';
import { SCHOOL_IDS } from '../map/schools';

export const ROLES = ['owner', 'coach', 'reader'] as const;
/** Owners do everything; coaches everything but the studio's own affairs; readers look only. */
export type Role = (typeof ROLES)[number];

/** A studio's settings, as they are entered and taken along. */
export const StudioShape = z.object({
  name: z.string().trim().min(1, 'Give the studio a name.').max(120),
  school: z.enum(SCHOOL_IDS),
  /** The database holds the same bounds (schema.ts). */
  keepMonths: z.number().int().min(1).max(120).nullable(),
});
