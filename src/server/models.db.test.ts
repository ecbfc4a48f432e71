import { Id, newId } from '../core/format/id';
import { randomUUID } from 'node:crypto';
import { Client } from 'pg';
import { modelledPhrase, modelsOf, MOST_MODELS } from '../core/exercise/model';
import { LONGEST_SHORT_S } from '../core/format/short-sound';
import { writeWav } from '../core/format/wav';
import { dayLater } from '../core/plan/days';
import { USUAL_TERMS } from '../core/plan/request';
import { before, lineOn } from '../core/practice/made-log';
import type { Entry } from '../core/practice/types';
import { DEMO_SONGS } from '../core/song/demo-songs';
import { pool } from '../data/client';
import { doorPool, Member } from '../data/door';
import { AssignmentInput, EntriesInput, ModelMeta } from '../contract/inputs';
import * as models from '../studio/models';
import * as plans from '../studio/plans';
import * as practice from '../studio/practice';
import * as singers from '../studio/singers';
import * as songs from '../studio/songs';
import * as list from '../studio/studio-list';
import { bySinger, sendLink as makeLink } from './links';
import { entered, enteredByLink } from './made-entry';

const assign = entered(plans.assign);
const addSinger = entered(singers.addSinger);
const viewStudio = entered(list.viewStudio);
const saveModel = entered(models.saveModel);
const removeModel = entered(models.removeModel);
const modelSound = (id: Id<'model'>) => entered(models.modelSound)(id, undefined);
const modelForSinger = (token: string, id: Id<'model'>) => bySinger(token)((ctx, singerId) => models.modelSound(ctx, id, singerId));
const addEntries = enteredByLink(practice.addEntries);
const viewPractice = enteredByLink(practice.viewPractice);
const answer = entered(practice.answer);
const saveSong = entered(songs.saveSong);
const removeSong = entered(songs.removeSong);
const decide = entered(songs.decide);
const viewSong = entered(songs.viewSong);
const savePlan = entered(plans.savePlan);

let mockMember: Member | null = null;
jest.mock('next/headers', () => ({ headers: async () => new Headers(), cookies: async () => ({ get: () => undefined }) }));
jest.mock('./session', () => ({
  presentMember: async () => mockMember,
  senderAddress: async () => 'test',
  afterAnswer: (work: () => Promise<unknown>) => void work(),
}));

const owner = new Client({ connectionString: process.env.WENDEL_OWNER_URL });
const wavOf = (seconds: number, level = 0.1) =>
  Buffer.from(writeWav({ samples: new Float32Array(Math.round(8000 * seconds)).fill(level), sampleRate: 8000 }, 16));
const meta = (more: Partial<ModelMeta> = {}) =>
  ModelMeta.parse({ id: randomUUID(), exerciseId: 'five-note-ah', manner: 'like-this', ...more });
type ModelMeta = Parameters<typeof saveModel>[0];

const FIELDS = { part: '', voiceType: 'tenor' as const, note: '', email: null, intake: null, school: null };

let singerId: Id<'singer'>;
let other: Id<'singer'>;
let token: string;

beforeAll(async () => {
  await owner.connect();
  const studioId = (await owner.query('select id from studio order by created_at limit 1')).rows[0].id;
  mockMember = { userId: 'marit', name: 'Marit', email: 'marit@example.com', studioId, role: 'owner' };
  singerId = await addSinger({ name: 'Bram Weir', ...FIELDS });
  other = await addSinger({ name: 'Ilse Weir', ...FIELDS });
  token = (await makeLink(singerId)).address.split('/p/')[1];
  const item = {
    exerciseId: 'five-note-ah',
    part: 'work',
    keys: [55],
    sound: 'ah',
    tempo: 90,
    minutes: 2,
    timesADay: 1,
    days: [0, 1, 2, 3, 4, 5, 6],
    reason: '',
    caution: '',
    rules: [],
    advance: '',
  };
  await assign(AssignmentInput.parse({ singerId, startsOn: '2026-11-23', items: [item] }));
});
afterAll(async () => {
  await owner.query('delete from model');
  await owner.query('delete from singer where name like $1', ['% Weir']);
  await owner.end();
  await pool().end();
  await doorPool().end();
});

describe('a coach’s voice on an exercise', () => {
  test('a new one takes the place of the old; what is for one singer is nobody else’s', async () => {
    const [first, second] = [meta(), meta()];
    await saveModel(first, wavOf(1));
    await saveModel(second, wavOf(2));
    await expect(modelSound(first.id)).rejects.toThrow(/no such model/);
    expect((await modelSound(second.id)).equals(wavOf(2))).toBe(true);

    const [mine, theirs] = [meta({ singerId }), meta({ singerId: other, manner: 'not-like-this' })];
    await saveModel(mine, wavOf(3));
    await saveModel(theirs, wavOf(4));
    const { models } = await viewPractice(token);
    expect(models.map((m) => m.id).sort()).toEqual([second.id, mine.id].sort());
    expect((await modelForSinger(token, mine.id)).equals(wavOf(3))).toBe(true);
    await expect(modelForSinger(token, theirs.id)).rejects.toThrow(/no such model/);
    await removeModel(mine.id);
    await expect(modelForSinger(token, mine.id)).rejects.toThrow(/no such model/);
    // Going with a singer, what was made for them goes.
    await owner.query('delete from singer where id = $1', [other]);
    expect((await owner.query('select count(*)::int as n from model where id = $1', [theirs.id])).rows[0].n).toBe(0);
  });

  test('on a phrase of a song it is heard by whose song it is, and goes with the song', async () => {
    const songId = newId('song');
    const [song] = DEMO_SONGS;
    await saveSong({ id: songId, song, note: '' });
    const [mine, theirs] = [null, null].map(() => meta({ exerciseId: modelledPhrase(songId, 0, -12), singerId }));
    theirs.singerId = await addSinger({ ...FIELDS, name: 'Odo Weir' });
    await saveModel(mine, wavOf(1));
    await saveModel(theirs, wavOf(2));
    const onThePhone = async () => (await viewPractice(token)).models.filter((m) => m.exerciseId.includes(songId));
    // Not before the singer has the song in a key.
    expect(await onThePhone()).toEqual([]);
    await decide(singerId, songId, { semitones: -12, ways: {}, note: '' });
    expect(await onThePhone()).toEqual([mine]);
    expect((await viewSong(singerId, songId)).models).toEqual([mine]);
    // Recorded in this key: another has none.
    expect(modelsOf([mine], modelledPhrase(songId, 0, -11), singerId)).toEqual({});
    await removeSong(songId);
    expect((await owner.query('select id from model where exercise_id like $1', [`%${songId}%`])).rows).toEqual([]);
  });

  test('what is too long, no sound, or one too many is refused in words', async () => {
    await expect(saveModel(meta(), wavOf(LONGEST_SHORT_S + 1))).rejects.toThrow(/12 seconds long at most; this recording has 13/);
    await expect(saveModel(meta(), Buffer.from('nothing'))).rejects.toThrow(/not a WAV file/);
    await expect(saveModel(meta({ singerId: newId('singer') }), wavOf(1))).rejects.toThrow(/no such singer/i);
    await owner.query(
      "insert into model (id, studio_id, exercise_id, manner, wav) select gen_random_uuid(), $1, 'e' || n, 'like-this', '\\x00' from generate_series(1, $2) n",
      [mockMember!.studioId, MOST_MODELS],
    );
    await expect(saveModel(meta({ exerciseId: 'one-more' }), wavOf(1))).rejects.toThrow(/keeps 150 models/);
  });
});

test('a singer’s own words stand in the list until they are answered; the phone shows the answer', async () => {
  const id = newId('entry');
  const what = {
    kind: 'item',
    exerciseId: 'five-note-ah',
    name: 'Five notes',
    sound: 'ah',
    tempo: 90,
    keys: [55],
    seconds: 60,
    load: null,
    success: null,
    effort: 2,
    signs: [],
    byHand: false,
    word: 'Is the last key too low?',
    felt: ['crown'],
    lighter: true,
  };
  const day = new Date().toISOString().slice(0, 10);
  // Whoever sends a line can't answer it for the coach.
  const lines = EntriesInput.parse({ entries: [{ id, assignmentId: null, day, at: new Date().toISOString(), what, answer: 'Yes' }] });
  await addEntries(token, lines);
  const asks = async () => (await viewStudio()).singers.find((s) => s.id === singerId)?.asks;
  expect(await asks()).toEqual({ word: 'Is the last key too low?', name: 'Five notes' });
  expect((await viewPractice(token)).entries.find((e) => e.id === id)).toMatchObject({
    what: { word: what.word, felt: ['crown'], lighter: true },
  });
  expect((await viewPractice(token)).entries.find((e) => e.id === id)?.answer).toBeUndefined();
  await answer(id, { answer: 'A tone higher next week.' });
  expect(await asks()).toBeNull();
  expect((await viewPractice(token)).entries.find((e) => e.id === id)?.answer).toBe('A tone higher next week.');
  // The coach's word that it went as meant stands beside the answer, and can be taken back.
  await answer(id, { granted: true });
  const line = async () => (await viewPractice(token)).entries.find((e) => e.id === id);
  expect(await line()).toMatchObject({ granted: true, answer: 'A tone higher next week.' });
  await answer(id, { granted: false });
  expect(await line()).not.toHaveProperty('granted');
  await expect(answer(newId('entry'), { answer: 'x' })).rejects.toThrow(/no such line/);
});

test('a trial of one is seen whole on the phone, though it takes longer than the phone looks back', async () => {
  const begun = dayLater(new Date().toISOString().slice(0, 10), -100);
  const trial = randomUUID();
  const line = (days: number, what: Entry['what']) => lineOn(dayLater(begun, days), what);
  const broke = { leapSt: 3, heard: 100 };
  const lines = [
    line(0, { kind: 'trial', trial, arm: 'hum', minutes: 0, before: broke, after: broke }),
    line(0, before()),
    line(99, { kind: 'trial', trial, arm: 'straw', minutes: 0, before: broke, after: broke }),
  ];
  await addEntries(token, EntriesInput.parse({ entries: lines }));
  const seen = async () => (await viewPractice(token)).entries.filter(({ id }) => lines.some((l) => l.id === id)).map((e) => e.id);
  expect(await seen()).toEqual([lines[2].id]);
  await savePlan(singerId, { terms: { ...USUAL_TERMS, trial: { id: trial, begun } } });
  expect(await seen()).toEqual([lines[0].id, lines[2].id]);
  // An arm that is none, and a leap that no voice has, are refused.
  for (const wrong of [{ arm: 'gum' }, { before: { leapSt: 99, heard: 0 } }])
    expect(EntriesInput.safeParse({ entries: [{ ...lines[0], what: { ...lines[0].what, ...wrong } }] }).success).toBe(false);
});
