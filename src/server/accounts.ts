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
import { Role, ROLES } from '../data/door-schema';
import { studioSettings } from '../data/studios';
import { auth, LONGEST_SESSION_DAYS } from './auth';
import { dayOf } from './day';
import { deviceCookie, knownDevice } from './device';
import { countTry, forgetTries, giveBack, Limit, mayCount } from './limits';
import { hashOf, newToken } from './links';
import { countPost, deliver, post, publicAddress, quoted, sendPasswordChanged, sendPlaceChanged } from './mail';
import { mustBeHardToGuess, PASSWORD_LENGTH } from './passwords';
import { Problem } from './problem';
import { afterAnswer, senderAddress } from './session';
import { actorOf, inPresentStudio, mustBe } from './studio';

const INVITE_DAYS = 7;

const Email = z.email('That is no e-mail address: look at it once more.').max(200).toLowerCase();
const Password = z
  .string()
  .min(PASSWORD_LENGTH.least, `A password has at least ${PASSWORD_LENGTH.least} characters: three or four words do well.`)
  .max(PASSWORD_LENGTH.most);
/** Names the log gives to others. */
const NOT_A_NAME = /^(the singer|wendel itself)$/i;
const Name = z
  .string()
  .trim()
  .min(1, 'Give your name.')
  .max(120)
  .refine((name) => !NOT_A_NAME.test(name), 'Take another name: this one is used in the log for somebody else.');

export const SignUpInput = z.object({
  name: Name,
  email: Email,
  password: Password,
  /** A name for a studio of one's own; null: take over the demo's. */
  studio: z.string().trim().min(1, 'Give the studio a name.').max(120).nullable(),
});

/** Whether anyone may make an account and a studio of their own, once the first has an owner: where WENDEL_SIGN_UP=open says so. */
const signUpOpen = () => process.env.WENDEL_SIGN_UP === 'open';

/** What the page for a new account offers. */
export async function viewSignUp() {
  const vacant = (await vacantStudio()) !== undefined;
  return { open: signUpOpen() || vacant, vacant };
}

/** What the library does, and its no as a problem of ours. */
async function inOurWords<T>(work: Promise<T>, words: string, status = 400): Promise<T> {
  try {
    return await work;
  } catch (error) {
    if (typeof (error as { statusCode?: unknown }).statusCode === 'number') throw new Problem(words, status);
    throw error;
  }
}

/** As `inOurWords`; the library's cookies, and those given, as an answer, with what `tells` makes of its own. */
async function answered<T extends { headers: Headers }>(
  work: Promise<T>,
  words: string,
  status = 400,
  cookies: string[] = [],
  tells: (done: T) => object = () => ({}),
): Promise<Response> {
  const done = await inOurWords(work, words, status);
  const answer = Response.json({ ok: true, ...tells(done) });
  for (const cookie of [...done.headers.getSetCookie(), ...cookies]) answer.headers.append('set-cookie', cookie);
  return answer;
}

const TAKEN = 'There is an account with this address: sign in, or ask for a new password.';

/** Make an account and its place; without the place the account is forgotten again. The answer signs in. */
async function makeAccount(input: { name: string; email: string; password: string }, place: (userId: string) => Promise<void>) {
  await countTry('door', await senderAddress());
  mustBeHardToGuess(input.password, [input.email, input.name]);
  if (await coachByEmail(input.email)) throw new Problem(TAKEN, 409);
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
    409,
    [deviceCookie(input.email)],
  );
}

const NOT_VACANT = 'The demo studio has an owner already: give a studio of your own a name.';

/** A new account with a studio of its own, or with the demo's while nobody has it. @throws Problem (403: closed; 409: taken). */
export async function signUp({ studio, ...input }: z.infer<typeof SignUpInput>): Promise<Response> {
  const { open, vacant } = await viewSignUp();
  if (!open) throw new Problem('New studios are not taken in here: ask the owner of a studio to invite you.', 403);
  if (studio === null && !vacant) throw new Problem(NOT_VACANT, 409);
  return makeAccount(input, async (userId) => {
    if (!(await foundStudio(userId, studio))) throw new Problem(NOT_VACANT, 409);
  });
}

export const SignInInput = z.object({ email: Email, password: z.string().max(PASSWORD_LENGTH.most) });

/** As whom an account's passwords are counted: a browser that knows it by itself, all others together. */
async function guesser(email: string): Promise<[Limit, string]> {
  const device = await knownDevice(email);
  return device ? ['device', device] : ['password', email];
}

/**
 * Every try is counted before the password is looked at, however many come at once, and given back when it was right.
 * @throws Problem (401: wrong; 429: too often), the same words whether the address is known or not.
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
      401,
      [deviceCookie(email)],
      ({ response }) => ({ code: 'twoFactorRedirect' in response }),
    );
    await giveBack('door', sender);
    afterAnswer(() => sweepDoor(subDays(new Date(), LONGEST_SESSION_DAYS)));
    await forgetTries(...who);
    note('signed in');
    return answer;
  } catch (error) {
    if (error instanceof Problem) note('could not sign in');
    throw error;
  }
}

export const CodeInput = z.object({ code: z.string().trim().min(6).max(20) });

/** Codes of an authenticator are digits; the ones kept for a lost phone are not. */
const isDigits = (code: string) => /^\d{6}$/.test(code);

/** The second step of signing in: a code of the coach's phone, or one of those kept for the day it is lost. @throws Problem (401). */
export async function signInByCode({ code }: z.infer<typeof CodeInput>): Promise<Response> {
  await countTry('door', await senderAddress());
  const given = { body: { code }, headers: await headers(), returnHeaders: true } as const;
  return answered(
    isDigits(code) ? auth().api.verifyTOTP(given) : auth().api.verifyBackupCode(given),
    'This code is not right, or its time is over: take the one your phone shows now. After five wrong ones begin anew with the password.',
    401,
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

export const ForgotInput = z.object({ email: Email });

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

export const NewPasswordInput = z.object({ token: z.string().min(1).max(200), password: Password });

/**
 * Set a new password by the token of a message; whoever was signed in is out, and no other message is good any more. The browser is
 * known from then on. @throws Problem (400: the token is not valid any more).
 */
export async function setNewPassword({ token, password }: z.infer<typeof NewPasswordInput>): Promise<Response> {
  await countTry('door', await senderAddress());
  const coach = await coachByReset(token);
  if (!coach) throw new Problem(RESET_OVER);
  mustBeHardToGuess(password, [coach.email, coach.name]);
  const answer = await answered(
    auth().api.resetPassword({ body: { token, newPassword: password }, headers: await headers(), returnHeaders: true }),
    RESET_OVER,
    400,
    [deviceCookie(coach.email)],
  );
  await forgetTries('password', coach.email);
  if (coach.studioId) await noteDoor(coach.studioId, { ...actorOf(coach), did: 'set a new password' });
  return answer;
}
const RESET_OVER = 'This message is not valid any more: ask for a new one.';

export const PasswordInput = z.object({ present: z.string().max(PASSWORD_LENGTH.most), password: Password });

/** Change one's own password; every other session ends. @throws Problem (400: the present one is wrong). */
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
export const OwnPasswordInput = z.object({ present: z.string().max(PASSWORD_LENGTH.most) });

/** Begin a second factor: what the phone's authenticator reads, and codes for the day it is lost. It is asked for once a code was shown. */
export async function beginSecondFactor({ present }: z.infer<typeof OwnPasswordInput>): Promise<{ uri: string; codes: string[] }> {
  const me = await mustBe('reader');
  await countTry('device', me.userId);
  const made = await inOurWords(auth().api.enableTwoFactor({ body: { password: present }, headers: await headers() }), WRONG_PASSWORD);
  if (!('totpURI' in made)) throw new Error('The sign-in library made no second factor.');
  return { uri: made.totpURI, codes: made.backupCodes };
}

/** Show a first code: from now on one is asked for at the door. @throws Problem (400). */
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

/** Ask for no second factor any more. @throws Problem (400). */
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

/** Sign out somewhere else. @throws Problem (404). */
export async function endOwnSession(id: string): Promise<void> {
  const { userId } = await mustBe('reader');
  if (!(await endSession(userId, id))) throw new Problem('That session has ended already.', 404);
}

/** Who works in the studio and who is asked to. @throws Problem (403: owners only). */
export async function viewMembers() {
  const { studioId, userId } = await mustBe('owner');
  const members = await membersOf(studioId);
  return { members: members.map((m) => ({ ...m, self: m.userId === userId })), invites: await invitesOf(studioId) };
}

export const InviteInput = z.object({ email: Email, role: z.enum(ROLES) });

/** Offer somebody a place; the message with the way in lies in the post. @throws Problem (409: has an account). */
export async function inviteMember({ email, role }: z.infer<typeof InviteInput>): Promise<{ address: string }> {
  const me = await mustBe('owner');
  const { studioId, name } = me;
  await countPost(studioId);
  if (await coachByEmail(email))
    throw new Problem('There is an account with this address already, and an account belongs to one studio: take another address.', 409);
  const token = newToken();
  const expiresAt = addDays(new Date(), INVITE_DAYS);
  await insertInvite({ studioId, email, role, tokenHash: hashOf(token), expiresAt });
  const address = `${publicAddress()}/join/${token}`;
  await inPresentStudio(async (tx) => {
    const studio = await studioSettings(tx);
    await post(tx, {
      singerId: null,
      recipient: email,
      address: email,
      subject: 'A place in a voice studio',
      body: `${quoted(name)} offers you a place in the studio ${quoted(studio.name)}. Take it here:\n\n${address}\n\nThe offer is good until ${dayOf(expiresAt)}. If you know nobody of that name, leave it.`,
      forOwners: true,
    });
  });
  await noteDoor(studioId, { ...actorOf(me), did: 'invited', detail: role });
  afterAnswer(() => deliver(studioId));
  return { address };
}

/** @throws Problem (404). */
export async function endInvite(id: string): Promise<void> {
  const me = await mustBe('owner');
  if (!z.uuid().safeParse(id).success || !(await removeInvite(me.studioId, id)))
    throw new Problem('That offer is not there any more.', 404);
  await noteDoor(me.studioId, { ...actorOf(me), did: 'took back', what: 'invitation' });
}

export const RoleInput = z.object({ role: z.enum(ROLES) });

/** Change what a coach may do, or take them out of the studio (null), and tell them. What they entered stays. */
async function changePlace(userId: string, role: Role | null): Promise<void> {
  const me = await mustBe('owner');
  const { studioId } = me;
  const them = await changeMember(studioId, userId, role);
  if (them === 'nobody') throw new Problem('There is no such coach in this studio.', 404);
  if (them === 'last owner') throw new Problem('A studio keeps at least one owner: make somebody else an owner first.', 409);
  if (them.was === role) return;
  // About whom stands in the line of the one it was done to, with who did it.
  await noteDoor(studioId, {
    ...actorOf(them),
    did: role ? 'was made' : 'was taken out',
    detail: `${role ? `${role} instead of ${them.was}, ` : ''}by ${me.name} (${me.email})`,
  });
  afterAnswer(() => sendPlaceChanged(studioId, them, role));
}

/** @throws Problem (404; 409: the last owner). */
export const changeRole = (userId: string, { role }: z.infer<typeof RoleInput>): Promise<void> => changePlace(userId, role);

/** The account is deleted with the place. @throws Problem (404; 409: the last owner). */
export const dismiss = (userId: string): Promise<void> => changePlace(userId, null);

/** The offer behind a token. @throws Problem (404). */
export async function viewInvite(token: string) {
  const offer = /^[\w-]{20,100}$/.test(token) ? await inviteByHash(hashOf(token)) : undefined;
  if (!offer) {
    await countTry('link', await senderAddress());
    throw new Problem('This offer is not valid any more: ask for a new one.', 404);
  }
  return offer;
}

export const JoinInput = z.object({ name: Name, password: Password });

/** Take an offered place with a new account. The answer signs in. @throws Problem (404: the offer is gone). */
export async function join(token: string, input: z.infer<typeof JoinInput>): Promise<Response> {
  const { id, email } = await viewInvite(token);
  return makeAccount({ ...input, email }, async (userId) => {
    if (!(await takeInvite(id, userId))) throw new Problem('This offer was used meanwhile: ask for a new one.', 404);
  });
}
