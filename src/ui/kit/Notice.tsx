import { CircleAlert } from 'lucide-react';
import { useLanguage } from '../language/language';

/** What went wrong (a sentence of the server's is said in the reader's language where that is known), what is safe and what to do; read out at once. */
export function Notice({ children, actions }: { children: React.ReactNode; actions?: React.ReactNode }) {
  const { t } = useLanguage();
  return (
    <div role="alert" className="flex flex-wrap items-center gap-3 rounded-lg border-2 border-band bg-card p-3">
      <CircleAlert aria-hidden className="shrink-0 text-band" />
      <p className="min-w-0 flex-1">{typeof children === 'string' ? t(children) : children}</p>
      {actions}
    </div>
  );
}
