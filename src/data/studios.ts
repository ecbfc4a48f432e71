import { eq, sql } from 'drizzle-orm';
import type { SchoolId } from '../core/map/schools';
import { StudioTx } from './client';
import { studio } from './schema';

export interface StudioSettings {
  name: string;
  school: SchoolId;
  /** The sound of takes is deleted when so many months old; null: kept. */
  keepMonths: number | null;
}

export async function studioSettings({ db, studioId }: StudioTx): Promise<StudioSettings> {
  const [row] = await db
    .select({ name: studio.name, school: studio.school, keepMonths: studio.keepMonths })
    .from(studio)
    .where(eq(studio.id, studioId));
  return row;
}

/** Since when the present time of keeping holds. */
export async function keepsSince({ db, studioId }: StudioTx): Promise<Date> {
  const [row] = await db.select({ since: studio.keepMonthsSince }).from(studio).where(eq(studio.id, studioId));
  return row.since;
}

export async function updateStudio({ db, studioId }: StudioTx, settings: StudioSettings): Promise<void> {
  const since = sql`case when ${studio.keepMonths} is distinct from ${settings.keepMonths}::int then now() else ${studio.keepMonthsSince} end`;
  await db
    .update(studio)
    .set({ ...settings, keepMonthsSince: since })
    .where(eq(studio.id, studioId));
}
