import { Id, newId } from '../core/format/id';
import { inEnglish } from '../core/format/say';
import { exerciseHow, exerciseName } from '../core/exercise/of-song';
import { createHash, randomUUID } from 'node:crypto';
import { createWriteStream, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { unzipSync, zipSync } from 'fflate';
import { Client } from 'pg';
import { ENGINE } from '../core/engine';
import { exerciseById, SHELF } from '../core/exercise/shelf';
import { ExerciseShape } from '../core/format/exercise';
import { SingerShape } from '../core/format/singer';
import { MAX_TAKE_BYTES, writeWav } from '../core/format/wav';
import { advance, anchorsFor, beginCourse } from '../core/lesson/course';
import { PROTOCOLS } from '../core/lesson/protocols';
import { editsOf } from '../core/plan/edits';
import { planFor } from '../core/plan/plan';
import { USUAL_TERMS } from '../core/plan/request';
import { sing } from '../core/sim/sing';
import { songTask } from '../core/sim/song';
import { typicalProfile } from '../core/sim/typical';
import { DEMO_SONGS } from '../core/song/demo-songs';
import { bringIn, bundleOf } from '../studio/bundle-file';
import { inStudio, pool } from '../data/client';
import { doorPool, Member } from '../data/door';
import { wendelIn } from '../studio/context';
import { poolNow, poolOne } from '../studio/pooling';
import { enqueueAnalysis, openQueue } from '../data/queue';
import { studioSettings } from '../data/studios';
import { analyseJob } from '../studio/analyse';
import { sweepSound } from '../studio/sweep';
import { COLOURS } from '../core/take/types';
import { AssignmentInput, EntriesInput, HeardInput, PlanInput, SongInput, TakeMeta, TemplateInput } from '../contract/inputs';
import { axisOf } from '../data/singers';
import { takesToAnalyse } from '../data/takes';
import * as audit from '../studio/audit';
import * as ears from '../studio/ears';
import * as exercises from '../studio/exercises';
import * as lessons from '../studio/lessons';
import { putSpoken } from '../data/spoken';
import { saveModel as saveModelIn } from '../studio/models';
import * as plans from '../studio/plans';
import { before, done } from '../core/practice/made-log';
import * as practice from '../studio/practice';
import { changeSettings as changeSettingsIn } from '../studio/settings';
import * as singers from '../studio/singers';
import * as songs from '../studio/songs';
import { viewStudio as viewStudioIn } from '../studio/studio-list';
import * as takes from '../studio/takes';
import { health } from './health';
import { inPresentStudio } from './let-in';
import { sendAgain, sendLink as makeLink, viewPost as viewMessages } from './links';
import { entered, enteredByLink } from './made-entry';
import { madeMailServer } from './made-mail-server';
import { receivePracticeTake as receiveFromPhone, receiveTake as receiveUpload } from './receive-take';

/** Who asks, in place of a browser's cookie. */
let mockMember: Member | null = null;
/** What goes on when the answer is given. */
const mockLater: Promise<unknown>[] = [];
jest.mock('next/headers', () => ({ headers: async () => new Headers(), cookies: async () => ({ get: () => undefined }) }));
jest.mock('./session', () => ({
  presentMember: async () => mockMember,
  senderAddress: async () => 'test',
  afterAnswer: (work: () => Promise<unknown>) => void mockLater.push(work()),
}));
// As the pages enter them.
const removeExercise = entered(exercises.removeExercise);
const saveExercise = entered(exercises.saveExercise);
const viewShelf = entered(exercises.viewShelf);
const sayHeard = entered(ears.sayHeard);
const viewAudit = entered(audit.viewAudit);
const saveModel = entered(saveModelIn);
const changeSettings = entered(changeSettingsIn);
const viewStudio = entered(viewStudioIn);
const assign = entered(plans.assign);
const savePlan = entered(plans.savePlan);
const saveTemplate = entered(plans.saveTemplate);
const viewLog = entered(practice.viewLog);
const viewAssignment = entered(plans.viewAssignment);
const viewPlan = entered(plans.viewPlan);
const changeLesson = entered(lessons.changeLesson);
const saveProtocol = entered(lessons.saveProtocol);
const startLesson = entered(lessons.startLesson);
const viewLesson = entered(lessons.viewLesson);
const viewListening = entered(lessons.viewListening);
const addSinger = entered(singers.addSinger);
const editSinger = entered(singers.editSinger);
const pinValue = entered(singers.pinValue);
const removeSinger = entered(singers.removeSinger);
const setArchived = entered(singers.setArchived);
const viewSinger = entered(singers.viewSinger);
const decide = entered(songs.decide);
const singersOfSong = entered(songs.singersOfSong);
const forgetChoice = entered(songs.forgetChoice);
const removeSong = entered(songs.removeSong);
const saveSong = entered(songs.saveSong);
const viewRepertoire = entered(songs.viewRepertoire);
const viewSong = entered(songs.viewSong);
const viewSongs = entered(songs.viewSongs);
const discardTake = entered(takes.discardTake);
const setMark = entered(takes.setMark);
const viewTake = entered(takes.viewTake);
const addEntries = enteredByLink(practice.addEntries);
const viewPractice = enteredByLink(practice.viewPractice);
const takeAudioStream = (id: Id<'take'>, from: number, to: number) => takes.takeAudioStream(inPresentStudio, id, from, to);
const receiveTake = (of: TakeMeta, body: AsyncIterable<Uint8Array> | null, announcedBytes: number | null) =>
  receiveUpload(of, { body, announcedBytes });
const receivePracticeTake = (token: string, of: TakeMeta, body: AsyncIterable<Uint8Array>, announcedBytes: number) =>
  receiveFromPhone(token, of, { body, announcedBytes });

const allDone = () => Promise.all(mockLater.splice(0));

const owner = new Client({ connectionString: process.env.WENDEL_OWNER_URL });
const wav = writeWav(
  sing(typicalProfile('tenor', 'flip'), { kind: 'siren', legS: 2.5, sirens: 2 }, { seed: 1, sampleRate: 48000 }).pcm,
  24,
);
let singerId: Id<'singer'>;
let studioId: Id<'studio'>;

beforeAll(async () => {
  await owner.connect();
  studioId = (await owner.query('select id from studio')).rows[0].id;
  mockMember = { userId: 'marit', name: 'Marit', email: 'marit@example.com', studioId, role: 'owner' };
  singerId = await addSinger({
    name: 'Pell Sander',
    part: 'The Ferryman',
    voiceType: 'tenor',
    note: '',
    email: null,
    intake: null,
    school: null,
  });
  studioId = (await owner.query('select id from studio')).rows[0].id;
});
afterAll(async () => {
  await owner.end();
  await pool().end();
  await doorPool().end();
  await (globalThis as unknown as { wendelQueue?: ReturnType<typeof openQueue> }).wendelQueue?.then((q) => q.stop({ graceful: false }));
});

const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');
const meta = (bytes: Uint8Array, more: Partial<TakeMeta> = {}): TakeMeta => ({
  id: newId('take'),
  singerId,
  task: 'siren',
  vowel: 'ah',
  colour: null,
  source: 'microphone',
  sha256: sha256(bytes),
  recordedAt: new Date(),
  lessonId: null,
  step: '',
  asked: null,
  song: null,
  ...more,
});

/** A body as the network gives it: in pieces. */
async function* pieces(bytes: Uint8Array, size = 65_536): AsyncGenerator<Uint8Array> {
  for (let at = 0; at < bytes.length; at += size) yield bytes.subarray(at, at + size);
}
async function bytesOf(stream: ReadableStream<Uint8Array>): Promise<Uint8Array> {
  const parts: Uint8Array[] = [];
  const reader = stream.getReader();
  for (let part = await reader.read(); !part.done; part = await reader.read()) parts.push(part.value);
  return Buffer.concat(parts);
}
const receive = (bytes: Uint8Array, more: Partial<TakeMeta> = {}) => {
  const m = meta(bytes, more);
  return receiveTake(m, pieces(bytes), bytes.length).then(() => m.id);
};
const counts = async () =>
  (
    await owner.query(
      'select (select count(*) from take)::int as takes, (select count(*) from take_audio)::int as parts, (select count(*) from pgboss.job)::int as jobs',
    )
  ).rows[0];

describe('a take', () => {
  test('comes back byte for byte, with its analysis job beside it', async () => {
    const before = await counts();
    const id = await receive(wav);
    expect(await counts()).toMatchObject({
      takes: before.takes + 1,
      parts: before.parts + Math.ceil(wav.length / 1e6),
      jobs: before.jobs + 1,
    });
    const back = await bytesOf(await takeAudioStream(id, 0, wav.length));
    expect(sha256(back)).toBe(sha256(wav));
    const middle = await bytesOf(await takeAudioStream(id, 999_990, 1_000_010));
    expect([...middle]).toEqual([...wav.subarray(999_990, 1_000_010)]);
  });

  test('sent twice is stored once; another sound under its id is refused', async () => {
    const m = meta(wav);
    await receiveTake(m, pieces(wav), wav.length);
    const before = await counts();
    expect(await receiveTake(m, pieces(wav), wav.length)).toEqual({ id: m.id, repeated: true });
    const other = writeWav({ samples: new Float32Array(9000), sampleRate: 44100 });
    await expect(receiveTake({ ...m, sha256: sha256(other) }, pieces(other), other.length)).rejects.toThrow(/record again/);
    expect(await counts()).toEqual(before);
  });

  const noChannels = Uint8Array.from(wav);
  noChannels.set([0, 0], 22);
  // A minute takes half a megabyte at 8 kHz and 8 bits: bytes alone say nothing of the work.
  const long = writeWav({ samples: new Float32Array(16 * 60 * 8000).fill(0.1), sampleRate: 8000 }, 16);
  async function* endless() {
    yield wav.subarray(0, 65_536);
    const block = new Uint8Array(1_000_000);
    for (let sent = 0; sent < 2 * MAX_TAKE_BYTES; sent += block.length) yield block;
  }
  test.each<[string, () => Promise<unknown>, RegExp]>([
    ['empty', () => receive(new Uint8Array(0)), /empty/],
    ['no body', () => receiveTake(meta(wav), null, null), /empty/],
    ['words', () => receive(new TextEncoder().encode('la la la, not a sound file at all')), /not a WAV/],
    ['garbage after a good start', () => receive(Uint8Array.of(...wav.subarray(0, 12), ...new Uint8Array(100_000).fill(7))), /no sound/],
    ['no channels', () => receive(noChannels), /no channels/],
    ['cut off', () => receive(wav.subarray(0, 200_000)), /cut off/],
    ['sixteen minutes long, in few bytes', () => receive(long), /16 minutes long; at most 15/],
    ['changed on the way', () => receive(wav, { sha256: 'a'.repeat(64) }), /changed on its way/],
    ['200 MB announced', () => receiveTake(meta(wav), pieces(wav), 200_000_000), /larger than 104 MB/],
    ['200 MB without saying so', () => receiveTake(meta(wav), endless(), null), /larger than 104 MB/],
    ['for nobody here', () => receive(wav, { singerId: newId('singer') }), /not in the studio/],
  ])('%s: refused in plain words, and neither row nor job stays', async (_, send, message) => {
    const before = await counts();
    await expect(send()).rejects.toThrow(message);
    expect(await counts()).toEqual(before);
  });

  test("analysed twice has one analysis; the coach's mark survives; discarded, nothing of it is left", async () => {
    const id = await receive(wav);
    expect((await viewTake(id)).analysis).toBeNull();
    await analyseJob({ studioId, takeId: id });
    const markId = newId('mark');
    await setMark(id, markId, { timeS: 1.5, midi: 63, direction: 'up', verdict: 'move', by: 'coach' });
    await setMark(id, markId, { timeS: 1.5, midi: 62, direction: 'up', verdict: 'move', by: 'coach' });
    await analyseJob({ studioId, takeId: id });
    const { analysis, marks } = await viewTake(id);
    expect(analysis).toMatchObject({ engine: ENGINE, error: null, findings: { quality: { usable: true } } });
    expect(marks).toEqual([{ id: markId, timeS: 1.5, midi: 62, direction: 'up', verdict: 'move', by: 'coach' }]);
    await discardTake(id);
    await analyseJob({ studioId, takeId: id });
    const left = await owner.query(
      'select (select count(*) from analysis where take_id = $1) + (select count(*) from mark where take_id = $1) + (select count(*) from take_audio where take_id = $1) as n',
      [id],
    );
    expect(Number(left.rows[0].n)).toBe(0);
  });

  test("an earlier engine's findings stay and are not shown; the take waits for this engine", async () => {
    const id = await receive(wav);
    await owner.query("insert into analysis (studio_id, take_id, engine, findings) values ($1, $2, 'wendel-1', '{}')", [studioId, id]);
    expect((await viewTake(id)).analysis).toBeNull();
    expect(await inStudio(studioId, takesToAnalyse)).toContain(id);
    await analyseJob({ studioId, takeId: id });
    expect(await inStudio(studioId, takesToAnalyse)).not.toContain(id);
    expect((await viewTake(id)).analysis).toMatchObject({ engine: ENGINE });
    const kept = await owner.query("select count(*) from analysis where take_id = $1 and engine = 'wendel-1'", [id]);
    expect(Number(kept.rows[0].count)).toBe(1);
    await discardTake(id);
  });

  test('the fourth colour calibrates the singer, and every other take is read again along the new axis', async () => {
    const profile = typicalProfile('tenor', 'flip');
    const own = await addSinger({ name: 'Ansa Reed', part: '', voiceType: 'tenor', note: '', email: null, intake: null, school: null });
    const siren = await receive(wav, { singerId: own });
    await analyseJob({ studioId, takeId: siren });
    const held = COLOURS.map((colour, i) => ({
      colour,
      file: writeWav(sing(profile, { kind: 'sustain', midi: 57, seconds: 1.5, head: i / 3 }, { seed: i, sampleRate: 16000 }).pcm),
    }));
    const ids: Id<'take'>[] = [];
    for (const { colour, file } of held) {
      const id = await receive(file, { singerId: own, colour, task: 'sustain' });
      ids.push(id);
      expect(await inStudio(studioId, (tx) => axisOf(tx, own))).toBeUndefined();
      await analyseJob({ studioId, takeId: id });
    }
    expect((await inStudio(studioId, (tx) => axisOf(tx, own)))!.apart).toBeGreaterThan(2);
    const waiting = await owner.query("select count(*) from pgboss.job where name = 'analyse-take' and data->>'takeId' = $1", [siren]);
    expect(Number(waiting.rows[0].count)).toBe(2);
    await analyseJob({ studioId, takeId: siren });
    expect((await viewTake(siren)).analysis!.findings!.calibrated).toBe(true);
    for (const id of [siren, ...ids]) await discardTake(id);
  });

  test('a sound that holds no voice is kept and says so', async () => {
    const silence = writeWav({ samples: new Float32Array(44100), sampleRate: 44100 });
    const id = await receive(silence);
    await analyseJob({ studioId, takeId: id });
    expect((await viewTake(id)).analysis!.findings!.quality).toMatchObject({ usable: false, reasons: [expect.stringMatching(/silent/)] });
  });
});

test('map, plan and assignment follow from the takes', async () => {
  const id = await addSinger({ name: 'Ina Reed', part: '', voiceType: 'tenor', note: '', email: null, intake: null, school: null });
  const planOf = async () => {
    const { singer, map, school, terms } = await viewPlan(id);
    return planFor({ ...terms, map, school, voiceType: singer.voiceType, shelf: SHELF, minor: false, today: null });
  };
  expect(await planOf()).toBeNull();
  for (const seed of [1, 2]) {
    const bytes = writeWav(sing(typicalProfile('tenor', 'flip'), { kind: 'siren', legS: 2.5 }, { seed, sampleRate: 22050 }).pcm, 16);
    const takeId = await receive(bytes, { singerId: id });
    await analyseJob({ studioId, takeId });
  }
  const { map } = await viewSinger(id);
  expect(map.passaggi).toHaveLength(1);
  const plan = (await planOf())!;
  expect(plan.worksOn).toContain('flip');
  // One of the studio's own, changed after it was assigned: the sheet keeps what was assigned.
  const mine = { ...exerciseById('long-siren'), id: randomUUID(), name: 'My siren' };
  await saveExercise(ExerciseShape.parse(mine));
  const items = [...plan.items, { ...plan.items[0], exerciseId: mine.id }];
  const input = AssignmentInput.parse({ singerId: id, note: 'Lightly.', startsOn: '2027-01-04', items });
  const assignmentId = await assign(input);
  // From now on the singer is in that phase, whatever the map says later.
  expect((await viewPlan(id)).terms.phaseId).toBe(plan.phases[plan.phase].id);
  await saveExercise({ ...mine, name: 'Another' });
  const view = await viewAssignment(assignmentId);
  expect(view.assignment.startsOn).toBe('2027-01-04');
  expect(view.items.map(({ exercise, item }) => [item.exerciseId, exercise.name]).at(-1)).toEqual([mine.id, 'My siren']);
  expect(view.items.map(({ item: { exercise: _, ...item } }) => item)).toEqual(items);
  await removeExercise(mine.id);
  await expect(assign(input)).rejects.toThrow(/no longer on the shelf/);
  // What is agreed and what the coach changed are there again.
  const terms = { ...USUAL_TERMS, minutesADay: 30, grades: { crossing: 3 } };
  const edits = editsOf(plan.items, plan.items.slice(1));
  await savePlan(id, PlanInput.parse({ terms, edits, school: 'covered' }));
  expect(await viewPlan(id)).toMatchObject({ terms, edits, school: 'covered' });
  expect((await viewSinger(id)).takes).toHaveLength(2);
  await expect(viewSinger(newId('singer'))).rejects.toThrow(/no such singer/);
});

describe('lessons', () => {
  const course = () => beginCourse(PROTOCOLS[1], anchorsFor(null, 'tenor'));

  test('a start sent twice is one lesson; the newest revision stays, whatever order it comes in', async () => {
    const input = { id: newId('lesson'), singerId, name: 'Re-check', course: course() };
    await startLesson(input);
    await startLesson(input);
    const later = advance(advance(input.course, { kind: 'health', answers: { hoarse: true, ill: false, pain: false, note: '' } }), {
      kind: 'taken',
    });
    await changeLesson(input.id, { course: later });
    await changeLesson(input.id, { course: input.course, note: 'Slept badly.' });
    const { lesson } = await viewLesson(singerId, input.id);
    expect(lesson).toMatchObject({ course: later, note: 'Slept badly.', endedAt: null });
    expect((await viewListening(singerId)).lessons.filter((l) => l.id === input.id)).toHaveLength(1);
    expect((await viewStudio()).singers.find((s) => s.id === singerId)!.health).toMatchObject({ hoarse: true });
    await expect(changeLesson(newId('lesson'), { note: '' })).rejects.toThrow(/no such lesson/);
  });

  test('a take belongs to its lesson, and is stored although the lesson never arrived', async () => {
    const lessonId = newId('lesson');
    await startLesson({ id: lessonId, singerId, name: 'Re-check', course: course() });
    const asked = { degrees: [1, 2, 3], tonicMidi: 60 };
    expect((await viewTake(await receive(wav, { lessonId, step: 'Siren 1', asked }))).take).toMatchObject({
      lessonId,
      step: 'Siren 1',
      asked,
    });
    expect((await viewTake(await receive(wav, { lessonId: newId('lesson') }))).take.lessonId).toBeNull();
  });

  test('a take sent twice at once is stored once', async () => {
    const m = meta(wav);
    const both = await Promise.all([1, 2].map(() => receiveTake(m, pieces(wav), wav.length)));
    expect(both.map((b) => b.repeated).sort()).toEqual([false, true]);
  });
});

test('a kept map is given again until its evidence changes; pins stand over it and keep what the machine says', async () => {
  const id = await addSinger({ name: 'Wick Aster', part: '', voiceType: 'tenor', note: '', email: null, intake: null, school: null });
  const takeId = await receive(wav, { singerId: id });
  await analyseJob({ studioId, takeId });
  const listed = async () => (await viewStudio()).singers.find((s) => s.id === id)!.summary;
  const isPending = async () => (await viewStudio()).singers.find((s) => s.id === id)!.pending;
  expect([(await listed()).extreme, await isPending()]).toEqual([null, true]);
  // The worker pools, who was heard last first, until there is nobody left.
  expect(await wendelIn(studioId)(poolOne)).toBe(true);
  expect((await listed()).extreme).not.toBeNull();
  expect(await isPending()).toBe(false);
  while (await wendelIn(studioId)(poolOne));
  const before = (await viewSinger(id)).map;
  // Tampered with behind the application's back: it is the kept one that is shown.
  await owner.query("update voice_map set map = jsonb_set(map, '{takes}', '77') where singer_id = $1", [id]);
  expect((await viewSinger(id)).map.takes).toBe(77);
  await setMark(takeId, newId('mark'), { timeS: 1, midi: 60, direction: 'up', verdict: 'add', by: 'coach' });
  expect((await viewSinger(id)).map.takes).toBe(1);

  await pinValue(id, { what: 'usable-high', midi: 70 });
  await pinValue(id, { what: 'change', midi: 63 });
  const { map } = await viewSinger(id);
  expect(map.usable!.high.midi).toBe(70);
  expect(map.passaggi[0].midi).toBe(63);
  expect((await listed()).passaggi[0].midi).toBe(63);
  expect(map.pinned).toEqual({ 'usable-high': before.usable?.high.midi ?? null, change: expect.any(Number) });
  await pinValue(id, { what: 'change', midi: null });
  expect((await viewSinger(id)).map.pinned).not.toHaveProperty('change');
});

test('what each day measured is kept with the map, and measured anew where another change is followed', async () => {
  const id = await addSinger({ name: 'Sorrel Wick', part: '', voiceType: 'tenor', note: '', email: null, intake: null, school: null });
  const takeId = await receive(wav, { singerId: id });
  await analyseJob({ studioId, takeId });
  // Looked at by the coach before the worker came by: pooled there and then.
  const { measured, sirens } = await viewLog(id);
  expect([measured.length, Object.values(sirens)]).toEqual([1, [takeId]]);
  const tamper = () =>
    owner.query("update voice_map set days = jsonb_set(days, '{measured,0,day}', '\"1999-01-01\"') where singer_id = $1", [id]);
  await tamper();
  expect((await viewLog(id)).measured[0].day).toBe('1999-01-01');
  await pinValue(id, { what: 'change', midi: 63 });
  expect((await viewLog(id)).measured[0].day).toBe(measured[0].day);
  await pinValue(id, { what: 'change', midi: null });
  expect((await viewLog(id)).measured[0].day).toBe('1999-01-01');
  await setMark(takeId, newId('mark'), { timeS: 1, midi: 60, direction: 'up', verdict: 'add', by: 'coach' });
  expect((await viewLog(id)).measured[0].day).toBe(measured[0].day);
  // A map from before days were kept is pooled anew.
  await tamper();
  await owner.query('update voice_map set days = null where singer_id = $1', [id]);
  expect(await wendelIn(studioId)(poolOne)).toBe(true);
  const { rows } = await owner.query("select days->'measured'->0->>'day' as day from voice_map where singer_id = $1", [id]);
  expect(rows).toEqual([{ day: measured[0].day }]);
});

test('a singer is changed, put away, and deleted for good only by name', async () => {
  const fields = { name: 'Ives Lorne', part: '', voiceType: 'bass' as const, note: '', email: null, intake: null, school: null };
  const id = await addSinger(fields);
  await receive(wav, { singerId: id });
  expect(() => SingerShape.parse({ ...fields, intake: { consent: 'singer', minor: true } })).toThrow(/guardian/);
  await editSinger(id, { ...fields, name: 'Ives Lorne-Ade' });
  await setArchived(id, true);
  expect((await viewSinger(id)).singer).toMatchObject({ name: 'Ives Lorne-Ade', archivedAt: expect.any(Date) });
  await expect(removeSinger(id, 'Ives Lorne')).rejects.toThrow(/Nothing was deleted/);

  // Whatever there can be of a singer: then nothing of it, in any table that carries a studio, by id or by name.
  await startLesson({
    id: newId('lesson'),
    singerId: id,
    name: 'First listening',
    course: beginCourse(PROTOCOLS[0], anchorsFor(null, 'bass')),
  });
  await pinValue(id, { what: 'speaking', midi: 43 });
  const { address } = await makeLink(id);
  const told = { kind: 'before', hoarse: false, ill: false, pain: false, tired: true };
  const line = { id: randomUUID(), assignmentId: null, day: '2026-11-25', at: '2026-11-25T08:00:00.000Z', what: told };
  const token = address.split('/p/')[1];
  // Whoever is put away has no way in, until they are back.
  await expect(addEntries(token, EntriesInput.parse({ entries: [line] }))).rejects.toThrow(/not valid any more/);
  await setArchived(id, false);
  await addEntries(token, EntriesInput.parse({ entries: [line] }));
  const item = {
    exerciseId: 'long-siren',
    part: 'work',
    keys: [45],
    sound: 'oo',
    tempo: 80,
    minutes: 1,
    timesADay: 1,
    days: [0],
    reason: '',
    caution: '',
    rules: [],
    advance: '',
  };
  await assign(AssignmentInput.parse({ singerId: id, startsOn: '2027-01-04', items: [item] }));
  const takeIds = (await owner.query('select id from take where singer_id = $1', [id])).rows.map((r) => r.id);
  const traces = async () => {
    const { rows } = await owner.query(
      "select table_name from information_schema.columns where table_schema = 'public' and column_name = 'studio_id'",
    );
    const found: string[] = [];
    for (const { table_name: table } of rows)
      for (const word of [id, 'Ives Lorne', ...takeIds]) {
        const { rowCount } = await owner.query(`select 1 from ${table} t where position($1 in (to_jsonb(t) - 'bytes')::text) > 0 limit 1`, [
          word,
        ]);
        if (rowCount) found.push(table);
      }
    return [...new Set(found)].sort();
  };
  expect(await traces()).toEqual(
    expect.arrayContaining(['assignment', 'lesson', 'link', 'message', 'pin', 'practice', 'singer', 'take', 'take_audio']),
  );
  await removeSinger(id, 'Ives Lorne-Ade');
  expect(await traces()).toEqual([]);
});

describe('a singer’s own page', () => {
  const entry = (more: object = {}) => ({
    id: randomUUID(),
    assignmentId: null,
    day: new Date().toISOString().slice(0, 10),
    at: new Date().toISOString(),
    what: { kind: 'before', hoarse: true, ill: false, pain: false, tired: false },
    ...more,
  });

  test('a link opens one singer’s page; a new one ends it; the log takes each line once', async () => {
    const { address } = await makeLink(singerId);
    const token = address.split('/p/')[1];
    expect((await viewMessages()).messages[0].body).toContain(address);
    // The token itself is nowhere in the database but in the message.
    const { rows } = await owner.query('select * from link');
    expect(JSON.stringify(rows)).not.toContain(token);
    const line = entry();
    const input = EntriesInput.parse({ entries: [line, entry({ assignmentId: randomUUID() })] });
    await addEntries(token, input);
    await addEntries(token, input);
    const view = await viewPractice(token);
    expect(view.singer.id).toBe(singerId);
    expect(view.entries).toHaveLength(2);
    // Another's assignment isn't taken over.
    expect(view.entries.map((e) => e.assignmentId)).toEqual([null, null]);
    expect((await viewStudio()).singers.find((s) => s.id === singerId)!.told).toMatchObject({ hoarse: true });
    await makeLink(singerId);
    await expect(viewPractice(token)).rejects.toThrow(/not valid any more/);
    await expect(addEntries(token, input)).rejects.toThrow(/not valid any more/);
    await expect(viewPractice('x'.repeat(43))).rejects.toThrow(/not valid any more/);
  });

  test('the studio sees trouble of any kind and no other line, and on how many days of a week was practised', async () => {
    const id = await addSinger({ name: 'Who Tells', part: '', voiceType: 'tenor', note: '', email: null, intake: null, school: null });
    const token = (await makeLink(id)).address.split('/p/')[1];
    const listed = async () => (await viewStudio()).singers.find((s) => s.id === id)!;
    let second = 0;
    const tell = (what: object, daysAgo = 0) => {
      const at = new Date(Date.now() - 86_400_000 * daysAgo + 1000 * second++).toISOString();
      return addEntries(token, EntriesInput.parse({ entries: [entry({ what, at, day: at.slice(0, 10) })] }));
    };
    for (const daysAgo of [0, 3, 6, 9]) await tell(done(), daysAgo);
    await tell(before({ tired: true }));
    await tell(before({ pain: true }), 3);
    expect(await listed()).toMatchObject({ told: null, practised: { days: 3 } });
    for (const trouble of [done({ signs: ['scratch'] }), before({ pain: true }), before({ ill: true }), before({ hoarse: true })]) {
      await tell(trouble);
      expect((await listed()).told).toEqual(trouble);
    }
  });

  test('a recording made there is stored for that singer, whoever it says it is for', async () => {
    const { address } = await makeLink(singerId);
    const token = address.split('/p/')[1];
    const other = await addSinger({ name: 'Not Me', part: '', voiceType: 'tenor', note: '', email: null, intake: null, school: null });
    const own = meta(wav, { singerId: other, sha256: sha256(wav) });
    await receivePracticeTake(token, own, pieces(wav), wav.length);
    expect((await viewTake(own.id)).take.singerId).toBe(singerId);
  });
});

test('sets and exercises of one’s own are kept', async () => {
  const mine = { ...exerciseById('long-siren'), id: randomUUID(), name: 'Kept siren' };
  await saveExercise(ExerciseShape.parse(mine));
  expect((await viewShelf()).own).toEqual([mine]);
  expect(() => ExerciseShape.parse({ ...mine, tempo: [90, 80, 70] })).toThrow(/slowest/);
  const { templates } = await viewPlan(singerId);
  const item = {
    exerciseId: mine.id,
    part: 'work',
    keys: [60],
    sound: 'oo',
    tempo: 80,
    minutes: 1,
    timesADay: 2,
    days: [0],
    reason: '',
    caution: '',
    rules: ['coach'],
    advance: '',
  };
  await saveTemplate(TemplateInput.parse({ id: randomUUID(), name: 'Mornings', items: [item] }));
  expect((await viewPlan(singerId)).templates.length).toBe(templates.length + 1);
});

describe('songs', () => {
  const [heron, , ferryman] = DEMO_SONGS;
  const sung = sing(typicalProfile('tenor', 'flip'), songTask(ferryman, -12), { seed: 4, sampleRate: 22050, snrDb: 45 }).pcm;
  const file = writeWav(sung, 16);
  let songId: Id<'song'>;
  beforeAll(async () => {
    songId = newId('song');
    await saveSong(SongInput.parse({ id: songId, song: ferryman }));
  });
  const rows = async (table: string) => (await owner.query(`select count(*)::int as n from ${table}`)).rows[0].n;

  test('a song is kept as it came, chosen for a singer, and found again', async () => {
    await decide(singerId, songId, { semitones: -10, ways: { '3': 'mix' }, note: '' });
    await decide(singerId, songId, { semitones: -12, ways: { '3': 'mix' }, note: 'after the straw' });
    const view = await viewSong(singerId, songId);
    expect(view).toMatchObject({ song: ferryman, chosen: { semitones: -12, ways: { '3': 'mix' } } });
    expect((await viewRepertoire(singerId)).own).toMatchObject([{ id: songId, chosen: { note: 'after the straw' } }]);
    expect((await viewSongs()).songs).toMatchObject([{ id: songId, title: 'Ferryman, Wait', singers: 1, lowest: 55, highest: 76 }]);
    await expect(viewSong(singerId, newId('song'))).rejects.toThrow(/no such song/);
    await expect(decide(singerId, newId('song'), { semitones: 0, ways: {}, note: '' })).rejects.toThrow(/no such song/);
    expect(() => SongInput.parse({ id: songId, song: { ...heron, notes: [...heron.notes].reverse() } })).toThrow(/not in order/);
  });

  test('a take of it is predicted before it is heard, then followed; one of a song that is gone is a take all the same', async () => {
    await analyseJob({ studioId, takeId: await receive(wav) });
    const id = await receive(file, { task: 'free', asked: { slid: false }, song: { id: songId, semitones: -12 } });
    const [before] = (await viewSong(singerId, songId)).takes;
    expect(before).toMatchObject({ takeId: id, semitones: -12, heard: null });
    expect(before.predicted).toHaveLength(ferryman.bars.length);
    await analyseJob({ studioId, takeId: id });
    const [after] = (await viewSong(singerId, songId)).takes;
    expect(after.predicted).toEqual(before.predicted);
    expect(after.heard).toMatchObject({ engine: ENGINE, outcome: { semitones: -12 } });
    expect(after.heard!.outcome!.notes.length).toBeGreaterThan(ferryman.notes.length * 0.9);
    expect(after.heard!.outcome!.bars.filter((b) => b.sung)).toHaveLength(ferryman.bars.length);
    // Another take is not taken for this song.
    const other = await receive(wav, { song: { id: songId, semitones: 0 } });
    await analyseJob({ studioId, takeId: other });
    expect((await viewSong(singerId, songId)).takes.find((t) => t.takeId === other)!.heard).toEqual({ engine: ENGINE, outcome: null });
    const orphan = await receive(file, { song: { id: newId('song'), semitones: 0 } });
    expect((await viewTake(orphan)).take.id).toBe(orphan);
  });

  test('the line of a song in an assigned week is a line of the singer’s own', async () => {
    const line = exerciseById('song-line');
    const item = { exerciseId: line.id, part: 'carry', keys: [60], sound: 'ng', tempo: 80, minutes: 2, timesADay: 1, days: [0] };
    const words = { reason: '', caution: '', rules: [], advance: '' };
    const id = await assign(AssignmentInput.parse({ singerId, startsOn: '2026-11-30', items: [{ ...item, ...words }] }));
    const [{ exercise }] = (await viewAssignment(id)).items;
    expect(exercise).toMatchObject({
      id: 'song-line',
      name: 'A line of Ferryman, Wait',
      ofSong: { title: 'Ferryman, Wait', key: expect.any(Number) },
    });
    expect([inEnglish(exerciseName(exercise)), inEnglish(exerciseHow(exercise))]).toEqual([exercise.name, exercise.how]);
    expect(exercise.how).toContain('Ferryman, Wait, in C');
    expect(exercise.steps).toEqual(line.steps);
  });

  test('every singer who was heard is given for it as their map stands, pins and choice included', async () => {
    const given = (await singersOfSong(songId)).find((f) => f.singerId === singerId)!;
    expect(given).toMatchObject({ chosen: { semitones: -12 } });
    const { voice } = await viewSong(singerId, songId);
    expect(given.voice).toEqual({
      ...voice,
      changes: voice!.changes.map((c) => ({ ...c, takeIds: [] })),
      findings: Object.fromEntries(Object.entries(voice!.findings).map(([name, f]) => [name, { ...f, takeIds: [] }])),
    });
  });

  test('deleted with a singer, and for all by itself: the takes stay', async () => {
    const gone = await addSinger({ name: 'Here Briefly', part: '', voiceType: 'bass', note: '', email: null, intake: null, school: null });
    await decide(gone, songId, { semitones: null, ways: {}, note: '' });
    const had = await rows('repertoire');
    await removeSinger(gone, 'Here Briefly');
    expect(await rows('repertoire')).toBe(had - 1);
    const briefly = newId('song');
    await saveSong(SongInput.parse({ id: briefly, song: heron }));
    await decide(singerId, briefly, { semitones: 0, ways: {}, note: '' });
    const take = await receive(file, { task: 'free', song: { id: briefly, semitones: 0 } });
    await removeSong(briefly);
    expect((await viewTake(take)).take.id).toBe(take);
    expect((await owner.query('select count(*)::int as n from song_take where take_id = $1', [take])).rows[0].n).toBe(0);
    await forgetChoice(singerId, newId('song'));
    expect((await viewRepertoire(singerId)).own.map((s) => s.id)).toEqual([songId]);
  });
});

describe('the mail server', () => {
  let mail: Awaited<ReturnType<typeof madeMailServer>>;
  beforeAll(async () => {
    mail = await madeMailServer();
  });
  afterAll(() => mail.stop());

  test('takes a practice page’s link, which is then forgotten here; what it refuses stays with the reason', async () => {
    const singer = {
      name: 'Orla Finch',
      part: '',
      voiceType: 'mezzo',
      note: '',
      email: 'orla@reed.example',
      intake: null,
      school: null,
    } as const;
    const id = await addSinger(singer);
    const { address, mailed } = await makeLink(id);
    await allDone();
    expect(mailed).toBe(true);
    expect(mail.taken).toHaveLength(1);
    expect(mail.taken[0].to).toBe('orla@reed.example');
    expect(mail.taken[0].text).toContain(address);
    const { rows } = await owner.query('select body, sent_at is not null as sent from message where singer_id = $1', [id]);
    expect(rows).toEqual([{ body: '', sent: true }]);

    mail.refuse = true;
    await makeLink(id);
    await allDone();
    const [waiting] = (await viewMessages()).messages;
    expect(waiting).toMatchObject({ sentAt: null, problem: expect.stringContaining('No such mailbox') });
    expect(waiting.body).toContain('/p/');
    mail.refuse = false;
    await sendAgain();
    expect(mail.taken).toHaveLength(2);
    expect((await viewMessages()).messages[0]).toMatchObject({ sentAt: expect.any(Date), problem: null, body: '' });
    await removeSinger(id, singer.name);
  });
});

test('a minor is recorded when a guardian has agreed, and not before', async () => {
  const child = { name: 'Ives Reed', part: '', voiceType: 'mezzo', note: '', email: null, school: null } as const;
  const intake = { minor: true, changing: true, professional: false, noCategories: false, goals: '', health: '' };
  const id = await addSinger({ ...child, intake: { ...intake, consent: 'none' } });
  await expect(receive(wav, { singerId: id })).rejects.toThrow(/guardian’s consent/);
  await editSinger(id, { ...child, intake: { ...intake, consent: 'guardian' } });
  await receive(wav, { singerId: id });
  await removeSinger(id, child.name);
});

test('a mark stays with its take: another’s id changes nothing', async () => {
  const [one, two] = [await receive(wav), await receive(wav)];
  const mark = { timeS: 1, midi: 60, direction: 'up', verdict: 'add', by: 'coach' } as const;
  const id = newId('mark');
  await setMark(one, id, mark);
  await expect(setMark(two, id, { ...mark, midi: 70 })).rejects.toThrow(/another take/);
  expect((await viewTake(one)).marks).toMatchObject([{ id, midi: 60 }]);
  expect((await viewTake(two)).marks).toEqual([]);
  await discardTake(one);
  await discardTake(two);
});

test('what a map rests on is counted by the database, by whatever way it comes', async () => {
  const evidence = async () => (await owner.query('select evidence from singer where id = $1', [singerId])).rows[0].evidence as number;
  const id = await receive(wav);
  const before = await evidence();
  await owner.query("insert into analysis (studio_id, take_id, engine, error) values ($1, $2, 'e', 'none')", [studioId, id]);
  expect(await evidence()).toBe(before + 1);
  await owner.query(
    "insert into mark (id, studio_id, take_id, time_s, midi, direction, verdict) values (gen_random_uuid(), $1, $2, 1, 60, 'up', 'add')",
    [studioId, id],
  );
  expect(await evidence()).toBe(before + 2);
  await owner.query('update take set note = $2 where id = $1', [id, 'n']);
  expect(await evidence()).toBe(before + 2);
  await discardTake(id);
  expect(await evidence()).toBe(before + 3);
});

test('one studio’s hundreds of takes don’t keep another’s one waiting, and what nobody waits for comes last', async () => {
  const { rows } = await owner.query("insert into studio (name) values ('Beside') returning id");
  const mine = Array.from({ length: 5 }, () => newId('take'));
  const [theirs, old] = [newId('take'), newId('take')];
  await inStudio(studioId, async (tx) => {
    await enqueueAnalysis(tx, old, 'later');
    for (const id of mine) await enqueueAnalysis(tx, id);
  });
  await inStudio(rows[0].id, (tx) => enqueueAnalysis(tx, theirs));
  const order = (
    await owner.query(
      "select data->>'takeId' as id from pgboss.job where name = 'analyse-take' and state < 'active' and data->>'takeId' = any($1) order by priority desc, created_on, id",
      [[...mine, theirs, old]],
    )
  ).rows.map((r) => r.id);
  expect(order.indexOf(theirs)).toBeLessThan(order.indexOf(mine[1]));
  expect(order.at(-1)).toBe(old);
  await owner.query("delete from pgboss.job where data->>'takeId' = any($1)", [[...mine, theirs, old]]);
  await owner.query('delete from studio where id = $1', [rows[0].id]);
});

describe('studios are apart', () => {
  let other: Id<'studio'>;
  beforeAll(
    async () =>
      (other = (await owner.query("insert into studio (name, created_at) values ('Another', now() + interval '1 day') returning id"))
        .rows[0].id),
  );
  afterAll(() => owner.query('delete from studio where id = $1', [other]));

  beforeAll(async () => {
    const takeId = await receive(wav);
    await analyseJob({ studioId, takeId });
    await sayHeard(HeardInput.parse({ id: randomUUID(), takeId, startS: 1, endS: 3, direction: 'up', word: { name: 'flip', midi: 63 } }));
    await setMark(takeId, newId('mark'), { timeS: 1, midi: 60, direction: 'up', verdict: 'add', by: 'coach' });
    await saveProtocol({ ...PROTOCOLS[1], id: randomUUID() });
    await pinValue(singerId, { what: 'speaking', midi: 50 });
    const voice = Buffer.from(writeWav({ samples: new Float32Array(800), sampleRate: 8000 }, 16));
    await saveModel({ id: newId('model'), exerciseId: 'long-siren', manner: 'like-this', singerId: null }, voice);
    await inStudio(studioId, (tx) => putSpoken(tx, { id: newId('entry'), singerId, wav: voice }));
    await owner.query("insert into sound_to_delete (studio_id, key) values ($1, 'a piece')", [studioId]);
  });

  // From the catalogue, so that a new table without the lock fails here.
  test('every table that carries a studio is locked to it, whatever the query says', async () => {
    const { rows } = await owner.query(
      "select table_name from information_schema.columns where table_schema = 'public' and column_name = 'studio_id'",
    );
    // Who may come in is the door's: the application can't look there at all.
    const atTheDoor = ['tries', 'two_factor', 'coach', 'session', 'credential', 'verification', 'member', 'invite'];
    for (const table of atTheDoor)
      for (const attempt of [`select * from ${table}`, `insert into ${table} default values`, `delete from ${table}`])
        await expect(inStudio(studioId, (tx) => tx.execute(attempt))).rejects.toThrow(/permission denied/);
    const tables: string[] = rows.map((r) => r.table_name).filter((t) => !atTheDoor.includes(t));
    expect(tables).toEqual(expect.arrayContaining(['singer', 'take', 'take_audio', 'analysis', 'mark', 'assignment']));
    for (const table of tables) {
      const here = await inStudio(studioId, (tx) => tx.execute(`select count(*)::int as n from ${table}`));
      const there = await inStudio(other, (tx) => tx.execute(`select count(*)::int as n from ${table}`));
      const nowhere = await pool().query(`select count(*)::int as n from ${table}`);
      expect([table, here.rows]).not.toEqual([table, [{ n: 0 }]]);
      expect([table, there.rows, nowhere.rows]).toEqual([table, [{ n: 0 }], [{ n: 0 }]]);
    }
    const all = (
      await owner.query("select table_name from information_schema.tables where table_schema = 'public' and table_type = 'BASE TABLE'")
    ).rows.map((r) => r.table_name);
    expect(all.filter((t) => !tables.includes(t) && !atTheDoor.includes(t))).toEqual(['studio']);
    const studios = await inStudio(other, (tx) => tx.execute('select id from studio'));
    expect([studios.rows, (await pool().query('select id from studio')).rows]).toEqual([[{ id: other }], []]);
  });

  test('each change and each look is noted by the database; a reader’s transaction changes nothing', async () => {
    const id = await addSinger({ name: 'Orla Finch', part: '', voiceType: 'mezzo', note: '', email: null, intake: null, school: null });
    const asReader = { ...mockMember!, userId: 'reader', name: 'Quill', role: 'reader' as const };
    const me = mockMember;
    mockMember = asReader;
    await viewSinger(id);
    await expect(editSinger(id, { ...SingerShape.parse({ name: 'Mine', voiceType: 'bass' }) })).rejects.toThrow();
    mockMember = me;
    await editSinger(id, SingerShape.parse({ name: 'Orla Finch', part: 'The Heron', voiceType: 'mezzo' }));
    const lines = (await viewAudit()).filter((l) => l.singerId === id);
    expect(lines.map(({ actor, did, what, columns }) => ({ actor, did, what, columns })).reverse()).toEqual([
      { actor: 'Marit', did: 'added', what: 'singer', columns: null },
      { actor: 'Quill', did: 'looked', what: 'singer', columns: null },
      { actor: 'Marit', did: 'changed', what: 'singer', columns: ['part'] },
      { actor: 'Marit', did: 'looked', what: 'singer', columns: null },
    ]);
    // Who did what stays when the singer is deleted; about whom does not.
    await removeSinger(id, 'Orla Finch');
    const after = await viewAudit();
    expect(after[0]).toMatchObject({ actor: 'Marit', actorId: 'marit', did: 'deleted', what: 'singer', singerId: null });
    expect(after.filter((l) => l.singerId === id)).toEqual([]);
    expect(after.slice(1, 5).map(({ id: line }) => line)).toEqual(lines.map((l) => l.id));
    expect(after.slice(1, 5)).toEqual(lines.map((l) => expect.objectContaining({ actor: l.actor, did: l.did, singer: null })));
    const { rows } = await owner.query('select count(*)::int as n from audit a where to_jsonb(a)::text like $1', [`%${id}%`]);
    expect(rows).toEqual([{ n: 0 }]);
  });

  test('a bundle brought in changes no setting of a studio with singers in it', async () => {
    await changeSettings({ name: 'The barge studio', school: 'classical', keepMonths: 6 });
    const path = join(mkdtempSync(join(tmpdir(), 'wendel-bundle-')), 'old.zip');
    await pipeline(Readable.fromWeb((await bundleOf(studioId)).stream as never), createWriteStream(path));
    await changeSettings({ name: 'The quay studio', school: 'classical', keepMonths: null });
    const { tables } = await bringIn(studioId, path, false);
    expect(tables.every((t) => t.fresh === 0)).toBe(true);
    expect(await inStudio(studioId, studioSettings)).toMatchObject({ name: 'The quay studio', keepMonths: null });
    await changeSettings({ name: 'The barge studio', school: 'classical', keepMonths: null });
  });

  test('a bundle’s rows are what the pages take, or nothing of it comes in', async () => {
    await analyseJob({ studioId, takeId: await receive(wav) });
    const bundle = unzipSync(await bytesOf((await bundleOf(studioId)).stream));
    const tampered = async (change: (tables: Record<string, Record<string, unknown>[]>) => void) => {
      const words = JSON.parse(Buffer.from(bundle['wendel.json']).toString());
      change(words.tables);
      return zipped({ ...bundle, 'wendel.json': Buffer.from(JSON.stringify(words)) });
    };
    /** A bundle whose hashes hold, as whoever makes one up would see to. */
    function zipped(files: Record<string, Uint8Array>): string {
      const path = join(mkdtempSync(join(tmpdir(), 'wendel-bundle-')), 'made.zip');
      const hashes = { ...JSON.parse(Buffer.from(bundle['hashes.json']).toString()), 'wendel.json': sha256(files['wendel.json']) };
      const told = files['hashes.json'] === bundle['hashes.json'] ? Buffer.from(JSON.stringify(hashes)) : files['hashes.json'];
      // The recordings are here already, and are not read again.
      const words = Object.fromEntries(Object.entries(files).filter(([name]) => !name.startsWith('takes/')));
      writeFileSync(path, zipSync({ ...words, 'hashes.json': told }, { level: 0 }));
      return path;
    }
    // One that is as it was comes in; so does one of an earlier version, which knew fewer tables.
    await bringIn(studioId, await tampered(() => {}), false);
    const later = ['model', 'song', 'repertoire', 'song_take', 'ear_answer', 'spoken_word'];
    await bringIn(studioId, await tampered((t) => later.forEach((table) => delete t[table])), false);
    await expect(bringIn(studioId, await tampered((t) => delete t.practice), false)).rejects.toThrow();
    const exercise = { id: randomUUID(), exercise: { no: 'name' }, changed_at: '2026-01-01T00:00:00+00:00' };
    const broken: [string, (tables: Record<string, Record<string, unknown>[]>) => void][] = [
      ['exercise', (t) => t.exercise.push(exercise)],
      ['singer', (t) => (t.singer[0].school = 'nonsense')],
      ['singer', (t) => (t.singer[0].email = 'a@b.example, c@d.example')],
      ['singer', (t) => (t.singer[0].intake = { consent: 7 })],
      ['take', (t) => (t.take[0].sha256 = 'short')],
      ['analysis', (t) => ((t.analysis[0].findings as Record<string, unknown>).events = [{ midi: 'high' }])],
      ['pin', (t) => t.pin.push({ singer_id: singerId, what: 'usable-low', midi: 1e9, pinned_at: exercise.changed_at })],
    ];
    const before = await counts();
    for (const [table, change] of broken)
      await expect(bringIn(studioId, await tampered(change), false)).rejects.toThrow(new RegExp(`Row \\d+ of ${table}`));
    // However small it was packed.
    const bomb = await zipped({ ...bundle, 'hashes.json': Buffer.alloc(201e6, ' ') });
    await expect(bringIn(studioId, bomb, false)).rejects.toThrow(/larger than 200 MB/);
    expect(await counts()).toEqual(before);
  });

  test('what a bundle brings is listened to, and no map of an earlier state stays', async () => {
    const id = await addSinger({ name: 'Orla Finch', part: '', voiceType: 'tenor', note: '', email: null, intake: null, school: null });
    const [heard, unheard] = [await receive(wav, { singerId: id }), await receive(wav, { singerId: id })];
    await analyseJob({ studioId, takeId: heard });
    const path = join(mkdtempSync(join(tmpdir(), 'wendel-bundle-')), 'all.zip');
    await pipeline(Readable.fromWeb((await bundleOf(studioId)).stream as never), createWriteStream(path));
    // Here the singer has gone on with nothing but an empty map.
    await discardTake(heard);
    await discardTake(unheard);
    expect((await viewSinger(id)).map.takes).toBe(0);
    await owner.query('delete from pgboss.job');
    await bringIn(studioId, path, false);
    expect((await viewSinger(id)).map).toEqual(await inStudio(studioId, (tx) => poolNow(tx, id)));
    expect((await viewSinger(id)).map.takes).toBe(1);
    const jobs = (await owner.query("select data->>'takeId' as id from pgboss.job")).rows.map((r) => r.id);
    expect(jobs).toContain(unheard);
    expect(jobs).not.toContain(heard);
    await removeSinger(id, 'Orla Finch');
  });

  test('sound is deleted when its time is over, and what was found in it stays', async () => {
    const id = await receive(wav, { recordedAt: new Date(Date.now() - 100 * 86_400_000) });
    const young = await receive(wav);
    await analyseJob({ studioId, takeId: id });
    expect(await wendelIn(studioId)(sweepSound)).toBe(0);
    await changeSettings({ name: 'The barge studio', school: 'classical', keepMonths: 3 });
    // Not at once: it may have been a mistake.
    expect(await wendelIn(studioId)(sweepSound)).toBe(0);
    await owner.query("update studio set keep_months_since = now() - interval '4 days' where id = $1", [studioId]);
    await changeSettings({ name: 'The barge boat studio', school: 'classical', keepMonths: 3 });
    expect(await wendelIn(studioId)(sweepSound)).toBe(1);
    expect(await wendelIn(studioId)(sweepSound)).toBe(0);
    await changeSettings({ name: 'The barge studio', school: 'classical', keepMonths: null });
    const { take, analysis } = await viewTake(id);
    expect(take.soundRemovedAt).not.toBeNull();
    expect(analysis?.findings?.events.length).toBeGreaterThan(0);
    expect(await bytesOf(await takeAudioStream(id, 0, wav.length))).toHaveLength(0);
    expect(await bytesOf(await takeAudioStream(young, 0, wav.length))).toHaveLength(wav.length);
    // A later engine leaves alone what it can't hear, and the old findings still count.
    await owner.query("update analysis set engine = 'wendel-0' where take_id = $1", [id]);
    expect(await inStudio(studioId, takesToAnalyse)).not.toContain(id);
    expect((await viewTake(id)).analysis).toMatchObject({ engine: 'wendel-0', findings: analysis!.findings });
  });

  test('a row for another studio is refused, and the application role cannot lift the lock', async () => {
    await expect(
      inStudio(other, (tx) =>
        tx.execute('insert into singer (studio_id, name, voice_type) values ($1, $2, $3)', [studioId, 'Thief', 'bass']),
      ),
    ).rejects.toThrow(/row-level security/);
    for (const attempt of [
      'alter table singer disable row level security',
      'set role wendel_owner',
      'alter role wendel_app bypassrls',
      'create table public.hole (x int)',
      'delete from audit',
      "update audit set actor = 'nobody'",
      // By which the log was switched off and forged, and the owner's rights had.
      'create temp table audit (studio_id uuid)',
      'create temp table studio (id uuid)',
      'create temp table forged (id uuid); create trigger t after insert on forged for each row execute function public.audit_change()',
      'select audit_change()',
    ])
      await expect(pool().query(attempt)).rejects.toThrow(/permission denied|must be owner|must be superuser/);
  });

  test('the database itself keeps takes to singers of their studio', async () => {
    await expect(
      owner.query(
        "insert into take (id, studio_id, singer_id, task, source, sha256, bytes, duration_s, sample_rate, recorded_at) values (gen_random_uuid(), $1, $2, 'siren', 'file', $3, 1, 1, 44100, now())",
        [other, singerId, 'a'.repeat(64)],
      ),
    ).rejects.toThrow(/take_singer/);
  });
});

test('health tells a database without a worker from a whole house', async () => {
  expect(await health()).toMatchObject({ ok: false, database: 'ready', worker: 'away' });
});
