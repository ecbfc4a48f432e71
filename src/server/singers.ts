import { z } from 'zod';
import { mapVoice } from '../core/map/pool';
import { TakeEvidence, VoiceMap } from '../core/map/types';
import { VOICE_TYPES } from '../core/plan/voice-types';
import { StudioTx } from '../data/client';
import { findSinger, insertSinger, listSingers } from '../data/singers';
import { marksOfSinger, takesOfSinger } from '../data/takes';
import { Problem } from './problem';
import { inPresentStudio } from './studio';

export const SingerInput = z.object({
  name: z.string().trim().min(1, 'Give the singer a name.').max(120),
  part: z.string().trim().max(120).default(''),
  voiceType: z.enum(VOICE_TYPES.map((t) => t.id)),
  note: z.string().trim().max(2000).default(''),
});

export const addSinger = (input: z.infer<typeof SingerInput>) => inPresentStudio((tx) => insertSinger(tx, input));

/** The map of a voice, pooled afresh from all takes and the coach's marks: derived, never stored. */
export async function mapOf(tx: StudioTx, singerId: string) {
  const takes = await takesOfSinger(tx, singerId);
  const marks = await marksOfSinger(tx, singerId);
  const evidence: TakeEvidence[] = takes.flatMap((t) =>
    t.findings
      ? [{ takeId: t.id, findings: t.findings, recordedAt: t.recordedAt.getTime(), marks: marks.filter((m) => m.takeId === t.id) }]
      : [],
  );
  return { map: mapVoice(evidence), takes };
}

/** The singer. @throws Problem (404) when there is none. */
export async function mustFindSinger(tx: StudioTx, id: string) {
  const singer = z.uuid().safeParse(id).success ? await findSinger(tx, id) : undefined;
  if (!singer) throw new Problem('There is no such singer in this studio.', 404);
  return singer;
}

export const singerName = (id: string) => inPresentStudio((tx) => mustFindSinger(tx, id));

/** A singer with map and takes. @throws Problem (404) when there is none. */
export async function viewSinger(id: string) {
  return inPresentStudio(async (tx) => {
    const singer = await mustFindSinger(tx, id);
    const { map, takes } = await mapOf(tx, id);
    return {
      singer,
      map,
      takes: takes.map(({ findings, ...t }) => ({
        ...t,
        usable: findings?.quality.usable ?? null,
        reasons: findings?.quality.reasons ?? [],
        changes: findings?.events.length ?? 0,
        engine: findings?.engine ?? null,
      })),
    };
  });
}

export type StudioRow = Awaited<ReturnType<typeof listSingers>>[number] & { map: VoiceMap };

/** Everyone in the studio with their maps. */
export async function viewStudio(): Promise<StudioRow[]> {
  return inPresentStudio(async (tx) => {
    const singers = await listSingers(tx);
    const out: StudioRow[] = [];
    for (const s of singers) out.push({ ...s, map: (await mapOf(tx, s.id)).map });
    return out;
  });
}
