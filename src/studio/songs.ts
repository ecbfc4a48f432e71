import type { Id } from '../core/format/id';
import type { SongSinger } from '../contract/answers';
import type { SongInput } from '../contract/inputs';
import { z } from 'zod';
import { Chosen } from '../core/format/song';
import type { VoiceMap } from '../core/map/types';
import { BY_AGE } from '../core/plan/ages';
import { Heard, PredictedBar, predictionOf } from '../core/song/outcome';
import { nextShow } from '../core/plan/dates';
import type { SongsNow } from '../core/song/waits';
import { risksOf } from '../core/song/risks';
import { songVoice, SongVoice } from '../core/song/voice';
import { StudioTx } from '../data/client';
import { mapOf } from './pooling';
import { lately, practiceOf } from '../data/practice';
import { trustIn } from '../data/ears';
import { keptMaps } from '../data/maps';
import { deleteModelsOfSong, modelsFor } from '../data/models';
import { withPins } from '../core/map/pins';
import { withTrust } from '../core/map/trust';
import { SingerRow } from '../data/singers';
import {
  choicesOf,
  choose,
  chosenFor,
  deleteSong,
  findSong,
  insertSongTake,
  putSong,
  repertoireOf,
  songBarsOf,
  songLines,
  SongRow,
  songTakesOf,
  unchoose,
} from '../data/songs';
import { planningIn, planSourceOf } from './plans';
import { Refusal } from './refusal';
import { mustFindSinger } from './singers';
import type { Context } from './context';

export const viewSongs = async ({ tx }: Context) => ({ songs: await songLines(tx) });

async function mustFindSong(tx: StudioTx, id: Id<'song'>): Promise<SongRow> {
  const row = await findSong(tx, id);
  if (!row) throw new Refusal('not-found', 'There is no such song in this studio.');
  return row;
}

export const viewStudioSong = ({ tx }: Context, id: Id<'song'>) => mustFindSong(tx, id);

export const saveSong = ({ tx }: Context, input: z.infer<typeof SongInput>) => putSong(tx, input);

export async function removeSong({ tx }: Context, id: Id<'song'>) {
  await deleteSong(tx, id);
  await deleteModelsOfSong(tx, id);
}

/** A singer's voice as songs ask for it, of their map; null where nothing was sung yet. */
export const voiceIn = (map: VoiceMap, { voiceType, intake }: Pick<SingerRow, 'voiceType' | 'intake'>): SongVoice | null =>
  songVoice(map, voiceType, Boolean(intake?.changing) || (intake?.age !== undefined && BY_AGE[intake.age].band));

const voiceFor = async (tx: StudioTx, singer: SingerRow): Promise<SongVoice | null> => voiceIn(await mapOf(tx, singer.id), singer);

/** Every singer who was heard, as their maps stand: the page works out whom it fits, a song of some minutes takes long for a choir. */
export async function singersOfSong({ tx }: Context, id: Id<'song'>): Promise<SongSinger[]> {
  await mustFindSong(tx, id);
  const chosen = new Map((await choicesOf(tx, id)).map((c) => [c.singerId, c.chosen]));
  const trust = await trustIn(tx);
  return (await keptMaps(tx)).flatMap(({ id: singerId, name, map, pins, ...singer }) => {
    const voice = voiceIn(withPins(withTrust(map, trust), pins), singer);
    return voice ? [{ singerId, name, chosen: chosen.get(singerId) ?? null, voice: withoutTakes(voice) }] : [];
  });
}

/** A voice without what it was heard in. */
const withoutTakes = (voice: SongVoice): SongVoice => ({
  ...voice,
  changes: voice.changes.map((c) => ({ ...c, takeIds: [] })),
  findings: Object.fromEntries(Object.entries(voice.findings).map(([name, f]) => [name, { ...f, takeIds: [] }])),
});

/** A singer's songs, and the studio's others; and what the singer's road says of songs now. */
export async function viewRepertoire(ctx: Context, singerId: Id<'singer'>) {
  const { tx } = ctx;
  const singer = await mustFindSinger(tx, singerId);
  const own = await repertoireOf(tx, singerId);
  const source = await planSourceOf(ctx, singer, []);
  const p = planningIn(source);
  const now: SongsNow = { phase: p && p.phases[p.phase], show: nextShow(source.terms.dates ?? [], source.day) };
  return {
    singer: { id: singer.id, name: singer.name, voiceType: singer.voiceType, axis: singer.axis },
    voice: voiceIn(source.map, singer),
    now,
    own,
    others: (await songLines(tx)).filter((s) => !own.some((o) => o.id === s.id)),
    takes: await songBarsOf(tx, singerId),
  };
}

/** Of so many takes, the newest, the notes go to the page to be drawn; of older ones only how each bar went. */
const DRAWN_TAKES = 12;

const withoutNotes = <T extends { heard: Heard | null }>(t: T): T =>
  t.heard?.outcome ? { ...t, heard: { ...t.heard, outcome: { ...t.heard.outcome, notes: [] } } } : t;

/** One song as one singer meets it, with what the plan page works with, so that a bar goes into the week at once. */
export async function viewSong(ctx: Context, singerId: Id<'singer'>, songId: Id<'song'>) {
  const { tx } = ctx;
  const singer = await mustFindSinger(tx, singerId);
  const { song, note } = await mustFindSong(tx, songId);
  const source = await planSourceOf(ctx, singer, await practiceOf(tx, singerId, lately()));
  return {
    ...source,
    singer: { ...source.singer, name: singer.name, axis: singer.axis },
    voice: voiceIn(source.map, singer),
    songId,
    song,
    note,
    chosen: await chosenFor(tx, singerId, songId),
    models: await modelsFor(tx, singerId, { songs: [songId] }),
    takes: (await songTakesOf(tx, singerId, songId)).map((t, i) => (i < DRAWN_TAKES ? t : withoutNotes(t))),
    allTakes: (await songBarsOf(tx, singerId)).flatMap(({ bars }) => bars),
  };
}

export async function decide({ tx }: Context, singerId: Id<'singer'>, songId: Id<'song'>, chosen: Chosen) {
  await mustFindSinger(tx, singerId);
  await mustFindSong(tx, songId);
  await choose(tx, singerId, songId, chosen);
}

export async function forgetChoice({ tx }: Context, singerId: Id<'singer'>, songId: Id<'song'>) {
  await mustFindSinger(tx, singerId);
  await unchoose(tx, singerId, songId);
}

/**
 * Note of a fresh take which song it is, and what is predicted of it as the map stands before it is heard. A song that is gone, or a voice
 * that nothing is known of, must not cost a take.
 */
export async function noteSong(
  tx: StudioTx,
  takeId: Id<'take'>,
  singer: SingerRow,
  sung: { id: Id<'song'>; semitones: number },
): Promise<void> {
  const found = await findSong(tx, sung.id);
  if (!found) return;
  const voice = await voiceFor(tx, singer);
  const predicted: PredictedBar[] = voice ? predictionOf(found.song, risksOf(found.song, voice, sung.semitones)) : [];
  await insertSongTake(tx, { takeId, songId: sung.id, semitones: sung.semitones, predicted });
}
