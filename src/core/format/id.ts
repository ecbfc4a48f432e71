import { z } from 'zod';

/** The id of a thing of one kind: a take's doesn't pass where a singer's is asked for. Made where ids come in, from a text that can be one. */
export type Id<Of extends string> = string & z.$brand<Of>;

/** What accounts have as ids is the sign-in library's own. */
const OF_ACCOUNTS = ['sessionId', 'userId'] as const;
type OfAccounts = (typeof OF_ACCOUNTS)[number];

/** Names in an address and what they stand for: those that end in Id are ids. @example IdsIn<'takeId' | 'token'> // { takeId: Id<'take'>; token: string } */
export type IdsIn<Names extends string> = {
  [Name in Names]: Name extends OfAccounts ? string : Name extends `${infer Of}Id` ? Id<Of> : string;
};

/** @example IdShape('take').parse('8859f8ef-2e6b-4445-96dd-c0a9936a85ec') // an Id<'take'> */
export const IdShape = <Of extends string>(of: Of) => z.uuid().brand(of);

/** @example newId('take') // one that nothing has yet */
export const newId = <Of extends string>(_of: Of): Id<Of> => crypto.randomUUID() as string as Id<Of>;

const Any = z.uuid();

/**
 * Whether all ids in an address can be some; PostgreSQL would stumble over others.
 *
 * @example areIds({ takeId: 'no id', token: 'x' }) // false
 */
export const areIds = <Names extends string>(names: Record<Names, string>): names is IdsIn<Names> & Record<Names, string> =>
  Object.entries<string>(names).every(
    ([name, value]) => !name.endsWith('Id') || OF_ACCOUNTS.some((of) => of === name) || Any.safeParse(value).success,
  );
