'use client';
import { Radio, RadioGroup } from '@headlessui/react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { SchoolId, SCHOOLS } from '../../core/map/schools';
import { Notice } from '../kit/Notice';
import { sendJson } from '../kit/request';

/** What holds for the whole studio; each change is kept at once. */
export function SettingsRoom({ settings }: { settings: { name: string; school: SchoolId } }) {
  const router = useRouter();
  const [now, setNow] = useState(settings);
  const [said, setSaid] = useState<{ problem: string } | { kept: true } | null>(null);
  const change = async (next: typeof now) => {
    const before = now;
    setNow(next);
    try {
      await sendJson('PUT', '/api/settings', next);
      setSaid({ kept: true });
      router.refresh();
    } catch (error) {
      setNow(before);
      setSaid({ problem: (error as Error).message });
    }
  };
  return (
    <main className="mx-auto flex max-w-[820px] flex-col gap-5 px-4 py-4">
      <h1 className="text-2xl font-bold">Studio settings</h1>
      {said && 'problem' in said && <Notice>{said.problem}</Notice>}
      <label className="flex max-w-md flex-col gap-1 text-sm text-soft">
        Name of the studio
        <input
          className="field text-base"
          defaultValue={settings.name}
          maxLength={120}
          onBlur={(e) => e.target.value.trim() !== now.name && void change({ ...now, name: e.target.value.trim() })}
        />
      </label>
      <section aria-labelledby="school">
        <h2 id="school" className="text-lg font-bold">
          How the studio teaches
        </h2>
        <p className="text-soft">
          A school gives the changes their names and the work its order. What was heard stays as it is. A singer who is taught otherwise has
          a school of their own, under “About” on their page.
        </p>
        <RadioGroup
          value={now.school}
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
                <b>{s.name}</b>
                <br />
                {s.holds}
              </span>
            </Radio>
          ))}
        </RadioGroup>
      </section>
      <p role="status" className="min-h-6 text-soft">
        {said && 'kept' in said ? 'Kept.' : ''}
      </p>
    </main>
  );
}
