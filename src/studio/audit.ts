import { auditOf } from '../data/audit';
import { membersOf } from '../data/door';
import type { Context } from './context';

/** Who looked and who changed what, newest first; a coach with their address, since a name may be anybody's. */
export async function viewAudit({ tx }: Context) {
  const emails = new Map((await membersOf(tx.studioId)).map((m) => [m.userId, m.email]));
  return (await auditOf(tx)).map((line) => ({ ...line, email: emails.get(line.actorId ?? '') ?? null }));
}
