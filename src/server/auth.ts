import { betterAuth } from 'better-auth';
import { twoFactor } from 'better-auth/plugins';
import { drizzleAdapter } from 'better-auth/adapters/drizzle';
import { hashPassword, verifyPassword } from 'better-auth/crypto';
import { door, forgetResets } from '../data/door';
import * as tables from '../data/door-schema';
import { hashInTurn } from './limits';
import { sendPasswordChanged, sendReset } from './mail';
import { PASSWORD_LENGTH } from '../contract/inputs';

const DAY_S = 86_400;
/** A lesson must not be cut short by the door: two weeks, counted from the last day it was used, unless set otherwise. */
const SESSION_DAYS = Number(process.env.WENDEL_SESSION_DAYS) || 14;
/** However often it is used, a session ends (OWASP ASVS 3.3.2 wants one; how long is our choice). */
export const LONGEST_SESSION_DAYS = 90;

/** The sign-in library on our own tables. It has no route of its own: every way in is one of ours (accounts.ts). */
const make = () =>
  betterAuth({
    secret: process.env.WENDEL_SECRET,
    // Links in messages are made by us (mail.ts).
    baseURL: 'http://localhost',
    telemetry: { enabled: false },
    database: drizzleAdapter(door(), {
      provider: 'pg',
      schema: {
        user: tables.coach,
        session: tables.session,
        account: tables.credential,
        verification: tables.verification,
        twoFactor: tables.twoFactor,
      },
    }),
    emailAndPassword: {
      enabled: true,
      minPasswordLength: PASSWORD_LENGTH.least,
      maxPasswordLength: PASSWORD_LENGTH.most,
      // Whoever had the old password is out.
      revokeSessionsOnPasswordReset: true,
      resetPasswordTokenExpiresIn: 3600,
      // An older message's token ends with a newer one; when one was used, so do all.
      sendResetPassword: async ({ user, token }) => {
        await forgetResets(user.id, token);
        await sendReset(user.email, token);
      },
      onPasswordReset: async ({ user }) => {
        await forgetResets(user.id);
        await sendPasswordChanged(user.email);
      },
      password: {
        hash: (password) => hashInTurn(() => hashPassword(password)),
        verify: (given) => hashInTurn(() => verifyPassword(given)),
      },
    },
    // Whoever reads the table can't use what is in it.
    verification: { storeIdentifier: 'hashed' },
    plugins: [twoFactor({ issuer: 'Wendel' })],
    session: { expiresIn: SESSION_DAYS * DAY_S, updateAge: DAY_S },
    // Tries are counted by us, per account and per sender (limits.ts).
    rateLimit: { enabled: false },
    // The browser keeps the cookie from scripts and from other sites; over https only where it is served so.
    advanced: {
      cookiePrefix: 'wendel',
      useSecureCookies: process.env.WENDEL_HTTPS === '1',
      defaultCookieAttributes: { httpOnly: true, sameSite: 'lax', path: '/' },
      disableCSRFCheck: true,
      disableOriginCheck: true,
    },
    logger: { disabled: true },
  });

let made: ReturnType<typeof make> | undefined;

export const auth = () => (made ??= make());
