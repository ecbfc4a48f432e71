/**
 * Whose page this is: a coach's account, or a singer's link. What is kept here is bound to whoever said it, and goes to the server as
 * theirs or not at all: one browser may serve many.
 */
export type Account = `coach:${string}` | `link:${string}`;

let present: Account | undefined;

/** Say whose page this is; in the browser only, before anything is said on it. */
export function actAs(account: Account): void {
  if (typeof window !== 'undefined') present = account;
}

export const presentAccount = (): Account | undefined => present;

/** Whether something kept is the present account's. What an earlier version kept says nothing: it is whoever's comes first. */
export const isMine = ({ account }: { account?: Account }): boolean => account === undefined || account === present;
