import { z } from 'zod';
import { mapVoice, summaryOf } from '../core/map/pool';
import { withPins } from '../core/map/pins';
import { fittingCategories } from '../core/map/categories';
import { changeNames, SCHOOL_IDS } from '../core/map/schools';
import { PIN_NAMES, PinName, TakeEvidence, VoiceMap, VoiceSummary } from '../core/map/types';
import { VOICE_TYPES, voiceType } from '../core/plan/voice-types';
import { StudioTx } from '../data/client';
import { evidenceOf, keepMap, keptMap, pinsOf, removePin, setPin } from '../data/maps';
import { archiveSinger, deleteSinger, findSinger, insertSinger, listSingers, updateSinger } from '../data/singers';
import { marksOfSinger, takeLinesOfSinger, takesOfSinger } from '../data/takes';
import { Problem } from './problem';
import { schoolOf } from './settings';
import { inPresentStudio } from './studio';

const Intake = z
  .object({
    consent: z.enum(['none', 'singer', 'guardian']).default('none'),
    minor: z.boolean().default(false),
    goals: z.string().trim().max(2000).default(''),
    health: z.string().trim().max(2000).default(''),
  })
  .refine((i) => !i.minor || i.consent !== 'singer', 'For a minor a guardian must agree to recording.');

export const SingerInput = z.object({
  name: z.string().trim().min(1, 'Give the singer a name.').max(120),
  part: z.string().trim().max(120).default(''),
  voiceType: z.enum(VOICE_TYPES.map((t) => t.id)),
  note: z.string().trim().max(2000).default(''),
  email: z.email('That is no e-mail address.').max(200).nullable().default(null),
  intake: Intake.nullable().default(null),
  school: z.enum(SCHOOL_IDS).nullable().default(null),
});

export const addSinger = (input: z.infer<typeof SingerInput>) => inPresentStudio((tx) => insertSinger(tx, input));

export const editSinger = (id: string, input: z.infer<typeof SingerInput>) =>
  inPresentStudio(async (tx) => {
    await mustFindSinger(tx, id);
    await updateSinger(tx, id, input);
  });

export const setArchived = (id: string, archived: boolean) =>
  inPresentStudio(async (tx) => {
    await mustFindSinger(tx, id);
    await archiveSinger(tx, id, archived);
  });

/** For good, with every take, mark, lesson and assignment. The name must be given, so that no slip of a finger does it. */
export const removeSinger = (id: string, name: string) =>
  inPresentStudio(async (tx) => {
    const singer = await mustFindSinger(tx, id);
    if (name.trim() !== singer.name) throw new Problem(`Nothing was deleted: type the name ${singer.name} exactly to delete for good.`);
    await deleteSinger(tx, id);
  });

/** What a map is pooled from, of takes up to a time. */
export async function evidenceFor(tx: StudioTx, singerId: string, until = Infinity): Promise<TakeEvidence[]> {
  const takes = await takesOfSinger(tx, singerId);
  const marks = await marksOfSinger(tx, singerId);
  return takes.flatMap((t) =>
    t.findings && t.recordedAt.getTime() <= until
      ? [{ takeId: t.id, findings: t.findings, recordedAt: t.recordedAt.getTime(), marks: marks.filter((m) => m.takeId === t.id) }]
      : [],
  );
}

/** The pooled map of a voice, without pins: kept from last time while its evidence hasn't changed. */
async function pooledMap(tx: StudioTx, singerId: string): Promise<VoiceMap> {
  // Read before the takes: evidence that comes meanwhile makes this map old, never wrong.
  const evidence = await evidenceOf(tx, singerId);
  const kept = await keptMap(tx, singerId, evidence);
  if (kept) return kept;
  const map = mapVoice(await evidenceFor(tx, singerId));
  if (!tx.readOnly) await keepMap(tx, singerId, evidence, map, summaryOf(map));
  return map;
}

/** The map of a voice with the coach's pinned values in place. */
export const mapOf = async (tx: StudioTx, singerId: string): Promise<VoiceMap> =>
  withPins(await pooledMap(tx, singerId), await pinsOf(tx, singerId));

/** The map as it stood at a time: what had been sung until then (the marks are today's). */
export const mapAsOf = (id: string, until: Date) =>
  inPresentStudio(async (tx) => {
    await mustFindSinger(tx, id);
    return mapVoice(await evidenceFor(tx, id, until.getTime()));
  });

export const PinInput = z.object({ what: z.enum(PIN_NAMES), midi: z.number().min(24).max(100).nullable() });

/** Pin a value of the map, or take the pin out (null). */
export const pinValue = (id: string, { what, midi }: { what: PinName; midi: number | null }) =>
  inPresentStudio(async (tx) => {
    await mustFindSinger(tx, id);
    await (midi === null ? removePin(tx, id, what) : setPin(tx, id, what, midi));
  });

/** The singer. @throws Problem (404) when there is none. */
export async function mustFindSinger(tx: StudioTx, id: string) {
  const singer = z.uuid().safeParse(id).success ? await findSinger(tx, id) : undefined;
  if (singer) tx.saw.add(id);
  if (!singer) throw new Problem('There is no such singer in this studio.', 404);
  return singer;
}

export const singerName = (id: string) => inPresentStudio((tx) => mustFindSinger(tx, id));

/** A singer with map and takes. @throws Problem (404) when there is none. */
export async function viewSinger(id: string) {
  return inPresentStudio(async (tx) => {
    const singer = await mustFindSinger(tx, id);
    const map = await mapOf(tx, id);
    const takes = await takeLinesOfSinger(tx, id);
    const school = await schoolOf(tx, singer);
    return {
      singer,
      map,
      school: {
        name: school.name,
        changes: changeNames(
          school,
          map.passaggi.map((p) => p.midi),
          voiceType(singer.voiceType),
        ),
        categories: fittingCategories(map, school),
      },
      takes: takes.map(({ quality, error, analysed, ...t }) => ({
        ...t,
        usable: analysed ? (quality?.usable ?? false) : null,
        reasons: quality?.reasons ?? (error ? [error] : []),
      })),
    };
  });
}

/** Time a look at the studio may spend on pooling maps anew. */
const POOLING_MS = 10;
const NOTHING_KNOWN: VoiceSummary = { extreme: null, passaggi: [], findings: [] };

export type StudioRow = Omit<Awaited<ReturnType<typeof listSingers>>[number], 'summary' | 'fresh'> & { summary: VoiceSummary };

/** Everyone in the studio with what their maps say in short, and the present time, milliseconds. */
export async function viewStudio(): Promise<{ singers: StudioRow[]; now: number }> {
  return inPresentStudio(async (tx) => {
    const started = Date.now();
    const singers: StudioRow[] = [];
    // Who was heard last is pooled anew first, one at least; of the others the last known stands until there is time.
    let spentMs = -1;
    for (const { summary, fresh, ...s } of await listSingers(tx)) {
      const due = !fresh && (s.takes > 0 || summary !== null) && spentMs < POOLING_MS;
      const from = Date.now();
      singers.push({ ...s, summary: due ? summaryOf(await pooledMap(tx, s.id)) : (summary ?? NOTHING_KNOWN) });
      if (due) spentMs = Math.max(0, spentMs) + Date.now() - from;
    }
    return { singers, now: started };
  });
}
