import { found } from '@/server/found';
import { asAtLeast, inPresentStudio } from '@/server/let-in';
import { viewAudit } from '@/studio/audit';
import { AuditLog } from '@/ui/settings/AuditLog';

export const metadata = { title: 'Who did what' };

export default async function Page() {
  return <AuditLog lines={await found(asAtLeast('owner', () => inPresentStudio(viewAudit)))} />;
}
