import { auditOf } from '../data/audit';
import { membersOf } from '../data/door';
import { inPresentStudio, mustBe } from './studio';

/** Who looked and who changed what, newest first; a coach with their address, since a name may be anybody's. @throws Problem (403: owners only). */
export async function viewAudit() {
  const { studioId } = await mustBe('owner');
  const emails = new Map((await membersOf(studioId)).map((m) => [m.userId, m.email]));
  const lines = await inPresentStudio(auditOf);
  return lines.map((line) => ({ ...line, email: emails.get(line.actorId ?? '') ?? null }));
}
