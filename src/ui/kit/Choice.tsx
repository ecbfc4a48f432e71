import { useId } from 'react';
import type { Said } from '../../core/words/said';
import { useLanguage } from '../language/language';

/** A labelled choice among a few, as the platform draws it. */
export function Choice<T extends string>({
  label,
  value,
  options,
  onChange,
  disabled,
}: {
  label: string;
  value: T;
  options: readonly (readonly [T, Said])[];
  onChange: (value: T) => void;
  disabled?: boolean;
}) {
  const { t } = useLanguage();
  const id = useId();
  return (
    <div className="flex max-w-full min-w-0 flex-col gap-1">
      <label htmlFor={id} className="text-sm text-soft">
        {label}
      </label>
      <select id={id} className="field" value={value} disabled={disabled} onChange={(e) => onChange(e.target.value as T)}>
        {options.map(([key, text]) => (
          <option key={key} value={key}>
            {t(text)}
          </option>
        ))}
      </select>
    </div>
  );
}
