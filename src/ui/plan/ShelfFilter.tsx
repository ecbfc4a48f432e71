'use client';
import { FAMILIES, GRADES, STRANDS } from '../../core/exercise/types';
import { FINDING_NAMES } from '../../core/map/types';
import { FINDING_WORDS } from '../kit/words';
import { FAMILY_WORDS, STRAND_WORDS } from '../kit/words-of-work';
import type { Filter } from './filter';
import { useLanguage } from '../language/language';

/** What to look for on the shelf. */
export function ShelfFilter({ filter, onChange }: { filter: Filter; onChange: (filter: Filter) => void }) {
  const { t } = useLanguage();
  const select = <K extends keyof Filter>(key: K, label: string, options: readonly (readonly [Filter[K], string])[]) => (
    <select
      aria-label={label}
      className="field min-h-11 min-w-0 flex-1 basis-28 px-1 text-sm"
      value={String(filter[key])}
      onChange={(e) => onChange({ ...filter, [key]: key === 'grade' ? Number(e.target.value) : e.target.value })}
    >
      <option value={key === 'grade' ? '0' : ''}>{label}</option>
      {options.map(([value, text]) => (
        <option key={String(value)} value={String(value)}>
          {text}
        </option>
      ))}
    </select>
  );
  return (
    <div role="search" className="flex flex-wrap gap-1">
      <input
        className="field min-w-0 flex-1 basis-full"
        type="search"
        placeholder={t('Search the shelf')}
        aria-label={t('Search the shelf')}
        value={filter.text}
        onChange={(e) => onChange({ ...filter, text: e.target.value })}
      />
      {select(
        'finding',
        t('Any finding'),
        FINDING_NAMES.map((f) => [f, t(FINDING_WORDS[f])]),
      )}
      {select(
        'strand',
        t('Any strand'),
        STRANDS.map((s) => [s, t(STRAND_WORDS[s])]),
      )}
      {select(
        'family',
        t('Any family'),
        FAMILIES.map((f) => [f, t(FAMILY_WORDS[f])]),
      )}
      {select(
        'grade',
        t('Any grade'),
        GRADES.map((g) => [g, t('Grade {grade}', { grade: g })]),
      )}
    </div>
  );
}
