import { downloadZip } from 'client-zip';
import { note } from '../data/audit';
import { assignmentsOfSinger } from '../data/assignments';
import { lessonsOfSinger } from '../data/lessons';
import { pinsOf } from '../data/maps';
import { mapOf } from '../data/pooling';
import { practiceOf } from '../data/practice';
import { marksOfSinger, takesOfSinger } from '../data/takes';
import { mustFindSinger } from './singers';
import { presentStudio } from './studio';
import { takeAudioStream } from './takes';

/** Everything that is kept of a singer as one ZIP: `singer.json` and each take's WAV file, streamed. @throws Problem (404). */
export async function exportSinger(id: string): Promise<Response> {
  // The files are read while the answer goes out.
  const inItsStudio = await presentStudio();
  const { singer, takes, ...rest } = await inItsStudio(async (tx) => ({
    singer: await mustFindSinger(tx, id),
    map: await mapOf(tx, id),
    pins: await pinsOf(tx, id),
    lessons: await lessonsOfSinger(tx, id),
    assignments: await assignmentsOfSinger(tx, id),
    marks: await marksOfSinger(tx, id),
    practice: await practiceOf(tx, id),
    takes: await takesOfSinger(tx, id),
  }));
  await inItsStudio((tx) => note(tx, { did: 'took out', what: 'singer', singerId: id }));
  const nameOf = (take: (typeof takes)[number]) =>
    `takes/${take.recordedAt.toISOString().slice(0, 16).replace(':', '')} ${take.task} ${take.id.slice(0, 8)}.wav`;
  async function* files() {
    yield {
      name: 'singer.json',
      input: JSON.stringify({ singer, ...rest, takes: takes.map((t) => ({ ...t, file: nameOf(t) })) }, null, 2),
      lastModified: new Date(),
    };
    for (const take of takes.filter((t) => !t.soundRemovedAt))
      yield {
        name: nameOf(take),
        input: await takeAudioStream(take.id, 0, take.bytes, inItsStudio),
        lastModified: take.recordedAt,
        size: take.bytes,
      };
  }
  const file = `${singer.name.replace(/[^\p{L}\p{N}]+/gu, '-')}.zip`;
  const zip = downloadZip(files());
  return new Response(zip.body, {
    headers: { 'content-type': 'application/zip', 'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(file)}` },
  });
}
