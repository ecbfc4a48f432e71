import { Id, newId } from '../core/format/id';
import { CAST, recordedInCabin } from '../core/sim/cast';
import { songTask } from '../core/sim/song';
import { DEMO_SONGS } from '../core/song/demo-songs';
import { keysFor } from '../core/song/keys';
import { heardIn, predictionOf } from '../core/song/outcome';
import { songVoice } from '../core/song/voice';
import type { StudioTx } from '../data/client';
import { mapOf } from '../studio/pooling';
import { listSingers } from '../data/singers';
import { choose, insertSongTake, putSong, saveHeard } from '../data/songs';
import { storeTake, voiceAt } from './seed-take';

const DAY_MS = 86_400_000;

/** Whose song it is, and how many days ago they sang it for Wendel. */
const SUNG: readonly { song: string; singer: string; daysAgo: number[] }[] = [
  { song: 'The Heron’s Song', singer: 'Lio Fenn', daysAgo: [3] },
  { song: 'Ferryman, Wait', singer: 'Maren Quill', daysAgo: [] },
  { song: 'Ferryman, Wait', singer: 'Lio Fenn', daysAgo: [] },
];

/** The opera's songs, two of them in their singers' hands, one sung. */
export async function seedSongs(tx: StudioTx, now: number): Promise<void> {
  const ids = new Map<string, Id<'song'>>();
  for (const song of DEMO_SONGS) {
    const id = newId('song');
    ids.set(song.title, id);
    await putSong(tx, { id, song, note: '' });
  }
  const singers = await listSingers(tx);
  for (const { song: title, singer: name, daysAgo } of SUNG) {
    const songId = ids.get(title)!;
    const song = DEMO_SONGS.find((s) => s.title === title)!;
    const member = CAST.find((c) => c.name === name)!;
    const singerId = singers.find((s) => s.name === name)!.id;
    const voice = songVoice(await mapOf(tx, singerId), member.voiceType);
    if (!voice) continue;
    const [best] = keysFor(song, voice);
    const ways = Object.fromEntries(best.phrases.filter((p) => p.level === 'risky').map((p) => [p.first, 'mix' as const]));
    await choose(tx, singerId, songId, { semitones: best.semitones, ways, note: '' });
    for (const [i, days] of daysAgo.entries()) {
      const predicted = predictionOf(song, best.phrases);
      const pcm = recordedInCabin(voiceAt(member, 1), songTask(song, best.semitones), 500 + i);
      const recordedAt = new Date(Math.floor(now / DAY_MS) * DAY_MS - days * DAY_MS + 15 * 3_600_000);
      const { id, ...take } = await storeTake(tx, pcm, { singerId, task: 'free', vowel: '', asked: { slid: false }, recordedAt });
      await insertSongTake(tx, { takeId: id, songId, semitones: best.semitones, predicted });
      await saveHeard(tx, id, heardIn({ song, predicted, semitones: best.semitones }, take));
    }
  }
}
