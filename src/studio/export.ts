import type { Id } from '../core/format/id';
import { downloadZip } from 'client-zip';
import { note } from '../data/audit';
import { assignmentsOfSinger } from '../data/assignments';
import { lessonsOfSinger } from '../data/lessons';
import { pinsOf } from '../data/maps';
import { mapOf } from './pooling';
import { practiceOf } from '../data/practice';
import { soundOfSpoken, spokenOf } from '../data/spoken';
import { marksOfSinger, takesOfSinger } from '../data/takes';
import { mustFindSinger } from './singers';
import type { Run } from './context';
import { takeAudioStream } from './takes';

/** Everything that is kept of a singer as one ZIP: `singer.json` and the WAV file of each take and each spoken word, streamed while the answer goes out. @throws Refusal (not-found). */
export async function exportSinger(run: Run, id: Id<'singer'>): Promise<{ name: string; zip: ReadableStream<Uint8Array> }> {
  const { singer, takes, spoken, ...rest } = await run(async ({ tx }) => ({
    singer: await mustFindSinger(tx, id),
    map: await mapOf(tx, id),
    pins: await pinsOf(tx, id),
    lessons: await lessonsOfSinger(tx, id),
    assignments: await assignmentsOfSinger(tx, id),
    marks: await marksOfSinger(tx, id),
    practice: await practiceOf(tx, id),
    takes: await takesOfSinger(tx, id),
    spoken: await spokenOf(tx, id),
  }));
  await run(({ tx }) => note(tx, { did: 'took out', what: 'singer', singerId: id }));
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
        input: takeAudioStream(run, take.id, 0, take.bytes),
        lastModified: take.recordedAt,
        size: take.bytes,
      };
    for (const { id, spokenAt } of spoken) {
      const sound = await run(({ tx }) => soundOfSpoken(tx, id));
      if (sound) yield { name: `words/${id}.wav`, input: sound.wav, lastModified: spokenAt };
    }
  }
  return { name: `${singer.name.replace(/[^\p{L}\p{N}]+/gu, '-')}.zip`, zip: downloadZip(files()).body! };
}
