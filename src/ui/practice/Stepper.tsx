import { useLanguage } from '../language/language';

/** A value with a large key to either side of it, for a thumb; `null`: no further that way. */
export function Stepper({
  label,
  value,
  less,
  more,
}: {
  label: string;
  value: string;
  less: (() => void) | null;
  more: (() => void) | null;
}) {
  const { t } = useLanguage();
  const key = (word: string, sign: string, act: (() => void) | null) => (
    <button
      className="min-h-12 min-w-12 text-xl disabled:opacity-30"
      aria-label={`${label}: ${word}`}
      disabled={!act}
      onClick={act ?? undefined}
    >
      {sign}
    </button>
  );
  return (
    <div role="group" aria-label={label} className="flex flex-1 items-center justify-between rounded-lg border border-line bg-card">
      {key(t('less'), '−', less)}
      <span className="text-center text-sm leading-tight">
        {label}
        <b className="block text-base">{value}</b>
      </span>
      {key(t('more'), '+', more)}
    </div>
  );
}
