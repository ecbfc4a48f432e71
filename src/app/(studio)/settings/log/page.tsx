import { viewAudit } from '@/server/audit';
import { found } from '@/server/found';
import { AuditLog } from '@/ui/settings/AuditLog';

export const metadata = { title: 'Who did what' };

export default async function Page() {
  return <AuditLog lines={await found(viewAudit())} />;
}
