import type { Id } from '../core/format/id';
import type { Said } from '../core/words/said';
import { ENGINE } from '../core/engine';
import { readWav } from '../core/format/wav';
import { heardIn } from '../core/song/outcome';
import { analyseTake } from '../core/take/analyse';
import { calibrate } from '../core/take/calibrate';
import { Colour, COLOURS } from '../core/take/types';
import { trackVoice } from '../core/voice/track';
import { Pcm, VoiceTrack } from '../core/voice/types';
import { inStudio } from '../data/client';
import { AnalyseJob, enqueueAnalysis } from '../data/queue';
import { saveHeard, songOfTake } from '../data/songs';
import { axisOf, saveAxis } from '../data/singers';
import { colourTakes, findTake, saveAnalysis, takesOfSinger } from '../data/takes';
import { wendelIn } from './context';
import { soundOf } from './sound';

/**
 * Analyse one stored take and save what was found. Doing it twice gives the same row. A take that was deleted meanwhile
 * is left alone; a sound that can't be analysed is saved with its reason, not tried again. The last of four colours
 * calibrates the singer's axis, and every other take is then read along it.
 */
export async function analyseJob({ studioId, takeId }: AnalyseJob): Promise<void> {
  const loaded = await inStudio(studioId, async (tx) => {
    const take = await findTake(tx, takeId);
    if (!take) return undefined;
    return { take, axis: await axisOf(tx, take.singerId) };
  });
  if (!loaded) return;
  const { take, axis } = loaded;
  const file = await fileOf(studioId, take);
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

/** The whole file of a take. @throws Error when some of it isn't there. */
async function fileOf(studioId: Id<'studio'>, { id, bytes: length }: { id: Id<'take'>; bytes: number }): Promise<Uint8Array> {
  const file = new Uint8Array(length);
  let at = 0;
  for await (const bytes of soundOf(wendelIn(studioId), id)) {
    file.set(bytes, at);
    at += bytes.length;
  }
  if (at < length) throw new Error(`Only ${at} of the ${length} bytes of take ${id} are there.`);
  return file;
}

/** With all four colours there, find the singer's axis and have the other takes read along it. Returns why not, if not. */
async function calibrateSinger(studioId: Id<'studio'>, singerId: Id<'singer'>): Promise<Said | null> {
  const sounds = new Map<Colour, Pcm>();
  for (const take of await inStudio(studioId, (tx) => colourTakes(tx, singerId)))
    sounds.set(take.colour, readWav(await fileOf(studioId, take)));
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
