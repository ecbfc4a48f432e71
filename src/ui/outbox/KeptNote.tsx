'use client';
import { useEffect, useRef, useState } from 'react';
import { useMayChange } from '../kit/may-change';
import { onHeard, say, Word, wordsUnder } from '../../sync/words';
import { useLanguage } from '../language/language';

/** The coach's own words on a thing, `{ note }` at a path, or another field of it: kept when the field is left. */
export function KeptNote({
  label,
  method,
  path,
  field: name = 'note',
  stored,
  maxLength,
  className = '',
}: {
  label: string;
  method: Word['method'];
  path: string;
  field?: string;
  stored: string;
  maxLength: number;
  className?: string;
}) {
  const { t } = useLanguage();
  const mayChange = useMayChange();
  const subject = name === 'note' ? undefined : `${path}#${name}`;
  const field = useRef<HTMLTextAreaElement>(null);
  const last = useRef(stored);
  const [status, setStatus] = useState('');
  useEffect(() => {
    // Written before a reload and not with the server yet, or drawn anew; what is being written stays.
    const own = wordsUnder(path).find((w) => w.path === path && w.subject === subject);
    if (document.activeElement !== field.current)
      field.current!.value = last.current = own ? (own.body as Record<string, string>)[name] : stored;
  }, [path, subject, name, stored]);
  useEffect(
    () => onHeard((word, refused) => word.path === path && word.subject === subject && setStatus(t(refused ?? 'Kept.'))),
    [path, subject, t],
  );
  return (
    <label className="flex flex-col gap-1 text-sm text-soft">
      {label}
      <textarea
        ref={field}
        className={`field min-h-16 py-2 text-base text-ink ${className}`}
        readOnly={!mayChange}
        defaultValue={stored}
        maxLength={maxLength}
        onBlur={({ target: { value } }) => {
          if (value === last.current) return;
          last.current = value;
          say({ method, path, subject, body: { [name]: value } });
        }}
      />
      <span role="status">{status}</span>
    </label>
  );
}
