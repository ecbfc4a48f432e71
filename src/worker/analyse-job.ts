import { ENGINE } from '../core/engine';
import { readWav } from '../core/format/wav';
import { analyseTake } from '../core/take/analyse';
import { inStudio } from '../data/client';
import { AnalyseJob } from '../data/queue';
import { audioPart, findTake, saveAnalysis } from '../data/takes';

/**
 * Analyse one stored take and save what was found. Doing it twice gives the same row. A take that was deleted meanwhile
 * is left alone; a sound that can't be analysed is saved with its reason, not tried again.
 */
export async function analyseJob({ studioId, takeId }: AnalyseJob): Promise<void> {
  const loaded = await inStudio(studioId, async (tx) => {
    const take = await findTake(tx, takeId);
    if (!take) return undefined;
    const file = new Uint8Array(take.bytes);
    let at = 0;
    for (let part = 0; at < take.bytes; part++) {
      const bytes = await audioPart(tx, takeId, part);
      if (!bytes) break;
      file.set(bytes, at);
      at += bytes.length;
    }
    return { take, file };
  });
  if (!loaded) return;
  let result: Parameters<typeof saveAnalysis>[3];
  try {
    const { findings, trace } = analyseTake(readWav(loaded.file), loaded.take.task);
    result = { findings, trace };
  } catch (error) {
    result = { error: (error as Error).message };
  }
  await inStudio(studioId, (tx) => saveAnalysis(tx, takeId, ENGINE, result));
}
