import type { Id } from '../core/format/id';
import type {
  SignUpInput,
  SignInInput,
  CodeInput,
  ForgotInput,
  NewPasswordInput,
  PasswordInput,
  OwnPasswordInput,
  InviteInput,
  RoleInput,
  JoinInput,
} from '../contract/inputs';
import { addDays, subDays } from 'date-fns';
import { headers } from 'next/headers';
import { z } from 'zod';
import {
  changeMember,
  coachByEmail,
  coachByReset,
  endSession,
  forgetAccount,
  forgetResets,
  hasSecondFactor,
  foundStudio,
  insertInvite,
  inviteByHash,
  invitesOf,
  membersOf,
  noteDoor,
  removeInvite,
  sessionsOf,
  sweepDoor,
  takeInvite,
  vacantStudio,
} from '../data/door';
import type { Role } from '../core/format/studio';
import { said } from '../core/words/said';
import { studioSettings } from '../data/studios';
import { auth, LONGEST_SESSION_DAYS } from './auth';
import { dayOf } from '../studio/day';
import { deviceCookie, knownDevice } from './device';
import { sayHere } from './language';
import { countTry, forgetTries, giveBack, Limit, mayCount } from './limits';
import { hashOf, newToken } from '../studio/tokens';
import { post } from '../studio/post';
import { countPost, deliver, publicAddress, quoted, sendPasswordChanged, sendPlaceChanged } from './mail';
import { mustBeHardToGuess } from './passwords';
import { Refusal, RefusalCode } from '../studio/refusal';
import { afterAnswer, senderAddress } from './session';
import { actorOf, inPresentStudio, mustBe } from './let-in';

const INVITE_DAYS = 7;

/** Whether anyone may make an account and a studio of their own, once the first has an owner: where WENDEL_SIGN_UP=open says so. */
const signUpOpen = () => process.env.WENDEL_SIGN_UP === 'open';

/** What the page for a new account offers. */
export async function viewSignUp() {
  const vacant = (await vacantStudio()) !== undefined;
  return { open: signUpOpen() || vacant, vacant };
}

/** What the library does, and its no as a problem of ours. */
async function inOurWords<T>(work: Promise<T>, words: string, code: RefusalCode = 'incomplete'): Promise<T> {
  try {
    return await work;
  } catch (error) {
    if (typeof (error as { statusCode?: unknown }).statusCode === 'number') throw new Refusal(code, words);
    throw error;
  }
}

/** As `inOurWords`; the library's cookies, and those given, as an answer, with what `tells` makes of its own. */
async function answered<T extends { headers: Headers }>(
  work: Promise<T>,
  words: string,
  code: RefusalCode = 'incomplete',
  cookies: string[] = [],
  tells: (done: T) => object = () => ({}),
): Promise<Response> {
  const done = await inOurWords(work, words, code);
  const answer = Response.json({ ok: true, ...tells(done) });
  for (const cookie of [...done.headers.getSetCookie(), ...cookies]) answer.headers.append('set-cookie', cookie);
  return answer;
}

const TAKEN = 'There is an account with this address: sign in, or ask for a new password.';

/** Make an account and its place; without the place the account is forgotten again. The answer signs in. */
async function makeAccount(input: { name: string; email: string; password: string }, place: (userId: string) => Promise<void>) {
  await countTry('door', await senderAddress());
  mustBeHardToGuess(input.password, [input.email, input.name]);
  if (await coachByEmail(input.email)) throw new Refusal('conflict', TAKEN);
  return answered(
    (async () => {
      const made = await auth().api.signUpEmail({ body: input, headers: await headers(), returnHeaders: true });
      const { id } = made.response.user;
      try {
        await place(id);
      } catch (error) {
        await forgetAccount(id);
        throw error;
      }
      return made;
    })(),
    TAKEN,
    'conflict',
    [deviceCookie(input.email)],
  );
}

const NOT_VACANT = 'The demo studio has an owner already: give a studio of your own a name.';

/** A new account with a studio of its own, or with the demo's while nobody has it. @throws Refusal (not-allowed: closed; conflict: taken). */
export async function signUp({ studio, ...input }: z.infer<typeof SignUpInput>): Promise<Response> {
  const { open, vacant } = await viewSignUp();
  if (!open) throw new Refusal('not-allowed', 'New studios are not taken in here: ask the owner of a studio to invite you.');
  if (studio === null && !vacant) throw new Refusal('conflict', NOT_VACANT);
  return makeAccount(input, async (userId) => {
    if (!(await foundStudio(userId, studio))) throw new Refusal('conflict', NOT_VACANT);
  });
}

/** As whom an account's passwords are counted: a browser that knows it by itself, all others together. */
async function guesser(email: string): Promise<[Limit, string]> {
  const device = await knownDevice(email);
  return device ? ['device', device] : ['password', email];
}

/**
 * Every try is counted before the password is looked at, however many come at once, and given back when it was right.
 * @throws Refusal (signed-out: wrong; too-often: too often), the same words whether the address is known or not.
 */
export async function signIn({ email, password }: z.infer<typeof SignInInput>): Promise<Response> {
  const sender = await senderAddress();
  const who = await guesser(email);
  await countTry('door', sender);
  await countTry(...who);
  const coach = await coachByEmail(email);
  const note = (did: 'signed in' | 'could not sign in') => {
    // A note takes a moment, which would tell who is known here.
    if (coach?.studioId) afterAnswer(() => noteDoor(coach.studioId!, { ...actorOf(coach), did, detail: sender }));
  };
  try {
    const answer = await answered(
      auth().api.signInEmail({ body: { email, password }, headers: await headers(), returnHeaders: true }),
      'Address and password do not go together. Look at both, or ask for a new password: its message lets you in even when others tried too often.',
      'signed-out',
      [deviceCookie(email)],
      ({ response }) => ({ code: 'twoFactorRedirect' in response }),
    );
    await giveBack('door', sender);
    afterAnswer(() => sweepDoor(subDays(new Date(), LONGEST_SESSION_DAYS)));
    await forgetTries(...who);
    note('signed in');
    return answer;
  } catch (error) {
    if (error instanceof Refusal) note('could not sign in');
    throw error;
  }
}

/** Codes of an authenticator are digits; the ones kept for a lost phone are not. */
const isDigits = (code: string) => /^\d{6}$/.test(code);

/** The second step of signing in: a code of the coach's phone, or one of those kept for the day it is lost. @throws Refusal (signed-out). */
export async function signInByCode({ code }: z.infer<typeof CodeInput>): Promise<Response> {
  await countTry('door', await senderAddress());
  const given = { body: { code }, headers: await headers(), returnHeaders: true } as const;
  return answered(
    isDigits(code) ? auth().api.verifyTOTP(given) : auth().api.verifyBackupCode(given),
    'This code is not right, or its time is over: take the one your phone shows now. After five wrong ones begin anew with the password.',
    'signed-out',
  );
}

/** Nothing of the studio stays in the browser's cache. */
export async function signOut(): Promise<Response> {
  const me = await mustBe('reader');
  const answer = await answered(auth().api.signOut({ headers: await headers(), returnHeaders: true }), 'You are signed out already.');
  answer.headers.set('clear-site-data', '"cache"');
  await noteDoor(me.studioId, { ...actorOf(me), did: 'signed out' });
  return answer;
}

/**
 * Send the message with which a new password is set. The answer, and how long it takes, are the same whether the address is known or
 * not. Asked for again within ten minutes, or very often in a day, nothing more is sent: the message that is there stays good.
 */
export async function askNewPassword({ email }: z.infer<typeof ForgotInput>): Promise<void> {
  await countTry('door', await senderAddress());
  if (!((await mayCount('reset', email)) && (await mayCount('resets', email)))) return;
  afterAnswer(async () => {
    const coach = await coachByEmail(email);
    if (!coach?.studioId) return;
    await noteDoor(coach.studioId, { ...actorOf(coach), did: 'asked for a new password' });
    await auth().api.requestPasswordReset({ body: { email } });
  });
}

/**
 * Set a new password by the token of a message; whoever was signed in is out, and no other message is good any more. The browser is
 * known from then on. @throws Refusal (incomplete: the token is not valid any more).
 */
export async function setNewPassword({ token, password }: z.infer<typeof NewPasswordInput>): Promise<Response> {
  await countTry('door', await senderAddress());
  const coach = await coachByReset(token);
  if (!coach) throw new Refusal('incomplete', RESET_OVER);
  mustBeHardToGuess(password, [coach.email, coach.name]);
  const answer = await answered(
    auth().api.resetPassword({ body: { token, newPassword: password }, headers: await headers(), returnHeaders: true }),
    RESET_OVER,
    'incomplete',
    [deviceCookie(coach.email)],
  );
  await forgetTries('password', coach.email);
  if (coach.studioId) await noteDoor(coach.studioId, { ...actorOf(coach), did: 'set a new password' });
  return answer;
}
const RESET_OVER = 'This message is not valid any more: ask for a new one.';

/** Change one's own password; every other session ends. @throws Refusal (incomplete: the present one is wrong). */
export async function changePassword({ present, password }: z.infer<typeof PasswordInput>): Promise<Response> {
  const me = await mustBe('reader');
  await countTry('device', me.userId);
  mustBeHardToGuess(password, [me.email, me.name]);
  const answer = await answered(
    auth().api.changePassword({
      body: { currentPassword: present, newPassword: password, revokeOtherSessions: true },
      headers: await headers(),
      returnHeaders: true,
    }),
    WRONG_PASSWORD,
  );
  await forgetTries('device', me.userId);
  await forgetResets(me.userId);
  await noteDoor(me.studioId, { ...actorOf(me), did: 'changed the password' });
  afterAnswer(() => sendPasswordChanged(me.email));
  return answer;
}

const WRONG_PASSWORD = 'The present password is not right: nothing was changed.';
/** Begin a second factor: what the phone's authenticator reads, and codes for the day it is lost. It is asked for once a code was shown. */
export async function beginSecondFactor({ present }: z.infer<typeof OwnPasswordInput>): Promise<{ uri: string; codes: string[] }> {
  const me = await mustBe('reader');
  await countTry('device', me.userId);
  const made = await inOurWords(auth().api.enableTwoFactor({ body: { password: present }, headers: await headers() }), WRONG_PASSWORD);
  if (!('totpURI' in made)) throw new Error('The sign-in library made no second factor.');
  return { uri: made.totpURI, codes: made.backupCodes };
}

/** Show a first code: from now on one is asked for at the door. @throws Refusal (incomplete). */
export async function confirmSecondFactor({ code }: z.infer<typeof CodeInput>): Promise<Response> {
  const me = await mustBe('reader');
  await countTry('device', me.userId);
  const answer = await answered(
    auth().api.verifyTOTP({ body: { code }, headers: await headers(), returnHeaders: true }),
    'This is not the code the phone should show: is its clock right? Nothing was changed.',
  );
  await noteDoor(me.studioId, { ...actorOf(me), did: 'changed', detail: 'a second factor is asked for' });
  return answer;
}

/** Ask for no second factor any more. @throws Refusal (incomplete). */
export async function endSecondFactor({ present }: z.infer<typeof OwnPasswordInput>): Promise<Response> {
  const me = await mustBe('reader');
  await countTry('device', me.userId);
  const answer = await answered(
    auth().api.disableTwoFactor({ body: { password: present }, headers: await headers(), returnHeaders: true }),
    WRONG_PASSWORD,
  );
  await noteDoor(me.studioId, { ...actorOf(me), did: 'changed', detail: 'no second factor is asked for' });
  return answer;
}

/** Who one is, and where one is signed in. */
export async function viewAccount() {
  const { userId, name, email, role } = await mustBe('reader');
  const here = (await auth().api.getSession({ headers: await headers() }))?.session.token;
  const sessions = await sessionsOf(userId);
  return {
    name,
    email,
    role,
    secondFactor: await hasSecondFactor(userId),
    sessions: sessions.map(({ token, ...s }) => ({ ...s, here: token === here })),
  };
}

/** Sign out somewhere else. @throws Refusal (not-found). */
export async function endOwnSession(id: string): Promise<void> {
  const { userId } = await mustBe('reader');
  if (!(await endSession(userId, id))) throw new Refusal('not-found', 'That session has ended already.');
}

/** Who works in the studio and who is asked to. @throws Refusal (not-allowed: owners only). */
export async function viewMembers() {
  const { studioId, userId } = await mustBe('owner');
  const members = await membersOf(studioId);
  return { members: members.map((m) => ({ ...m, self: m.userId === userId })), invites: await invitesOf(studioId) };
}

/** Offer somebody a place; the message with the way in lies in the post. @throws Refusal (conflict: has an account). */
export async function inviteMember({ email, role }: z.infer<typeof InviteInput>): Promise<{ address: string }> {
  const me = await mustBe('owner');
  const { studioId, name } = me;
  await countPost(studioId);
  if (await coachByEmail(email))
    throw new Refusal(
      'conflict',
      'There is an account with this address already, and an account belongs to one studio: take another address.',
    );
  const token = newToken();
  const expiresAt = addDays(new Date(), INVITE_DAYS);
  await insertInvite({ studioId, email, role, tokenHash: hashOf(token), expiresAt });
  const address = `${publicAddress()}/join/${token}`;
  await inPresentStudio(async ({ tx }) => {
    const studio = await studioSettings(tx);
    await post(tx, {
      singerId: null,
      recipient: email,
      address: email,
      subject: await sayHere('A place in a voice studio'),
      body: await sayHere(
        said(
          '{name} offers you a place in the studio {studio}. Take it here:\n\n{address}\n\nThe offer is good until {day}. If you know nobody of that name, leave it.',
          {
            name: { own: quoted(name) },
            studio: { own: quoted(studio.name) },
            address: { own: address },
            day: { own: dayOf(expiresAt) },
          },
        ),
      ),
      forOwners: true,
    });
  });
  await noteDoor(studioId, { ...actorOf(me), did: 'invited', detail: role });
  afterAnswer(() => deliver(studioId));
  return { address };
}

/** @throws Refusal (not-found). */
export async function endInvite(id: Id<'invite'>): Promise<void> {
  const me = await mustBe('owner');
  if (!(await removeInvite(me.studioId, id))) throw new Refusal('not-found', 'That offer is not there any more.');
  await noteDoor(me.studioId, { ...actorOf(me), did: 'took back', what: 'invitation' });
}

/** Change what a coach may do, or take them out of the studio (null), and tell them. What they entered stays. */
async function changePlace(userId: string, role: Role | null): Promise<void> {
  const me = await mustBe('owner');
  const { studioId } = me;
  const them = await changeMember(studioId, userId, role);
  if (them === 'nobody') throw new Refusal('not-found', 'There is no such coach in this studio.');
  if (them === 'last owner') throw new Refusal('conflict', 'A studio keeps at least one owner: make somebody else an owner first.');
  if (them.was === role) return;
  // About whom stands in the line of the one it was done to, with who did it.
  await noteDoor(studioId, {
    ...actorOf(them),
    did: role ? 'was made' : 'was taken out',
    detail: `${role ? `${role} instead of ${them.was}, ` : ''}by ${me.name} (${me.email})`,
  });
  afterAnswer(() => sendPlaceChanged(studioId, them, role));
}

/** @throws Refusal (not-found; conflict: the last owner). */
export const changeRole = (userId: string, { role }: z.infer<typeof RoleInput>): Promise<void> => changePlace(userId, role);

/** The account is deleted with the place. @throws Refusal (not-found; conflict: the last owner). */
export const dismiss = (userId: string): Promise<void> => changePlace(userId, null);

/** The offer behind a token. @throws Refusal (not-found). */
export async function viewInvite(token: string) {
  const offer = /^[\w-]{20,100}$/.test(token) ? await inviteByHash(hashOf(token)) : undefined;
  if (!offer) {
    await countTry('link', await senderAddress());
    throw new Refusal('not-found', 'This offer is not valid any more: ask for a new one.');
  }
  return offer;
}

/** Take an offered place with a new account. The answer signs in. @throws Refusal (not-found: the offer is gone). */
export async function join(token: string, input: z.infer<typeof JoinInput>): Promise<Response> {
  const { id, email } = await viewInvite(token);
  return makeAccount({ ...input, email }, async (userId) => {
    if (!(await takeInvite(id, userId))) throw new Refusal('not-found', 'This offer was used meanwhile: ask for a new one.');
  });
}
