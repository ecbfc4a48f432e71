import { auditOf } from '../data/audit';
import { inPresentStudio, mustBe } from './studio';

/** Who looked and who changed what, newest first. @throws Problem (403: owners only). */
export async function viewAudit() {
  await mustBe('owner');
  return inPresentStudio(auditOf);
}
