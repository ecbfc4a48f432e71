import type { Id } from '../core/format/id';
import { stepOfTake } from '../core/lesson/take-name';
import { withPins } from '../core/map/pins';
import { mapVoice, summaryOf } from '../core/map/pool';
import { withTrust } from '../core/map/trust';
import type { TakeEvidence, VoiceMap } from '../core/map/types';
import { StudioTx } from '../data/client';
import type { Context } from './context';
import { expectedChange } from '../core/plan/voice-types';
import { trustIn } from '../data/ears';
import { evidenceOf, keepMap, keptMap, pinsOf, staleMap } from '../data/maps';
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

/** The map of a voice pooled from what was sung up to a time, without pins. */
export async function poolNow(tx: StudioTx, singerId: Id<'singer'>, until = Infinity): Promise<VoiceMap> {
  const singer = await findSinger(tx, singerId);
  return mapVoice(await evidenceFor(tx, singerId, until), { expectedMidi: singer && expectedChange(singer.voiceType) });
}

/** The pooled map of a voice, without pins: kept from last time while its evidence hasn't changed. */
async function pooledMap(tx: StudioTx, singerId: Id<'singer'>): Promise<VoiceMap> {
  // Read before the takes: evidence that comes meanwhile makes this map old, never wrong.
  const evidence = await evidenceOf(tx, singerId);
  const kept = await keptMap(tx, singerId, evidence);
  if (kept) return kept;
  const map = await poolNow(tx, singerId);
  if (tx.readOnly) return map;
  await keepMap(tx, singerId, evidence, map, summaryOf(map));
  await hearPassesAgain(tx, singerId, map);
  return map;
}

/** The map of a voice as far as the studio's own ears bear the machine out, with the coach's pinned values in place. */
export const mapOf = async (tx: StudioTx, singerId: Id<'singer'>): Promise<VoiceMap> =>
  withPins(withTrust(await pooledMap(tx, singerId), await trustIn(tx)), await pinsOf(tx, singerId));

/** Pool the map of one voice whose evidence has changed, who was heard last first. Whether there was one. */
export async function poolOne({ tx }: Context): Promise<boolean> {
  const singerId = await staleMap(tx);
  if (singerId) await pooledMap(tx, singerId);
  return singerId !== undefined;
}
