import { found } from '@/server/found';
import { mustBe } from '@/server/let-in';
import { SettingsFrame } from '@/ui/settings/SettingsFrame';

export default async function Layout({ children }: { children: React.ReactNode }) {
  return <SettingsFrame role={(await found(mustBe('reader'))).role}>{children}</SettingsFrame>;
}
