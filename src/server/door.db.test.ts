import type { Id } from '../core/format/id';
import { createHmac, randomUUID } from 'node:crypto';
import { Client } from 'pg';
import { doorPool, Member } from '../data/door';
import { inStudio, pool } from '../data/client';
import { insertMessage } from '../data/links';
import {
  askNewPassword,
  beginSecondFactor,
  changePassword,
  confirmSecondFactor,
  endSecondFactor,
  inviteMember,
  setNewPassword,
  signIn,
  signInByCode,
  signUp,
} from './accounts';
import { madeMailServer } from './made-mail-server';
import { Refusal } from '../studio/refusal';
import { deliver } from './mail';
import { STATUS } from './respond';

/** What a browser sends with each request, and what goes on when the answer is given. */
const mockBrowser = { cookies: new Map<string, string>(), sender: 'sender' };
const mockLater: Promise<unknown>[] = [];
let mockMember: Member | null = null;
jest.mock('next/headers', () => ({
  headers: async () => new Headers({ cookie: [...mockBrowser.cookies].map(([name, value]) => `${name}=${value}`).join('; ') }),
  cookies: async () => ({ get: (name: string) => (mockBrowser.cookies.has(name) ? { value: mockBrowser.cookies.get(name) } : undefined) }),
}));
jest.mock('./session', () => ({
  presentMember: async () => mockMember,
  senderAddress: async () => mockBrowser.sender,
  afterAnswer: (work: () => Promise<unknown>) => void mockLater.push(work()),
}));

const owner = new Client({ connectionString: process.env.WENDEL_OWNER_URL });
const PASSWORD = 'otter barge whistle';
const WRONG = 'a wrong one indeed';

const statusOf = (work: Promise<unknown>): Promise<number> =>
  work.then(
    () => 200,
    (error) => (error instanceof Refusal ? STATUS[error.code] : Promise.reject(error)),
  );
/** Keep an answer's cookies, as a browser does. */
function keep(answer: Response): void {
  for (const line of answer.headers.getSetCookie()) {
    const [, name, value] = /^([^=]+)=([^;]*)/.exec(line)!;
    mockBrowser.cookies.set(name, decodeURIComponent(value));
  }
}
const newBrowser = (sender = randomUUID()) => {
  mockBrowser.cookies.clear();
  mockBrowser.sender = sender;
};
const tryIn = (email: string, password: string) => statusOf(signIn({ email, password }));

async function newCoach(studio = 'A studio') {
  const email = `${randomUUID()}@reed.example`;
  newBrowser();
  keep(await signUp({ name: 'Ada', email, password: PASSWORD, studio }));
  const { rows } = await owner.query(
    'select c.id as "userId", m.studio_id as "studioId" from coach c join member m on m.user_id = c.id where email = $1',
    [email],
  );
  return { email, name: 'Ada', role: 'owner' as const, ...(rows[0] as { userId: string; studioId: Id<'studio'> }) };
}

/** The newest token sent to an address. */
async function tokenFor(email: string): Promise<string> {
  await Promise.all(mockLater.splice(0));
  const { rows } = await owner.query(
    "select body from message where address = $1 and subject like 'A new password%' order by made_at desc limit 1",
    [email],
  );
  return new URL(/http\S+/.exec(rows[0].body)![0]).searchParams.get('token')!;
}
/** As when ten minutes have gone by. */
const later = () => owner.query("update tries set expire = 0 where key like 'reset:%'");

beforeAll(() => owner.connect());
afterAll(async () => {
  await Promise.allSettled(mockLater);
  await owner.query("delete from studio where name in ('A studio', 'Your parcel: http://evil.example/pay')");
  await owner.query("delete from coach where email like '%@reed.example'");
  await Promise.all([owner.end(), pool().end(), doorPool().end()]);
});

describe('guessing', () => {
  test('many at once are counted before they are looked at: the right one at the end is not reached', async () => {
    const { email } = await newCoach();
    newBrowser();
    const answers = await Promise.all([...Array<string>(40).fill(WRONG), PASSWORD].map((password) => tryIn(email, password)));
    expect([answers.filter((s) => s === 401).length, answers.at(-1)]).toEqual([20, 429]);
  });

  test('strangers can’t keep out a coach whose browser is known, nor one who has the message of a new password', async () => {
    const { email } = await newCoach();
    const known = new Map(mockBrowser.cookies);
    for (let i = 0; i < 21; i++) {
      newBrowser();
      await tryIn(email, WRONG);
    }
    newBrowser();
    expect(await tryIn(email, PASSWORD)).toBe(429);
    mockBrowser.cookies = known;
    expect(await tryIn(email, PASSWORD)).toBe(200);
    newBrowser();
    await askNewPassword({ email });
    keep(await setNewPassword({ token: await tokenFor(email), password: 'heron reed lantern' }));
    expect(await tryIn(email, 'heron reed lantern')).toBe(200);
  });

  test('a known browser is counted too, and its cookie is good for its own account only', async () => {
    const one = await newCoach();
    const cookies = new Map(mockBrowser.cookies);
    for (let i = 0; i < 20; i++) expect(await tryIn(one.email, WRONG)).toBe(401);
    expect(await tryIn(one.email, PASSWORD)).toBe(429);
    const other = await newCoach();
    for (let i = 0; i < 20; i++) {
      newBrowser();
      await tryIn(other.email, WRONG);
    }
    mockBrowser.cookies = cookies;
    expect(await tryIn(other.email, PASSWORD)).toBe(429);
  });
});

describe('a new password', () => {
  test('its message is written in the language of whoever asks', async () => {
    const { email } = await newCoach();
    mockBrowser.cookies.set('wendel-language', 'de');
    await askNewPassword({ email });
    await Promise.all(mockLater.splice(0));
    const { rows } = await owner.query('select subject, body from message where address = $1', [email]);
    const body = /^Ada,\n\nhier kannst du innerhalb einer Stunde ein neues Passwort setzen:\n\nhttp\S+\n\nHast du nicht darum gebeten/;
    expect(rows).toEqual([{ subject: 'Ein neues Passwort für Wendel', body: expect.stringMatching(body) }]);
  });

  test('only the newest message is good; once used, or the password changed, none is; none lies in the clear', async () => {
    const me = await newCoach();
    const { email } = me;
    await askNewPassword({ email });
    const first = await tokenFor(email);
    // Asked for again at once: nothing more is sent, and the first stays good.
    await askNewPassword({ email });
    expect(await tokenFor(email)).toBe(first);
    await later();
    await askNewPassword({ email });
    const second = await tokenFor(email);
    expect(second).not.toBe(first);
    expect(await statusOf(setNewPassword({ token: first, password: 'heron reed lantern' }))).toBe(400);
    expect(JSON.stringify((await owner.query('select * from verification')).rows)).not.toContain(second);
    expect(await statusOf(setNewPassword({ token: second, password: 'heron reed lantern' }))).toBe(200);
    expect(await statusOf(setNewPassword({ token: second, password: 'heron reed lanterns' }))).toBe(400);

    await later();
    await askNewPassword({ email });
    const third = await tokenFor(email);
    newBrowser();
    keep(await signIn({ email, password: 'heron reed lantern' }));
    mockMember = me;
    await changePassword({ present: 'heron reed lantern', password: PASSWORD });
    mockMember = null;
    expect(await statusOf(setNewPassword({ token: third, password: 'heron reed lantern' }))).toBe(400);
    const { rows } = await owner.query('select did, actor_id from audit where studio_id = $1 order by at', [me.studioId]);
    expect(rows.map((r) => r.did)).toEqual(
      expect.arrayContaining(['asked for a new password', 'set a new password', 'signed in', 'changed the password']),
    );
    expect(rows.every((r) => r.actor_id === me.userId)).toBe(true);
  });

  test('for an unknown address nothing is sent, and the answer is as quick', async () => {
    await Promise.all(mockLater.splice(0));
    newBrowser();
    await askNewPassword({ email: `${randomUUID()}@reed.example` });
    // All that differs goes on after the answer.
    expect(mockLater).toHaveLength(1);
    await Promise.all(mockLater.splice(0));
  });
});

/** The code an authenticator shows (RFC 6238: HMAC-SHA-1, 30 s, six digits), from the secret as the phone reads it (RFC 4648, base 32). */
function codeOf(base32: string, at: number): string {
  const bits = [...base32].map((c) => 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567'.indexOf(c).toString(2).padStart(5, '0')).join('');
  const secret = Buffer.from(bits.match(/.{8}/g)!.map((byte) => parseInt(byte, 2)));
  const counter = Buffer.alloc(8);
  counter.writeBigUInt64BE(BigInt(Math.floor(at / 30_000)));
  const hash = createHmac('sha1', secret).update(counter).digest();
  return String((hash.readUInt32BE(hash[19] & 15) & 0x7fffffff) % 1e6).padStart(6, '0');
}

describe('a second factor', () => {
  test('the reckoning of codes is that of RFC 6238 (appendix B, SHA-1, the last six digits)', () => {
    const base32 = 'GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ';
    expect([59, 1111111109, 20000000000].map((s) => codeOf(base32, s * 1000))).toEqual(['287082', '081804', '353130']);
  });

  test('asked for once a code was shown; without one nobody is in, and a new password doesn’t go round it', async () => {
    const me = await newCoach();
    mockMember = me;
    await expect(beginSecondFactor({ present: WRONG })).rejects.toMatchObject({ code: 'incomplete' });
    const { uri, codes } = await beginSecondFactor({ present: PASSWORD });
    const secret = new URL(uri).searchParams.get('secret')!;
    const code = () => codeOf(secret, Date.now());
    const signedIn = () => mockBrowser.cookies.get('wendel.session_token');
    mockMember = null;

    // Not yet: no code was shown.
    newBrowser();
    keep(await signIn({ email: me.email, password: PASSWORD }));
    expect(signedIn()).toBeTruthy();
    mockMember = me;
    await expect(confirmSecondFactor({ code: '000000' })).rejects.toMatchObject({ code: 'incomplete' });
    keep(await confirmSecondFactor({ code: code() }));
    mockMember = null;

    const first = async (password = PASSWORD) => {
      newBrowser();
      const answer = await signIn({ email: me.email, password });
      keep(answer);
      expect(await answer.json()).toMatchObject({ code: true });
      expect(signedIn()).toBeFalsy();
    };
    await first();
    await expect(signInByCode({ code: '000000' })).rejects.toMatchObject({ code: 'signed-out' });
    expect(signedIn()).toBeFalsy();
    keep(await signInByCode({ code: code() }));
    expect(signedIn()).toBeTruthy();

    // Five wrong ones end the attempt: the right one is too late.
    await first();
    for (let i = 0; i < 5; i++) await expect(signInByCode({ code: '000000' })).rejects.toMatchObject({ code: 'signed-out' });
    await expect(signInByCode({ code: code() })).rejects.toMatchObject({ code: 'signed-out' });
    // A code without the first step is none.
    newBrowser();
    await expect(signInByCode({ code: code() })).rejects.toMatchObject({ code: 'signed-out' });

    // The phone is lost: a kept code, once.
    await first();
    keep(await signInByCode({ code: codes[0] }));
    expect(signedIn()).toBeTruthy();
    await first();
    await expect(signInByCode({ code: codes[0] })).rejects.toMatchObject({ code: 'signed-out' });

    newBrowser();
    await askNewPassword({ email: me.email });
    keep(await setNewPassword({ token: await tokenFor(me.email), password: 'heron reed lantern' }));
    expect(signedIn()).toBeFalsy();
    await first('heron reed lantern');
    keep(await signInByCode({ code: codes[1] }));
    mockMember = me;
    await expect(endSecondFactor({ present: PASSWORD })).rejects.toMatchObject({ code: 'incomplete' });
    await endSecondFactor({ present: 'heron reed lantern' });
    mockMember = null;
    newBrowser();
    keep(await signIn({ email: me.email, password: 'heron reed lantern' }));
    expect(signedIn()).toBeTruthy();
  });
});

describe('mail', () => {
  let mail: Awaited<ReturnType<typeof madeMailServer>>;
  beforeAll(async () => {
    mail = await madeMailServer();
  });
  afterAll(() => mail.stop());

  test('each message goes out once, however many hand it over at once', async () => {
    const { studioId } = await newCoach();
    await inStudio(studioId, async (tx) => {
      for (let i = 0; i < 10; i++)
        await insertMessage(tx, { recipient: 'r', address: `r${i}@reed.example`, subject: 's', body: 'b', forOwners: false });
    });
    mail.taken.length = 0;
    await Promise.all(Array.from({ length: 6 }, () => deliver(studioId)));
    expect(mail.taken.map((m) => m.to).sort()).toEqual(Array.from({ length: 10 }, (_, i) => `r${i}@reed.example`));
  });

  test('an invitation carries no address and no heading of the sender’s choosing', async () => {
    const me = await newCoach('Your parcel: http://evil.example/pay');
    mockMember = { ...me, name: 'Support www.evil.example\r\nBcc: all@evil.example' };
    mail.taken.length = 0;
    await inviteMember({ email: `${randomUUID()}@reed.example`, role: 'reader' });
    await Promise.all(mockLater.splice(0));
    mockMember = null;
    expect(mail.taken).toHaveLength(1);
    expect(mail.taken[0].text).not.toContain('evil.example');
    expect(mail.taken[0].text).toMatch(/^Subject: A place in a voice studio\r?$/m);
  });
});
