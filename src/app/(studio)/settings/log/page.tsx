import { texts } from '@/core/words/said';
import { titled } from '@/server/language';
import { found } from '@/server/found';
import { asAtLeast, inPresentStudio } from '@/server/let-in';
import { viewAudit } from '@/studio/audit';
import { AuditLog } from '@/ui/settings/AuditLog';

export const generateMetadata = () => titled(texts('Who did what'));

export default async function Page() {
  return <AuditLog lines={await found(asAtLeast('owner', () => inPresentStudio(viewAudit)))} />;
}
