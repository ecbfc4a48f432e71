'use client';
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { PlanItem } from '../../core/plan/types';
import { POPOVER } from '../kit/popover';
import { ask } from '../../sync/ask';
import { Form } from '../kit/Form';
import { useLanguage } from '../language/language';
import { said, type Said } from '../../core/words/said';
import { AWord, BeginsOn } from './week-fields';
import { saidOf } from '../../core/words/said-error';

/** The last step: from which day, and a word for the singer. */
export function AssignPanel({
  singer,
  items,
  startsOn,
  onStartsOn,
  conflicts,
}: {
  singer: { id: string; name: string };
  items: PlanItem[];
  startsOn: string;
  onStartsOn: (day: string) => void;
  conflicts: number;
}) {
  const { t } = useLanguage();
  const router = useRouter();
  const [note, setNote] = useState('');
  const [problem, setProblem] = useState<Said | null>(null);
  const [busy, setBusy] = useState(false);
  const assign = async () => {
    setBusy(true);
    setProblem(null);
    try {
      const { id } = await ask('POST /api/assignments', { body: { singerId: singer.id, note, startsOn, items } });
      router.push(`/assignments/${id}`);
    } catch (error) {
      setProblem(saidOf(error));
      setBusy(false);
    }
  };
  return (
    <Popover>
      <PopoverButton className="button-main" disabled={items.length === 0}>
        {t('Assign week')}
      </PopoverButton>
      <PopoverPanel anchor="bottom end" className={POPOVER} focus>
        <Form
          className="flex flex-col gap-3"
          onSubmit={() => {
            void assign();
          }}
        >
          <BeginsOn day={startsOn} onDay={onStartsOn} />
          <AWord label={said('A word for {name} (printed on the sheet)', { name: { own: singer.name } })} word={note} onWord={setNote} />
          {conflicts > 0 && (
            <p className="text-sm">
              {t('{n, plural, one {One thing goes} other {# things go}} against a rule. You decide: assign as it is, or look again.', {
                n: conflicts,
              })}
            </p>
          )}
          {problem && <p role="alert">{t(problem)}</p>}
          <button className="button-main" disabled={busy}>
            {t('Assign to {name}', { name: singer.name })}
          </button>
        </Form>
      </PopoverPanel>
    </Popover>
  );
}
