import type { Id } from '../core/format/id';
import { createHash, randomUUID } from 'node:crypto';
import { and, asc, desc, eq, gt, isNull, lt, ne, or, sql } from 'drizzle-orm';
import { drizzle } from 'drizzle-orm/node-postgres';
import type { Pool } from 'pg';
import * as schema from './door-schema';
import type { Role } from '../core/format/studio';
import { coach, invite, member, session, twoFactor, verification } from './door-schema';
import { openPool } from './client';
import { audit, Deed, studio } from './schema';

/** Someone who is signed in, and their place. */
export interface Member {
  userId: string;
  name: string;
  email: string;
  studioId: Id<'studio'>;
  role: Role;
}

// Kept on globalThis, as the application's pool is (client.ts).
const held = globalThis as unknown as { wendelDoor?: Pool };

/** The pool of the role that keeps the door, from the environment variable WENDEL_DOOR_URL. */
export function doorPool(): Pool {
  if (!held.wendelDoor) {
    const connectionString = process.env.WENDEL_DOOR_URL;
    if (!connectionString) throw new Error('WENDEL_DOOR_URL is not set: start Wendel with npm start, which sets it.');
    held.wendelDoor = openPool(connectionString, 5);
  }
  return held.wendelDoor;
}

/** The tables of accounts, as the role that keeps the door. */
export const door = () => drizzle(doorPool(), { schema });

/** The place of an account; undefined: it has none (any more). */
export async function placeOf(userId: string): Promise<Pick<Member, 'studioId' | 'role'> | undefined> {
  const [row] = await door().select({ studioId: member.studioId, role: member.role }).from(member).where(eq(member.userId, userId));
  return row;
}

/** The demo's studio, or any other that has nobody yet; undefined when each has somebody. */
export async function vacantStudio(db: Pick<ReturnType<typeof door>, 'select'> = door()): Promise<Id<'studio'> | undefined> {
  const [row] = await db
    .select({ id: studio.id })
    .from(studio)
    .leftJoin(member, eq(member.studioId, studio.id))
    .where(isNull(member.userId))
    .orderBy(asc(studio.createdAt))
    .limit(1);
  return row?.id;
}

/** Make an account the owner of a studio: the vacant one, or a new one of that name. Whether there was one to have. */
export async function foundStudio(userId: string, name: string | null): Promise<boolean> {
  return door().transaction(async (tx) => {
    // Two who sign up at once must not both get the vacant one.
    await tx.execute(sql`select pg_advisory_xact_lock(hashtext('wendel vacant studio'))`);
    const studioId = name === null ? await vacantStudio(tx) : (await tx.insert(studio).values({ name }).returning({ id: studio.id }))[0].id;
    if (!studioId) return false;
    await tx.insert(member).values({ userId, studioId, role: 'owner' });
    return true;
  });
}

/** Everyone of a studio, who came first first. */
export const membersOf = (studioId: Id<'studio'>) =>
  door()
    .select({ userId: member.userId, name: coach.name, email: coach.email, role: member.role, joinedAt: member.joinedAt })
    .from(member)
    .innerJoin(coach, eq(coach.id, member.userId))
    .where(eq(member.studioId, studioId))
    .orderBy(asc(member.joinedAt));

/**
 * Give a member another role, or take them and their account out (null). The last owner stays: without one nobody could let anyone
 * in. Two at once wait for each other. Who it was and what they were; 'nobody' when there is no such member.
 */
export async function changeMember(studioId: Id<'studio'>, userId: string, role: Role | null) {
  return door().transaction(async (tx) => {
    const members = await tx
      .select({ userId: member.userId, name: coach.name, email: coach.email, was: member.role })
      .from(member)
      .innerJoin(coach, eq(coach.id, member.userId))
      .where(eq(member.studioId, studioId))
      .for('update', { of: member });
    const them = members.find((m) => m.userId === userId);
    if (!them) return 'nobody' as const;
    if (them.was === 'owner' && role !== 'owner' && members.filter((m) => m.was === 'owner').length === 1) return 'last owner' as const;
    if (role === null) await tx.delete(coach).where(eq(coach.id, userId));
    else await tx.update(member).set({ role }).where(eq(member.userId, userId));
    return them;
  });
}

/** Forget an account that got no place. */
export async function forgetAccount(userId: string): Promise<void> {
  await door().delete(coach).where(eq(coach.id, userId));
}

export async function coachByEmail(email: string) {
  const [row] = await door()
    .select({ userId: coach.id, name: coach.name, studioId: member.studioId })
    .from(coach)
    .leftJoin(member, eq(member.userId, coach.id))
    .where(eq(coach.email, email));
  return row;
}

/** Whose new password a token sets; undefined when it sets none (any more). */
export async function coachByReset(token: string) {
  const [row] = await door()
    .select({ userId: coach.id, name: coach.name, email: coach.email, studioId: member.studioId })
    .from(verification)
    .innerJoin(coach, eq(coach.id, verification.value))
    .leftJoin(member, eq(member.userId, coach.id))
    .where(and(eq(verification.identifier, keptToken(token)), gt(verification.expiresAt, sql`now()`)));
  return row;
}

/** Offer a place; an older offer to the same address ends. */
export async function insertInvite(values: typeof invite.$inferInsert): Promise<void> {
  await door().transaction(async (tx) => {
    await tx.delete(invite).where(and(eq(invite.studioId, values.studioId), eq(invite.email, values.email)));
    await tx.insert(invite).values(values);
  });
}

/** Offers that stand. */
export const invitesOf = (studioId: Id<'studio'>) =>
  door()
    .select({ id: invite.id, email: invite.email, role: invite.role, expiresAt: invite.expiresAt })
    .from(invite)
    .where(and(eq(invite.studioId, studioId), gt(invite.expiresAt, sql`now()`)));

/** Take an offer back. Whether there was one. */
export async function removeInvite(studioId: Id<'studio'>, id: Id<'invite'>): Promise<boolean> {
  const done = await door()
    .delete(invite)
    .where(and(eq(invite.studioId, studioId), eq(invite.id, id)))
    .returning({ id: invite.id });
  return done.length > 0;
}

/** The offer of a token, by its hash, with the name of the studio; undefined when there is none any more. */
export async function inviteByHash(tokenHash: string) {
  const [row] = await door()
    .select({ id: invite.id, email: invite.email, studio: studio.name })
    .from(invite)
    .innerJoin(studio, eq(studio.id, invite.studioId))
    .where(and(eq(invite.tokenHash, tokenHash), gt(invite.expiresAt, sql`now()`)));
  return row;
}

/** Give an account the place that was offered; the offer is used up. Whether it still stood. */
export async function takeInvite(id: Id<'invite'>, userId: string): Promise<boolean> {
  return door().transaction(async (tx) => {
    const [taken] = await tx.delete(invite).where(eq(invite.id, id)).returning({ studioId: invite.studioId, role: invite.role });
    if (taken) await tx.insert(member).values({ userId, ...taken });
    return taken !== undefined;
  });
}

/** Whether an account is asked for a second factor. */
export async function hasSecondFactor(userId: string): Promise<boolean> {
  const [row] = await door().select({ on: coach.twoFactorEnabled }).from(coach).where(eq(coach.id, userId));
  return row?.on ?? false;
}

/** Take an account's second factor away, for whoever runs the machine: the phone is lost, and the codes with it. */
export async function removeSecondFactor(userId: string): Promise<void> {
  await door().transaction(async (tx) => {
    await tx.delete(twoFactor).where(eq(twoFactor.userId, userId));
    await tx.update(coach).set({ twoFactorEnabled: false }).where(eq(coach.id, userId));
  });
}

/** Where an account is signed in, the last used first. */
export const sessionsOf = (userId: string) =>
  door()
    .select({
      id: session.id,
      token: session.token,
      createdAt: session.createdAt,
      userAgent: session.userAgent,
    })
    .from(session)
    .where(and(eq(session.userId, userId), gt(session.expiresAt, sql`now()`)))
    .orderBy(desc(session.createdAt));

/** End one session of an account. Whether there was one. */
export async function endSession(userId: string, id: string): Promise<boolean> {
  const done = await door()
    .delete(session)
    .where(and(eq(session.userId, userId), eq(session.id, id)))
    .returning({ id: session.id });
  return done.length > 0;
}

/** What happened at the door, for the studio's log. */
export interface DoorNote {
  actor: string;
  actorId: string | null;
  did: Deed;
  what?: string;
  detail?: string;
}

/** Note in a studio's log who came, went and let whom in. */
export async function noteDoor(studioId: Id<'studio'>, { what = 'account', ...note }: DoorNote): Promise<void> {
  await door()
    .insert(audit)
    .values({ studioId, what, ...note });
}

/** Every account and its place, for whoever runs the machine. */
export const everyCoach = () =>
  door()
    .select({ name: coach.name, email: coach.email, role: member.role, studio: studio.name })
    .from(coach)
    .leftJoin(member, eq(member.userId, coach.id))
    .leftJoin(studio, eq(studio.id, member.studioId))
    .orderBy(asc(coach.createdAt));

/** How the sign-in library keeps the token of a new password: a hash (auth.ts, storeIdentifier). */
const keptToken = (token: string) => createHash('sha256').update(`reset-password:${token}`).digest('base64url');

/** Have a token set a new password until a time; older ones end. */
export async function offerNewPassword(userId: string, token: string, expiresAt: Date): Promise<void> {
  await forgetResets(userId);
  await door()
    .insert(verification)
    .values({ id: randomUUID(), identifier: keptToken(token), value: userId, expiresAt });
}

/** End every token with which an account could set a new password, but for one; and sign-ins that wait for their code. */
export async function forgetResets(userId: string, but?: string): Promise<void> {
  await door()
    .delete(verification)
    .where(and(eq(verification.value, userId), but ? ne(verification.identifier, keptToken(but)) : undefined));
}

/** Delete sessions, tokens and offers whose time is over, and sessions begun before a day. How many. */
export async function sweepDoor(sessionsBegunBefore: Date): Promise<number> {
  const now = sql`now()`;
  const gone = [
    await door()
      .delete(session)
      .where(or(lt(session.expiresAt, now), lt(session.createdAt, sessionsBegunBefore)))
      .returning({ id: session.id }),
    await door().delete(verification).where(lt(verification.expiresAt, now)).returning({ id: verification.id }),
    await door().delete(invite).where(lt(invite.expiresAt, now)).returning({ id: invite.id }),
  ];
  return gone.flat().length;
}
