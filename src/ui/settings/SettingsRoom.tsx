'use client';
import { Radio, RadioGroup } from '@headlessui/react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { SchoolId, SCHOOLS } from '../../core/map/schools';
import { Notice } from '../kit/Notice';
import { BundleInOut } from './BundleInOut';
import { useAttempt } from './useAttempt';
import { ask } from '../../sync/ask';
import { useLanguage } from '../language/language';
import type { Said } from '../../core/words/said';
import { saidOf } from '../../core/words/said-error';

const KEEP_MONTHS = [3, 6, 12, 24, 60];

/** What holds for the whole studio; each change is kept at once. */
export function SettingsRoom({ may, settings }: { may: boolean; settings: { name: string; school: SchoolId; keepMonths: number | null } }) {
  const { t } = useLanguage();
  const router = useRouter();
  const { problem, attempt } = useAttempt();
  const [now, setNow] = useState(settings);
  const [said, setSaid] = useState<{ problem: Said } | { kept: true } | null>(null);
  const change = async (next: typeof now) => {
    const before = now;
    setNow(next);
    try {
      await ask('PUT /api/settings', { body: next });
      setSaid({ kept: true });
      router.refresh();
    } catch (error) {
      setNow(before);
      setSaid({ problem: saidOf(error) });
    }
  };
  return (
    <>
      <h1 className="text-2xl font-bold">{t('Studio settings')}</h1>
      {!may && <p className="text-soft">{t('The owner of the studio sets these.')}</p>}
      {said && 'problem' in said && <Notice>{t(said.problem)}</Notice>}
      {problem && <Notice>{t(problem)}</Notice>}
      <label className="flex max-w-md flex-col gap-1 text-sm text-soft">
        {t('Name of the studio')}
        <input
          className="field text-base"
          defaultValue={settings.name}
          maxLength={120}
          disabled={!may}
          onBlur={(e) => e.target.value.trim() !== now.name && void change({ ...now, name: e.target.value.trim() })}
        />
      </label>
      <section aria-labelledby="school">
        <h2 id="school" className="text-lg font-bold">
          {t('How the studio teaches')}
        </h2>
        <p className="text-soft">
          {t(
            'A school gives the changes their names and the work its order. What was heard stays as it is. A singer who is taught otherwise has a school of their own, under “About” on their page.',
          )}
        </p>
        <RadioGroup
          value={now.school}
          disabled={!may}
          onChange={(school) => void change({ ...now, school })}
          aria-labelledby="school"
          className="mt-3 grid gap-2"
        >
          {SCHOOLS.map((s) => (
            <Radio
              key={s.id}
              value={s.id}
              className="group card flex cursor-pointer gap-3 data-checked:border-accent data-focus:outline-2 data-focus:outline-accent"
            >
              <span
                aria-hidden
                className="mt-1 size-5 shrink-0 rounded-full border-2 border-soft group-data-checked:border-6 group-data-checked:border-accent"
              />
              <span>
                <b>{t(s.name)}</b>
                <br />
                {t(s.holds)}
              </span>
            </Radio>
          ))}
        </RadioGroup>
      </section>
      <section aria-labelledby="keep">
        <h2 id="keep" className="text-lg font-bold">
          {t('How long recordings are kept')}
        </h2>
        <p className="text-soft">
          {t(
            'The sound of a take is deleted for good when its time is over; a time set newly acts after three days. What was found in it, your marks and the map stay. Ask a singer, or the guardian of a minor, before you record, and keep no longer than you need.',
          )}
        </p>
        <select
          className="field mt-2 text-base"
          aria-labelledby="keep"
          disabled={!may}
          value={now.keepMonths ?? ''}
          onChange={(e) => void change({ ...now, keepMonths: Number(e.target.value) || null })}
        >
          <option value="">{t('until you delete them')}</option>
          {KEEP_MONTHS.map((n) => (
            <option key={n} value={n}>
              {t('{n} months', { n })}
            </option>
          ))}
        </select>
      </section>
      {may && <BundleInOut attempt={attempt} />}
      <p role="status" className="min-h-6 text-soft">
        {said && 'kept' in said ? t('Kept.') : ''}
      </p>
    </>
  );
}
