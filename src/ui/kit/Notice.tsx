import { CircleAlert } from 'lucide-react';

/** What went wrong, what is safe and what to do; read out at once. */
export function Notice({ children, actions }: { children: React.ReactNode; actions?: React.ReactNode }) {
  return (
    <div role="alert" className="flex flex-wrap items-center gap-3 rounded-lg border-2 border-band bg-card p-3">
      <CircleAlert aria-hidden className="shrink-0 text-band" />
      <p className="min-w-0 flex-1">{children}</p>
      {actions}
    </div>
  );
}
