import { found } from '@/server/found';
import { mustBe } from '@/server/let-in';
import { MayChange } from '@/ui/kit/may-change';
import { Outbox } from '@/ui/outbox/Outbox';
import { MainMenu } from '@/ui/studio/MainMenu';

/** The coach's side: the main menu, and what waits to be sent. */
export default async function StudioLayout({ children }: { children: React.ReactNode }) {
  const { name, role, userId } = await found(mustBe('reader'));
  return (
    <MayChange value={role !== 'reader'}>
      <MainMenu name={name} role={role} />
      <Outbox coachId={userId} />
      {children}
    </MayChange>
  );
}
