import { randomUUID } from 'node:crypto';
import { and, asc, desc, eq, gt, isNull, sql } from 'drizzle-orm';
import { drizzle } from 'drizzle-orm/node-postgres';
import { Pool } from 'pg';
import * as schema from './door-schema';
import { coach, invite, member, Role, session, verification } from './door-schema';
import { audit, studio } from './schema';

/** Someone who is signed in, and their place. */
export interface Member {
  userId: string;
  name: string;
  email: string;
  studioId: string;
  role: Role;
}

// Kept on globalThis, as the application's pool is (client.ts).
const held = globalThis as unknown as { wendelDoor?: Pool };

function doorPool(): Pool {
  if (!held.wendelDoor) {
    const connectionString = process.env.WENDEL_DOOR_URL;
    if (!connectionString) throw new Error('WENDEL_DOOR_URL is not set: start Wendel with npm start, which sets it.');
    held.wendelDoor = new Pool({ connectionString, max: 5 });
    held.wendelDoor.on('error', () => {});
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
export async function vacantStudio(db: Pick<ReturnType<typeof door>, 'select'> = door()): Promise<string | undefined> {
  const [row] = await db
    .select({ id: studio.id })
    .from(studio)
    .leftJoin(member, eq(member.studioId, studio.id))
    .where(isNull(member.userId))
    .orderBy(asc(studio.createdAt))
    .limit(1);
  return row?.id;
}

/** Make an account the owner of a studio: the vacant one, or a new one of that name. */
export async function foundStudio(userId: string, name: string | null): Promise<void> {
  await door().transaction(async (tx) => {
    // Two who sign up at once must not both get the vacant one.
    await tx.execute(sql`select pg_advisory_xact_lock(hashtext('wendel vacant studio'))`);
    const studioId = name === null ? await vacantStudio(tx) : (await tx.insert(studio).values({ name }).returning({ id: studio.id }))[0].id;
    if (!studioId) throw new Error('The demo studio was taken meanwhile.');
    await tx.insert(member).values({ userId, studioId, role: 'owner' });
  });
}

/** Everyone of a studio, who came first first. */
export const membersOf = (studioId: string) =>
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
export async function changeMember(studioId: string, userId: string, role: Role | null) {
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

/** Offer a place; an older offer to the same address ends. */
export async function insertInvite(values: typeof invite.$inferInsert): Promise<void> {
  await door().transaction(async (tx) => {
    await tx.delete(invite).where(and(eq(invite.studioId, values.studioId), eq(invite.email, values.email)));
    await tx.insert(invite).values(values);
  });
}

/** Offers that stand. */
export const invitesOf = (studioId: string) =>
  door()
    .select({ id: invite.id, email: invite.email, role: invite.role, expiresAt: invite.expiresAt })
    .from(invite)
    .where(and(eq(invite.studioId, studioId), gt(invite.expiresAt, sql`now()`)));

/** Take an offer back. Whether there was one. */
export async function removeInvite(studioId: string, id: string): Promise<boolean> {
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
export async function takeInvite(id: string, userId: string): Promise<boolean> {
  return door().transaction(async (tx) => {
    const [taken] = await tx.delete(invite).where(eq(invite.id, id)).returning({ studioId: invite.studioId, role: invite.role });
    if (taken) await tx.insert(member).values({ userId, ...taken });
    return taken !== undefined;
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

/** Note in a studio's log who came and went. */
export async function noteDoor(studioId: string, actor: string, did: (typeof audit.$inferInsert)['did']): Promise<void> {
  await door().insert(audit).values({ studioId, actor, did, what: 'account' });
}

/** Every account and its place, for whoever runs the machine. */
export const everyCoach = () =>
  door()
    .select({ name: coach.name, email: coach.email, role: member.role, studio: studio.name })
    .from(coach)
    .leftJoin(member, eq(member.userId, coach.id))
    .leftJoin(studio, eq(studio.id, member.studioId))
    .orderBy(asc(coach.createdAt));

/** Have a token set a new password until a time, as the sign-in library keeps them. */
export async function offerNewPassword(userId: string, token: string, expiresAt: Date): Promise<void> {
  await door()
    .insert(verification)
    .values({ id: randomUUID(), identifier: `reset-password:${token}`, value: userId, expiresAt });
}
