import { Id, newId } from '../core/format/id';
import { createHash } from 'node:crypto';
import { ENGINE } from '../core/engine';
import { writeWav } from '../core/format/wav';
import type { CastMember } from '../core/sim/cast';
import { analyseTake } from '../core/take/analyse';
import type { Pcm } from '../core/voice/types';
import type { StudioTx } from '../data/client';
import { insertAudioPart, PART_BYTES } from '../data/take-audio';
import { insertTake, saveAnalysis, TakeRow } from '../data/takes';

/** The voice as it is in a given week: progress is linear from the first session (0) to the last (1). */
export function voiceAt(member: CastMember, progress: number) {
  return {
    ...member.profile,
    crossings: member.profile.crossings.map((c) => ({
      ...c,
      upMidi: c.upMidi + member.progress.moveSt * progress,
      downMidi: c.downMidi + member.progress.moveSt * progress,
      ...(c.leapSt ? { leapSt: c.leapSt * (1 - member.progress.leapShrink * progress) } : {}),
    })),
  };
}

/** Store a take of the demo with its sound and what is found in it. */
export async function storeTake(
  tx: StudioTx,
  pcm: Pcm,
  of: Pick<TakeRow, 'singerId' | 'task' | 'vowel' | 'asked' | 'recordedAt'>,
): Promise<{ id: Id<'take'> } & Pick<ReturnType<typeof analyseTake>, 'findings' | 'trace'>> {
  const { findings, trace } = analyseTake(pcm, of.task, { asked: of.asked });
  const file = writeWav(pcm, 16);
  const id = newId('take');
  await insertTake(tx, {
    ...of,
    id,
    colour: null,
    lessonId: null,
    step: '',
    note: '',
    source: 'simulated',
    sha256: createHash('sha256').update(file).digest('hex'),
    bytes: file.length,
    durationS: pcm.samples.length / pcm.sampleRate,
    sampleRate: pcm.sampleRate,
  });
  for (let part = 0; part * PART_BYTES < file.length; part++)
    await insertAudioPart(tx, id, part, Buffer.from(file.subarray(part * PART_BYTES, (part + 1) * PART_BYTES)));
  await saveAnalysis(tx, id, ENGINE, { findings, trace });
  return { id, findings, trace };
}
