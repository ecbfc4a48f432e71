import type { Id } from '../core/format/id';
import { stepOfTake } from '../core/lesson/take-name';
import { withPins } from '../core/map/pins';
import { mapVoice, summaryOf } from '../core/map/pool';
import { withTrust } from '../core/map/trust';
import type { TakeEvidence, VoiceMap } from '../core/map/types';
import { mainChange, SungDays, sungDays } from '../core/practice/measures';
import { StudioTx } from '../data/client';
import { dayOf } from './day';
import type { Context } from './context';
import { expectedChange } from '../core/plan/voice-types';
import { trustIn } from '../data/ears';
import { evidenceOf, keepMap, keptDays, keptMap, pinsOf, staleMap } from '../data/maps';
import { hearPassesAgain } from './ears';
import { findSinger } from '../data/singers';
import { marksOfSinger, takesOfSinger } from '../data/takes';

/** What a map is pooled from, of takes up to a time. */
export async function evidenceFor(tx: StudioTx, singerId: Id<'singer'>, until = Infinity): Promise<TakeEvidence[]> {
  const takes = await takesOfSinger(tx, singerId);
  const marks = await marksOfSinger(tx, singerId);
  return takes.flatMap((t) =>
    t.findings && t.recordedAt.getTime() <= until
      ? [
          {
            takeId: t.id,
            findings: t.findings,
            recordedAt: t.recordedAt.getTime(),
            ...(t.lessonId && t.step ? { together: `${t.lessonId}/${stepOfTake(t.step)}` } : {}),
            vowel: t.vowel,
            marks: marks.filter((m) => m.takeId === t.id),
          },
        ]
      : [],
  );
}

async function mapFrom(tx: StudioTx, singerId: Id<'singer'>, takes: TakeEvidence[]): Promise<VoiceMap> {
  const singer = await findSinger(tx, singerId);
  return mapVoice(takes, { expectedMidi: singer && expectedChange(singer.voiceType) });
}

/** The map of a voice pooled from what was sung up to a time, without pins. */
export const poolNow = async (tx: StudioTx, singerId: Id<'singer'>, until = Infinity): Promise<VoiceMap> =>
  mapFrom(tx, singerId, await evidenceFor(tx, singerId, until));

const daysFrom = (takes: readonly TakeEvidence[], changeMidi: number | null): SungDays =>
  sungDays(
    takes.map((t) => ({ ...t, day: dayOf(new Date(t.recordedAt!)) })),
    changeMidi,
  );

/** The pooled map of a voice, without pins: kept from last time while its evidence hasn't changed. */
async function pooledMap(tx: StudioTx, singerId: Id<'singer'>): Promise<VoiceMap> {
  // Read before the takes: evidence that comes meanwhile makes this map old, never wrong.
  const evidence = await evidenceOf(tx, singerId);
  const kept = await keptMap(tx, singerId, evidence);
  if (kept) return kept;
  const takes = await evidenceFor(tx, singerId);
  const map = await mapFrom(tx, singerId, takes);
  if (tx.readOnly) return map;
  const days = daysFrom(takes, mainChange(map)?.midi ?? null);
  await keepMap(tx, singerId, evidence, { map, summary: summaryOf(map), days });
  await hearPassesAgain(tx, singerId, map);
  return map;
}

/** The map of a voice as far as the studio's own ears bear the machine out, with the coach's pinned values in place. */
export const mapOf = async (tx: StudioTx, singerId: Id<'singer'>): Promise<VoiceMap> =>
  withPins(withTrust(await pooledMap(tx, singerId), await trustIn(tx)), await pinsOf(tx, singerId));

/** What each day measured about a change: as kept with the map, or anew where the coach's pin or ears have another change followed. */
export async function daysSung(tx: StudioTx, singerId: Id<'singer'>, changeMidi: number | null): Promise<SungDays> {
  const kept = await keptDays(tx, singerId);
  return kept?.changeMidi === changeMidi ? kept : daysFrom(await evidenceFor(tx, singerId), changeMidi);
}

/** Pool the map of one voice whose evidence has changed, who was heard last first. Whether there was one. */
export async function poolOne({ tx }: Context): Promise<boolean> {
  const singerId = await staleMap(tx);
  if (singerId) await pooledMap(tx, singerId);
  return singerId !== undefined;
}
