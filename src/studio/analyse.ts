import type { Said } from '../core/words/said';
import { ENGINE } from '../core/engine';
import { readWav } from '../core/format/wav';
import { heardIn } from '../core/song/outcome';
import { analyseTake } from '../core/take/analyse';
import { calibrate } from '../core/take/calibrate';
import { Colour, COLOURS } from '../core/take/types';
import { trackVoice } from '../core/voice/track';
import { Pcm, VoiceTrack } from '../core/voice/types';
import { inStudio, StudioTx } from '../data/client';
import { AnalyseJob, enqueueAnalysis } from '../data/queue';
import { saveHeard, songOfTake } from '../data/songs';
import { axisOf, saveAxis } from '../data/singers';
import { audioPart, colourTakes, findTake, saveAnalysis, takesOfSinger } from '../data/takes';

/**
 * Analyse one stored take and save what was found. Doing it twice gives the same row. A take that was deleted meanwhile
 * is left alone; a sound that can't be analysed is saved with its reason, not tried again. The last of four colours
 * calibrates the singer's axis, and every other take is then read along it.
 */
export async function analyseJob({ studioId, takeId }: AnalyseJob): Promise<void> {
  const loaded = await inStudio(studioId, async (tx) => {
    const take = await findTake(tx, takeId);
    if (!take) return undefined;
    return { take, file: await fileOf(tx, takeId, take.bytes), axis: await axisOf(tx, take.singerId) };
  });
  if (!loaded) return;
  const { take, file, axis } = loaded;
  let result: Parameters<typeof saveAnalysis>[3];
  try {
    const { findings, trace } = analyseTake(readWav(file), take.task, { axis, asked: take.asked });
    result = { findings, trace };
  } catch (error) {
    result = { error: (error as Error).message };
  }
  if (take.colour && result.findings?.quality.usable) {
    const reason = await calibrateSinger(studioId, take.singerId);
    if (reason) result.findings.quality.reasons.push(reason);
  }
  await inStudio(studioId, async (tx) => {
    await saveAnalysis(tx, takeId, ENGINE, result);
    const sung = await songOfTake(tx, takeId);
    if (sung) await saveHeard(tx, takeId, heardIn(sung, result));
  });
}

/** Put the stored pieces of a take's file together. */
async function fileOf(tx: StudioTx, takeId: string, length: number): Promise<Uint8Array> {
  const file = new Uint8Array(length);
  let at = 0;
  for (let part = 0; at < length; part++) {
    const bytes = await audioPart(tx, takeId, part);
    if (!bytes) break;
    file.set(bytes, at);
    at += bytes.length;
  }
  return file;
}

/** With all four colours there, find the singer's axis and have the other takes read along it. Returns why not, if not. */
async function calibrateSinger(studioId: string, singerId: string): Promise<Said | null> {
  const sounds = await inStudio(studioId, async (tx) => {
    const out = new Map<Colour, Pcm>();
    for (const { colour, id } of await colourTakes(tx, singerId)) {
      const { bytes } = (await findTake(tx, id))!;
      out.set(colour, readWav(await fileOf(tx, id, bytes)));
    }
    return out;
  });
  if (sounds.size < COLOURS.length) return null;
  const tracks = Object.fromEntries([...sounds].map(([colour, pcm]) => [colour, trackVoice(pcm)])) as Record<Colour, VoiceTrack>;
  const found = calibrate(tracks);
  if ('reason' in found) return found.reason;
  await inStudio(studioId, async (tx) => {
    await saveAxis(tx, singerId, found.axis);
    for (const { id, colour } of await takesOfSinger(tx, singerId)) if (!colour) await enqueueAnalysis(tx, id, 'later');
  });
  return null;
}
