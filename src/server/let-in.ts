import type { Id } from '../core/format/id';
import { AsyncLocalStorage } from 'node:async_hooks';
import { Actor, noteLooks } from '../data/audit';
import { inStudio } from '../data/client';
import type { Member } from '../data/door';
import type { Role } from '../core/format/studio';
import type { Context, Run } from '../studio/context';
import { dayOf } from '../studio/day';
import { Refusal } from '../studio/refusal';
import { presentMember } from './session';

/** The member a route handler has let in, for the work it does. */
const letIn = new AsyncLocalStorage<Member>();

const RANK: Record<Role, number> = { reader: 0, coach: 1, owner: 2 };
const WORDS: Record<Role, string> = {
  reader: 'Sign in to see this.',
  coach: 'Your account may look at everything and change nothing: ask the owner of the studio.',
  owner: 'This is for the owner of the studio.',
};

const signIn = () => new Refusal('signed-out', 'You are not signed in (any more). Sign in and do it again; what you wrote is still here.');

/** Who asks, if they may do what takes a role. @throws Refusal (signed-out: not signed in; not-allowed: not allowed). */
export async function mustBe(role: Role): Promise<Member> {
  const member = letIn.getStore() ?? (await presentMember());
  if (!member) throw signIn();
  if (RANK[member.role] < RANK[role]) throw new Refusal('not-allowed', WORDS[role]);
  return member;
}

/**
 * Do a route handler's work as whoever asks, if they have at least this role. A page says whose it is (`account`): when somebody else has
 * signed in meanwhile in the same browser, nothing of it is done in their name. @throws Refusal as `mustBe`.
 */
export async function asAtLeast<T>(role: Role, work: () => Promise<T>, account: string | null = null): Promise<T> {
  const member = await mustBe(role);
  if (account !== null && account !== member.userId)
    throw new Refusal(
      'signed-out',
      'Somebody else is signed in in this browser now. Sign in again and do it once more; what you wrote is still here.',
    );
  return letIn.run(member, work);
}

/**
 * Looks already noted today, so that a day of work with a singer is one line: "studio person singer". On globalThis: pages and routes
 * may each have a copy of this module.
 */
const noted = ((globalThis as unknown as { wendelNoted?: Map<string, Set<string>> }).wendelNoted ??= new Map());

function newLooks({ studioId, userId }: Member, saw: Set<Id<'singer'>>): Id<'singer'>[] {
  const today = dayOf(new Date());
  if (!noted.has(today)) noted.clear();
  const done = noted.get(today) ?? new Set();
  noted.set(today, done);
  const fresh = [...saw].filter((id) => !done.has(`${studioId} ${userId} ${id}`));
  for (const id of fresh) done.add(`${studioId} ${userId} ${id}`);
  return fresh;
}

/**
 * Do work in the studio of whoever asks. A reader's transaction is read-only in the database itself: a second lock, should a route
 * forget the first. @throws Refusal (signed-out).
 *
 * @example await inPresentStudio(viewSinger, singerId)
 */
export const inPresentStudio: Run = async (work, ...input) => inStudioOf(await mustBe('reader'), (ctx) => work(ctx, ...input));

/** As `inPresentStudio`, for work that goes on when the request's handler has answered. */
export async function presentStudio(): Promise<Run> {
  const member = await mustBe('reader');
  return (work, ...input) => inStudioOf(member, (ctx) => work(ctx, ...input));
}

/** A member as the log names them. */
export const actorOf = ({ name, userId }: Pick<Member, 'name' | 'userId'>): Actor => ({ actor: name, actorId: userId });

async function inStudioOf<T>(member: Member, work: (ctx: Context) => Promise<T>): Promise<T> {
  let saw = new Set<Id<'singer'>>();
  const result = await inStudio(
    member.studioId,
    (tx) => {
      saw = tx.saw;
      return work({ tx, as: member.role, now: new Date() });
    },
    { actor: member.name, actorId: member.userId, readOnly: member.role === 'reader' },
  );
  const looks = newLooks(member, saw);
  if (looks.length > 0) await noteLooks(member.studioId, actorOf(member), looks);
  return result;
}
