/** A labelled choice among a few, as the platform draws it. */
export function Choice<T extends string>({ label, value, options, onChange, disabled }: { label: string; value: T; options: readonly (readonly [T, string])[]; onChange: (value: T) => void; disabled?: boolean }) {
  return (
    <label className="flex flex-col gap-1 text-sm text-soft">
      {label}
      <select className="field text-base" value={value} disabled={disabled} onChange={(e) => onChange(e.target.value as T)}>
        {options.map(([id, text]) => (
          <option key={id} value={id}>
            {text}
          </option>
        ))}
      </select>
    </label>
  );
}
