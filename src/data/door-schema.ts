import type { Id } from '../core/format/id';
import { sql } from 'drizzle-orm';
import { bigint, boolean, check, index, integer, pgTable, text, timestamp, uuid } from 'drizzle-orm/pg-core';
import { Role } from '../core/format/studio';
import { studio } from './schema';

/**
 * Who may come in: kept apart from what the studios hold. Only the role wendel_door reads and writes these (src/data/door.ts);
 * the application's own role has no right to any of them. The first four are as the sign-in library wants them.
 */

const at = (name: string) => timestamp(name, { withTimezone: true });
const made = () => ({ createdAt: at('created_at').notNull().defaultNow(), updatedAt: at('updated_at').notNull().defaultNow() });

/** A coach's account. */
export const coach = pgTable('coach', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  email: text('email').notNull().unique(),
  emailVerified: boolean('email_verified').notNull().default(false),
  image: text('image'),
  /** Signs in with a code of the coach's phone as well. */
  twoFactorEnabled: boolean('two_factor_enabled').notNull().default(false),
  ...made(),
});

const coachId = (name: string) =>
  text(name)
    .notNull()
    .references(() => coach.id, { onDelete: 'cascade' });

/** Signed in somewhere. */
export const session = pgTable(
  'session',
  {
    id: text('id').primaryKey(),
    userId: coachId('user_id'),
    token: text('token').notNull().unique(),
    expiresAt: at('expires_at').notNull(),
    ipAddress: text('ip_address'),
    userAgent: text('user_agent'),
    ...made(),
  },
  (t) => [index('session_by_coach').on(t.userId)],
);

/** How an account is proved: a password's hash. */
export const credential = pgTable(
  'credential',
  {
    id: text('id').primaryKey(),
    userId: coachId('user_id'),
    accountId: text('account_id').notNull(),
    providerId: text('provider_id').notNull(),
    accessToken: text('access_token'),
    refreshToken: text('refresh_token'),
    idToken: text('id_token'),
    accessTokenExpiresAt: at('access_token_expires_at'),
    refreshTokenExpiresAt: at('refresh_token_expires_at'),
    scope: text('scope'),
    password: text('password'),
    ...made(),
  },
  (t) => [index('credential_by_coach').on(t.userId)],
);

/** Things to be proved within a time, as a new password asked for. */
export const verification = pgTable(
  'verification',
  {
    id: text('id').primaryKey(),
    identifier: text('identifier').notNull(),
    value: text('value').notNull(),
    expiresAt: at('expires_at').notNull(),
    ...made(),
  },
  (t) => [index('verification_by_identifier').on(t.identifier)],
);

/** What a second factor's codes are made of, encrypted by the sign-in library. */
export const twoFactor = pgTable(
  'two_factor',
  {
    id: text('id').primaryKey(),
    userId: coachId('user_id'),
    secret: text('secret').notNull(),
    backupCodes: text('backup_codes').notNull(),
    /** The coach has shown a code once: from then on it is asked for. */
    verified: boolean('verified').notNull().default(true),
    failedVerificationCount: integer('failed_verification_count').notNull().default(0),
    lockedUntil: at('locked_until'),
  },
  (t) => [index('two_factor_by_coach').on(t.userId)],
);

/** A coach's place in a studio; everyone has one place. */
export const member = pgTable(
  'member',
  {
    userId: text('user_id')
      .primaryKey()
      .references(() => coach.id, { onDelete: 'cascade' }),
    studioId: uuid('studio_id')
      .$type<Id<'studio'>>()
      .notNull()
      .references(() => studio.id, { onDelete: 'cascade' }),
    role: text('role').$type<Role>().notNull(),
    joinedAt: at('joined_at').notNull().defaultNow(),
  },
  (t) => [index('member_by_studio').on(t.studioId), check('member_role', sql`${t.role} in ('owner','coach','reader')`)],
);

/** A place that is offered; the token is only in the message that carries it. */
export const invite = pgTable(
  'invite',
  {
    id: uuid('id').$type<Id<'invite'>>().primaryKey().defaultRandom(),
    studioId: uuid('studio_id')
      .$type<Id<'studio'>>()
      .notNull()
      .references(() => studio.id, { onDelete: 'cascade' }),
    email: text('email').notNull(),
    role: text('role').$type<Role>().notNull(),
    tokenHash: text('token_hash').notNull().unique(),
    expiresAt: at('expires_at').notNull(),
    createdAt: at('created_at').notNull().defaultNow(),
  },
  (t) => [check('invite_role', sql`${t.role} in ('owner','coach','reader')`)],
);

/** How often something was tried, shared by all web processes; as the library for limits wants it (src/server/limits.ts). */
export const tries = pgTable('tries', {
  key: text('key').primaryKey(),
  points: integer('points').notNull().default(0),
  /** Milliseconds since 1970; null: for ever. */
  expire: bigint('expire', { mode: 'number' }),
});
