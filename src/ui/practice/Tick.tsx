import type { ReactNode } from 'react';

interface Props {
  checked: boolean;
  disabled?: boolean;
  onChange(checked: boolean): void;
  children: ReactNode;
}

/** A box to tick on the phone, as large as a thumb, and what it stands for. */
export function Tick({ checked, disabled, onChange, children }: Props) {
  return (
    <label className="flex min-h-11 items-center gap-2">
      <input type="checkbox" className="size-6" checked={checked} disabled={disabled} onChange={(e) => onChange(e.target.checked)} />{' '}
      {children}
    </label>
  );
}
