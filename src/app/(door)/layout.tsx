import { LanguageChoice } from '@/ui/language/LanguageChoice';

/** Outside the studio: signing in and what leads there. */
export default function DoorLayout({ children }: { children: React.ReactNode }) {
  return (
    <main className="mx-auto flex max-w-md flex-col gap-4 px-4 py-10">
      <p className="text-2xl font-bold text-accent">Wendel</p>
      {children}
      <LanguageChoice />
    </main>
  );
}
