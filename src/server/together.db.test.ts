import { Id, newId } from '../core/format/id';
import { randomUUID } from 'node:crypto';
import { Client } from 'pg';
import { EntriesInput } from '../contract/inputs';
import { writeWav } from '../core/format/wav';
import { inVoice } from '../core/exercise/keys';
import { SHELF } from '../core/exercise/shelf';
import { patternSpan } from '../core/exercise/pattern';
import type { VoiceTypeId } from '../core/plan/voice-types';
import { before, lineOn } from '../core/practice/made-log';
import { sing } from '../core/sim/sing';
import { typicalProfile } from '../core/sim/typical';
import { analyseTake } from '../core/take/analyse';
import { ENGINE } from '../core/engine';
import { inStudio, pool } from '../data/client';
import { doorPool, Member } from '../data/door';
import { insertTake, saveAnalysis } from '../data/takes';
import * as plans from '../studio/plans';
import * as practice from '../studio/practice';
import * as singers from '../studio/singers';
import * as together from '../studio/together';
import { sendLink } from './links';
import { entered, enteredByLink, madeStudio, takeAway } from './made-entry';

const addSinger = entered(singers.addSinger);
const setArchived = entered(singers.setArchived);
const viewTogether = entered(together.viewTogether);
const assignTogether = entered(together.assignTogether);
const assign = entered(plans.assign);
const addEntries = enteredByLink(practice.addEntries);

let mockMember: Member | null = null;
jest.mock('next/headers', () => ({ headers: async () => new Headers(), cookies: async () => ({ get: () => undefined }) }));
jest.mock('./session', () => ({
  presentMember: async () => mockMember,
  senderAddress: async () => 'test',
  afterAnswer: (work: () => Promise<unknown>) => void work(),
}));

const owner = new Client({ connectionString: process.env.WENDEL_OWNER_URL });
let studioId: Id<'studio'>;

beforeAll(async () => {
  await owner.connect();
  studioId = await madeStudio(owner, 'Choir');
  mockMember = { userId: 'marit', name: 'Marit', email: 'marit@example.com', studioId, role: 'owner' };
});
afterAll(async () => {
  await takeAway(owner, studioId);
  await owner.end();
  await pool().end();
  await doorPool().end();
});

const singer = (name: string, voiceType: VoiceTypeId) =>
  addSinger({ name, part: '', voiceType, note: '', email: null, intake: null, school: null });

/** A singer who has slid up and down once. */
async function heard(name: string, voiceType: VoiceTypeId): Promise<Id<'singer'>> {
  const id = await singer(name, voiceType);
  const { pcm } = sing(typicalProfile(voiceType, 'flip'), { kind: 'siren', legS: 2.5 }, { seed: 3, sampleRate: 16000, snrDb: 50 });
  const takeId = newId('take');
  const file = writeWav(pcm, 16);
  await inStudio(studioId, async (tx) => {
    await insertTake(tx, {
      id: takeId,
      singerId: id,
      task: 'siren',
      vowel: 'ah',
      colour: null,
      source: 'simulated',
      sha256: 'a'.repeat(64),
      bytes: file.length,
      durationS: pcm.samples.length / 16000,
      sampleRate: 16000,
      lessonId: null,
      step: '',
      asked: null,
      note: '',
      recordedAt: new Date(),
    });
    await saveAnalysis(tx, takeId, ENGINE, analyseTake(pcm, 'siren'));
  });
  return id;
}

test('sets are for those who are ticked and were heard; who told of trouble today rests, and is named', async () => {
  const [mezzo, tenor] = [await heard('Ilse Rushes', 'mezzo'), await heard('Odo Rushes', 'tenor')];
  const unheard = await singer('Bram Rushes', 'bass');

  expect(await viewTogether([])).toMatchObject({ chosen: [], unheard: [], resting: [], range: null, sets: [], voice: null });
  const alone = await viewTogether([mezzo]);
  expect(alone).toMatchObject({ chosen: [mezzo], octaveUnder: [], voice: 'mezzo' });
  const both = await viewTogether([mezzo, tenor, unheard, randomUUID(), 'nonsense']);
  expect(both).toMatchObject({ unheard: ['Bram Rushes'], resting: [], octaveUnder: ['Odo Rushes'], voice: 'mezzo' });
  expect([...both.chosen].sort()).toEqual([mezzo, tenor, unheard].sort());
  const { range } = both;
  expect(range!.low).toBeGreaterThanOrEqual(alone.range!.low);
  expect(range!.high).toBeLessThanOrEqual(alone.range!.high);
  expect(both.sets.map((s) => s.id)).toContain('warm-up-8');
  for (const { items } of both.sets)
    for (const { exercise, keys } of items) for (const key of keys) expect(inVoice(patternSpan(exercise), key, range!)).toBe(true);

  // Told on the phone, it holds here at once: the others go on without.
  const { address } = await sendLink(tenor);
  const day = new Date().toISOString().slice(0, 10);
  await addEntries(address.split('/p/')[1], EntriesInput.parse({ entries: [lineOn(day, before({ pain: true }))] }));
  expect(await viewTogether([mezzo, tenor])).toMatchObject({ resting: ['Odo Rushes'], octaveUnder: [], range: alone.range });
});

test('who was put away, or is another studio’s, is not there to be ticked', async () => {
  const gone = await heard('Wren Rushes', 'soprano');
  await setArchived(gone, true);
  const theirs = (await owner.query('select id from singer where studio_id <> $1 limit 1', [studioId])).rows[0]?.id ?? randomUUID();
  const view = await viewTogether([gone, theirs]);
  expect(view.singers.map((s) => s.name)).not.toContain('Wren Rushes');
  expect(view).toMatchObject({ chosen: [], sets: [] });
});

describe('a set given to all of them', () => {
  const day = '2026-12-07';
  const given = async (singerId: Id<'singer'>) =>
    (
      await owner.query('select items, note, starts_on::text as starts_on from assignment where singer_id = $1 order by created_at desc', [
        singerId,
      ])
    ).rows as { items: { exerciseId: string; keys: number[]; exercise: { id: string } }[]; note: string; starts_on: string }[];
  const item = { part: 'work' as const, keys: [60], sound: 'oo', tempo: 90, minutes: 2, timesADay: 1, days: [0] };
  const ITEM = { ...item, reason: '', caution: '', rules: [], advance: '' };
  const set = { set: 'warm-up-3' as const, startsOn: day, note: 'Every day before breakfast', beside: true };

  test('becomes the week of who has none, in the octave they sing in; who was not heard is named and left out', async () => {
    const [high, low] = [await heard('Ada Sedge', 'soprano'), await heard('Bo Sedge', 'bass')];
    const unheard = await singer('Cy Sedge', 'tenor');
    const theirs = (await owner.query('select id from singer where studio_id <> $1 limit 1', [studioId])).rows[0]?.id ?? randomUUID();
    const view = await viewTogether([high, low]);
    const shown = view.sets.find((s) => s.id === 'warm-up-3')!;
    expect(await assignTogether({ ...set, singerIds: [high, low, unheard, theirs] })).toEqual({
      given: ['Ada Sedge', 'Bo Sedge'],
      unheard: ['Cy Sedge'],
      resting: [],
    });
    const [[hers], [his]] = [await given(high), await given(low)];
    for (const week of [hers, his]) expect(week).toMatchObject({ note: 'Every day before breakfast', starts_on: day });
    expect(hers.items.map((it) => [it.exercise.id, it.keys])).toEqual(shown.items.map((it) => [it.exercise.id, it.keys]));
    expect(his.items.map((it) => it.keys)).toEqual(shown.items.map((it) => it.keys.map((key) => key - 12)));
    expect(await given(unheard)).toEqual([]);
  });

  test('comes beside the week they are in, once, or instead of it; a week that is over is not gone back to', async () => {
    const id = await heard('Dot Sedge', 'mezzo');
    const shown = (await viewTogether([id])).sets.find((s) => s.id === 'warm-up-3')!.items.map((it) => it.exercise.id);
    const own = { ...ITEM, exerciseId: 'nine-note' };
    // What the set holds as well stays as it was given.
    const both = { ...ITEM, exerciseId: shown[0], keys: [61] };
    await assign({ singerId: id, note: 'Slowly', startsOn: '2026-12-04', items: [own, both] });

    await assignTogether({ ...set, singerIds: [id] });
    const [beside] = await given(id);
    expect(beside.items.map((it) => it.exerciseId)).toEqual([...shown.slice(1), 'nine-note', shown[0]]);
    expect(beside.items.find((it) => it.exerciseId === shown[0])!.keys).toEqual([61]);
    expect(beside).toMatchObject({ starts_on: '2026-12-04', note: 'Every day before breakfast\nSlowly' });

    // Pressed again nothing is given twice.
    await assignTogether({ ...set, singerIds: [id] });
    expect(await given(id)).toHaveLength(2);

    await assignTogether({ ...set, singerIds: [id], beside: false });
    expect((await given(id))[0]).toMatchObject({ starts_on: day, note: 'Every day before breakfast' });
    expect((await given(id))[0].items.map((it) => it.exerciseId)).toEqual(shown);

    await assignTogether({ ...set, singerIds: [id], startsOn: '2026-12-14', note: '' });
    expect((await given(id))[0]).toMatchObject({ starts_on: '2026-12-14', note: '' });
  });

  test('is given to all or to nobody: a full week, or a set that nobody can sing, is said and leaves nothing behind', async () => {
    const [first, full] = [await heard('Eb Sedge', 'mezzo'), await heard('Fay Sedge', 'mezzo')];
    const others = SHELF.slice(-30);
    await assign({ singerId: full, note: '', startsOn: day, items: others.map((e) => ({ ...ITEM, exerciseId: e.id })) });
    await expect(assignTogether({ ...set, singerIds: [first, full] })).rejects.toMatchObject({ code: 'conflict' });
    expect(await given(first)).toEqual([]);
    await expect(assignTogether({ ...set, singerIds: [await singer('Gil Sedge', 'bass')] })).rejects.toMatchObject({ code: 'conflict' });
  });
});
