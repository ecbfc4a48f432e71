import { eq } from 'drizzle-orm';
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

export async function updateStudio({ db, studioId }: StudioTx, settings: StudioSettings): Promise<void> {
  await db.update(studio).set(settings).where(eq(studio.id, studioId));
}
