import type { Id } from '../core/format/id';
import { and, eq } from 'drizzle-orm';
import type { SchoolId } from '../core/map/schools';
import type { Edits } from '../core/plan/edits';
import type { Terms } from '../core/plan/request';
import type { PlanItem } from '../core/plan/types';
import { StudioTx } from './client';
import { singer, template } from './schema';

const ofSinger = ({ studioId }: StudioTx, id: Id<'singer'>) => and(eq(singer.studioId, studioId), eq(singer.id, id));

/** What is agreed with a singer, and what the coach changed in the suggestion; null where nothing was. */
export async function planningOf(tx: StudioTx, singerId: Id<'singer'>): Promise<{ terms: Terms | null; edits: Edits | null }> {
  const [row] = await tx.db.select({ terms: singer.terms, edits: singer.planEdits }).from(singer).where(ofSinger(tx, singerId));
  return row;
}

export async function savePlanning(
  tx: StudioTx,
  singerId: Id<'singer'>,
  change: { terms?: Terms; edits?: Edits | null; school?: SchoolId },
): Promise<void> {
  const set = {
    ...(change.terms === undefined ? {} : { terms: change.terms }),
    ...(change.edits === undefined ? {} : { planEdits: change.edits }),
    ...(change.school === undefined ? {} : { school: change.school }),
  };
  if (Object.keys(set).length > 0) await tx.db.update(singer).set(set).where(ofSinger(tx, singerId));
}

export interface Template {
  id: string;
  name: string;
  items: PlanItem[];
}

export async function templatesOf({ db, studioId }: StudioTx): Promise<Template[]> {
  return db
    .select({ id: template.id, name: template.name, items: template.items })
    .from(template)
    .where(eq(template.studioId, studioId))
    .orderBy(template.name);
}

export async function putTemplate({ db, studioId }: StudioTx, { id, name, items }: Template): Promise<void> {
  await db.insert(template).values({ id, studioId, name, items }).onConflictDoUpdate({ target: template.id, set: { name, items } });
}

export async function deleteTemplate({ db, studioId }: StudioTx, id: string): Promise<void> {
  await db.delete(template).where(and(eq(template.studioId, studioId), eq(template.id, id)));
}
