import { Id, newId } from '../core/format/id';
import { createHash } from 'node:crypto';
import { Client } from 'pg';
import { EntriesInput } from '../contract/inputs';
import { LONGEST_SHORT_S } from '../core/format/short-sound';
import { IntakeShape } from '../core/format/singer';
import { writeWav } from '../core/format/wav';
import { done, lineOn } from '../core/practice/made-log';
import { pool } from '../data/client';
import { doorPool, Member } from '../data/door';
import { wendelIn } from '../studio/context';
import * as practice from '../studio/practice';
import { exportSinger } from '../studio/export';
import * as settings from '../studio/settings';
import * as singers from '../studio/singers';
import * as spoken from '../studio/spoken';
import * as list from '../studio/studio-list';
import { sweepSound } from '../studio/sweep';
import { sendLink } from './links';
import { entered, enteredByLink, madeStudio, takeAway } from './made-entry';

const addSinger = entered(singers.addSinger);
const editSinger = entered(singers.editSinger);
const removeSinger = entered(singers.removeSinger);
const viewStudio = entered(list.viewStudio);
const spokenSound = entered(spoken.spokenSound);
const removeSpokenWord = entered(spoken.removeSpokenWord);
const viewLog = entered(practice.viewLog);
const answer = entered(practice.answer);
const sweep = entered(sweepSound);
const changeSettings = entered(settings.changeSettings);
const keepSpoken = enteredByLink(spoken.keepSpoken);
const addEntries = enteredByLink(practice.addEntries);

let mockMember: Member | null = null;
jest.mock('next/headers', () => ({ headers: async () => new Headers(), cookies: async () => ({ get: () => undefined }) }));
jest.mock('./session', () => ({
  presentMember: async () => mockMember,
  senderAddress: async () => 'test',
  afterAnswer: (work: () => Promise<unknown>) => void work(),
}));

const owner = new Client({ connectionString: process.env.WENDEL_OWNER_URL });
const FIELDS = { part: '', voiceType: 'tenor' as const, note: '', email: null, intake: null, school: null };
const wavOf = (seconds: number, level = 0.1) =>
  Buffer.from(writeWav({ samples: new Float32Array(Math.round(8000 * seconds)).fill(level), sampleRate: 8000 }, 16));
const of = (wav: Buffer, id: Id<'entry'> = newId('entry')) => ({ id, sha256: createHash('sha256').update(wav).digest('hex') });
const kept = async () =>
  (await owner.query('select id from spoken_word where studio_id = $1 order by spoken_at', [studioId])).rows.map(
    (r) => r.id as Id<'entry'>,
  );

let studioId: Id<'studio'>;
let singerId: Id<'singer'>;
let token: string;

beforeAll(async () => {
  await owner.connect();
  studioId = await madeStudio(owner, 'Sallow');
  mockMember = { userId: 'marit', name: 'Marit', email: 'marit@example.com', studioId, role: 'owner' };
  singerId = await addSinger({ name: 'Bram Sallow', ...FIELDS });
  token = (await sendLink(singerId)).address.split('/p/')[1];
});
afterEach(() => owner.query('delete from spoken_word where studio_id = $1', [studioId]));
afterAll(async () => {
  await takeAway(owner, studioId);
  await owner.end();
  await pool().end();
  await doorPool().end();
});

test('sent twice a spoken word is there once, whether it comes before its line or after it', async () => {
  const wav = wavOf(2);
  const said = of(wav);
  await keepSpoken(token, said, wav);
  await keepSpoken(token, said, wav);
  expect(await kept()).toEqual([said.id]);
  expect((await spokenSound(said.id)).equals(wav)).toBe(true);

  const day = new Date().toISOString().slice(0, 10);
  const line = { ...lineOn(day, done({ name: 'Five notes', spokenS: 2 })), id: said.id };
  await addEntries(token, EntriesInput.parse({ entries: [line] }));
  const asks = async () => (await viewStudio()).singers.find((s) => s.id === singerId)?.asks;
  expect(await asks()).toEqual({ word: null, name: 'Five notes' });
  await answer(said.id, { answer: 'A tone higher next week.' });
  expect(await asks()).toBeNull();
});

test('what is no sound, too long, changed on its way, or another’s word is refused, and nothing of it is kept', async () => {
  const [wav, other] = [wavOf(1), wavOf(1, 0.2)];
  const said = of(wav);
  await keepSpoken(token, said, wav);
  const long = wavOf(LONGEST_SHORT_S + 1);
  await expect(keepSpoken(token, of(long), long)).rejects.toThrow(/12 seconds long at most; this recording has 13/);
  const nothing = Buffer.from('nothing');
  await expect(keepSpoken(token, of(nothing), nothing)).rejects.toThrow(/not a WAV file/);
  await expect(keepSpoken(token, of(wav), other)).rejects.toThrow(/changed on its way/);
  await expect(keepSpoken(token, of(other, said.id), other)).rejects.toThrow(/another spoken word has this id/i);
  const theirs = await addSinger({ name: 'Ilse Sallow', ...FIELDS });
  const theirToken = (await sendLink(theirs)).address.split('/p/')[1];
  await expect(keepSpoken(theirToken, said, wav)).rejects.toThrow(/another spoken word has this id/i);
  expect(await kept()).toEqual([said.id]);
  expect((await spokenSound(said.id)).equals(wav)).toBe(true);
  await expect(spokenSound(newId('entry'))).rejects.toThrow(/not here/);
});

test('a minor speaks when a guardian has agreed to recording', async () => {
  const wav = wavOf(1);
  const intake = IntakeShape.parse({ consent: 'none', minor: true });
  await editSinger(singerId, { name: 'Bram Sallow', ...FIELDS, intake });
  await expect(keepSpoken(token, of(wav), wav)).rejects.toThrow(/guardian/);
  await editSinger(singerId, { name: 'Bram Sallow', ...FIELDS, intake: { ...intake, consent: 'guardian' } });
  await keepSpoken(token, of(wav), wav);
  expect(await kept()).toHaveLength(1);
});

test('the newest are kept; what is older than the studio keeps sound goes, and all goes with its singer', async () => {
  const wav = wavOf(1);
  await owner.query(
    "insert into spoken_word (id, studio_id, singer_id, wav, spoken_at) select gen_random_uuid(), $1, $2, '\\x00', now() - n * interval '1 day' from generate_series(1, $3) n",
    [studioId, singerId, spoken.MOST_SPOKEN],
  );
  const [oldest] = await kept();
  const newest = of(wav);
  await keepSpoken(token, newest, wav);
  expect(await kept()).toHaveLength(spoken.MOST_SPOKEN);
  expect(await kept()).not.toContain(oldest);
  expect((await kept()).at(-1)).toBe(newest.id);

  await changeSettings({ name: 'The barge studio', school: 'classical', keepMonths: 1 });
  await owner.query("update studio set keep_months_since = now() - interval '4 days' where id = $1", [studioId]);
  const before = (await kept()).length;
  expect(await sweep()).toBeGreaterThanOrEqual(before - 32);
  expect((await kept()).length).toBeLessThanOrEqual(32);
  expect(await kept()).toContain(newest.id);
  await changeSettings({ name: 'The barge studio', school: 'classical', keepMonths: null });

  await removeSinger(singerId, 'Bram Sallow');
  expect(await kept()).toEqual([]);
});

test('the log says which spoken words are here; one that is deleted is gone for good, and no other', async () => {
  const id = await addSinger({ name: 'Wren Sallow', ...FIELDS });
  const link = (await sendLink(id)).address.split('/p/')[1];
  const [wav, other] = [wavOf(1), wavOf(1, 0.2)];
  const [first, second] = [of(wav), of(other)];
  await keepSpoken(link, first, wav);
  await keepSpoken(link, second, other);
  expect((await viewLog(id)).spoken).toEqual([first.id, second.id]);
  await removeSpokenWord(first.id);
  for (const gone of [first.id, newId('entry')]) await expect(removeSpokenWord(gone)).rejects.toThrow(/not here/);
  expect((await viewLog(id)).spoken).toEqual([second.id]);
  await expect(spokenSound(first.id)).rejects.toThrow(/not here/);
});

test('whoever asks for all that is kept of a singer gets what they spoke', async () => {
  const id = await addSinger({ name: 'Odo Sallow', ...FIELDS });
  const wav = wavOf(2);
  const said = of(wav);
  await keepSpoken((await sendLink(id)).address.split('/p/')[1], said, wav);
  const { zip } = await exportSinger(wendelIn(studioId), id);
  const bytes = Buffer.from(await new Response(zip).arrayBuffer());
  expect(bytes.includes(`words/${said.id}.wav`)).toBe(true);
  expect(bytes.includes(wav)).toBe(true);
});
