import type { Id } from '../core/format/id';
import { and, asc, eq, gt, isNotNull, isNull, lt, not, or, sql } from 'drizzle-orm';
import { POOLING } from '../core/engine';
import type { PinName, VoiceMap, VoiceSummary } from '../core/map/types';
import type { SungDays } from '../core/practice/measures';
import type { VoiceTypeId } from '../core/plan/voice-types';
import { StudioTx } from './client';
import { pin, singer, voiceMap } from './schema';
import { lastHeardIn, pinsIn } from './singers';

/** The number of a singer's evidence: the database raises it with every analysis, mark and take discarded (migration 0011). */
export async function evidenceOf({ db, studioId }: StudioTx, singerId: Id<'singer'>): Promise<number> {
  const [row] = await db
    .select({ evidence: singer.evidence })
    .from(singer)
    .where(and(eq(singer.studioId, studioId), eq(singer.id, singerId)));
  return row?.evidence ?? 0;
}

/** A map was pooled as maps are now, and what is kept beside it is there. */
const asNow = and(eq(voiceMap.engine, POOLING), isNotNull(voiceMap.days))!;

/** The kept map, where it was pooled as maps are now, from the present evidence. */
export async function keptMap({ db, studioId }: StudioTx, singerId: Id<'singer'>, evidence: number): Promise<VoiceMap | undefined> {
  const [row] = await db
    .select({ map: voiceMap.map })
    .from(voiceMap)
    .where(and(eq(voiceMap.studioId, studioId), eq(voiceMap.singerId, singerId), asNow, eq(voiceMap.evidence, evidence)));
  return row?.map;
}

/** What each day measured, where that is kept and of the present evidence. */
export async function keptDays({ db, studioId }: StudioTx, singerId: Id<'singer'>): Promise<SungDays | undefined> {
  const [row] = await db
    .select({ days: voiceMap.days })
    .from(voiceMap)
    .innerJoin(singer, and(eq(singer.id, voiceMap.singerId), eq(singer.evidence, voiceMap.evidence)))
    .where(and(eq(voiceMap.studioId, studioId), eq(voiceMap.singerId, singerId), asNow));
  return row?.days ?? undefined;
}

/** The kept map of every singer of the studio's present, however old its evidence, with what the coach pinned; by name. */
export async function keptMaps({ db, studioId }: StudioTx) {
  return db
    .select({
      id: singer.id,
      name: singer.name,
      voiceType: sql<VoiceTypeId>`${singer.voiceType}`,
      intake: singer.intake,
      // What a page of all singers has no use for is by far the most of it.
      map: sql<VoiceMap>`${voiceMap.map} || '{"levels": [], "blend": []}'`,
      pins: pinsIn(studioId),
    })
    .from(singer)
    .innerJoin(voiceMap, eq(voiceMap.singerId, singer.id))
    .where(and(eq(singer.studioId, studioId), eq(voiceMap.studioId, studioId), isNull(singer.archivedAt)))
    .orderBy(sql`lower(${singer.name})`, asc(singer.id));
}

/** Keep a map pooled from evidence of this number and what goes with it; a newer one is left alone. */
export async function keepMap(
  { db, studioId }: StudioTx,
  singerId: Id<'singer'>,
  evidence: number,
  pooled: { map: VoiceMap; summary: VoiceSummary; days: SungDays },
): Promise<void> {
  const values = { engine: POOLING, evidence, ...pooled };
  await db
    .insert(voiceMap)
    .values({ studioId, singerId, ...values })
    .onConflictDoUpdate({ target: voiceMap.singerId, set: values, setWhere: sql`${voiceMap.evidence} <= ${evidence}` });
}

/** Whose kept map is of older evidence, pooled otherwise, or missing, who was heard last first; undefined: nobody's. */
export async function staleMap({ db, studioId }: StudioTx): Promise<Id<'singer'> | undefined> {
  const lastHeard = lastHeardIn(studioId);
  const [row] = await db
    .select({ id: singer.id })
    .from(singer)
    .leftJoin(voiceMap, eq(voiceMap.singerId, singer.id))
    .where(
      and(
        eq(singer.studioId, studioId),
        // Marks and takes may be gone again; then there is nothing in it, but that must be known.
        or(gt(singer.evidence, 0), isNotNull(lastHeard)),
        or(isNull(voiceMap.singerId), lt(voiceMap.evidence, singer.evidence), and(eq(voiceMap.evidence, singer.evidence), not(asNow))),
      ),
    )
    .orderBy(sql`${lastHeard} desc nulls last`)
    .limit(1);
  return row?.id;
}

export async function pinsOf({ db, studioId }: StudioTx, singerId: Id<'singer'>) {
  return db
    .select({ what: pin.what, midi: pin.midi, pinnedAt: pin.pinnedAt })
    .from(pin)
    .where(and(eq(pin.studioId, studioId), eq(pin.singerId, singerId)));
}

export async function setPin({ db, studioId }: StudioTx, singerId: Id<'singer'>, what: PinName, midi: number): Promise<void> {
  const values = { midi, pinnedAt: new Date() };
  await db
    .insert(pin)
    .values({ studioId, singerId, what, ...values })
    .onConflictDoUpdate({ target: [pin.singerId, pin.what], set: values });
}

export async function removePin({ db, studioId }: StudioTx, singerId: Id<'singer'>, what: PinName): Promise<void> {
  await db.delete(pin).where(and(eq(pin.studioId, studioId), eq(pin.singerId, singerId), eq(pin.what, what)));
}
