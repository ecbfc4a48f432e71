import { texts } from '@/core/words/said';
import { TurnedAway } from '@/ui/door/TurnedAway';

export default function NotFound() {
  return (
    <main className="mx-auto flex max-w-[1240px] flex-col gap-2 px-4 py-10">
      <TurnedAway title={texts('There is nothing here')} says={texts('It may have been discarded, or the address is mistyped.')} back />
    </main>
  );
}
