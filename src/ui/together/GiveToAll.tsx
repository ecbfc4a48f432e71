import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { useState } from 'react';
import type { OccasionId } from '../../core/plan/occasions';
import { said, type Said, texts } from '../../core/words/said';
import { saidOf } from '../../core/words/said-error';
import { ask } from '../../sync/ask';
import { Form } from '../kit/Form';
import { POPOVER } from '../kit/popover';
import { AWord, BeginsOn } from '../plan/week-fields';
import { named } from './named';
import { useLanguage } from '../language/language';

const WAYS = ['beside', 'instead'] as const;
const WAY_WORDS = texts({ beside: 'sings this beside it', instead: 'sings this instead of it' });

/** The set to practise at home, for everybody who is ticked: from which day, beside what they have or instead of it, and a word to all. */
export function GiveToAll({ singerIds, set, today }: { singerIds: string[]; set: OccasionId; today: string }) {
  const { t } = useLanguage();
  const [startsOn, setStartsOn] = useState(today);
  const [beside, setBeside] = useState(true);
  const [note, setNote] = useState('');
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<Said | null>(null);
  const [done, setDone] = useState<string[]>([]);
  const give = async () => {
    setBusy(true);
    setProblem(null);
    setDone([]);
    try {
      const { given } = await ask('POST /api/together', { body: { singerIds, set, startsOn, note, beside } });
      setDone(given);
    } catch (error) {
      setProblem(saidOf(error));
    }
    setBusy(false);
  };
  return (
    <Popover>
      <PopoverButton className="button-main">{t('Give it to all of them')}</PopoverButton>
      <PopoverPanel anchor="bottom start" className={POPOVER} focus>
        <Form className="flex flex-col gap-3" onSubmit={() => void give()}>
          <BeginsOn day={startsOn} onDay={setStartsOn} />
          <fieldset className="flex flex-col">
            <legend className="text-sm text-soft">{t('Who has a week to practise already')}</legend>
            {WAYS.map((way) => (
              <label key={way} className="flex min-h-9 items-center gap-2">
                <input type="radio" name="way" checked={beside === (way === 'beside')} onChange={() => setBeside(way === 'beside')} />
                {t(WAY_WORDS[way])}
              </label>
            ))}
          </fieldset>
          <AWord label={said('A word to all of them (printed on the sheet)')} word={note} onWord={setNote} />
          {problem && <p role="alert">{t(problem)}</p>}
          {done.length > 0 && <p role="status">{t('Given to {names}.', { names: named(done) })}</p>}
          <button className="button-main" disabled={busy}>
            {t('Give it to all of them')}
          </button>
        </Form>
      </PopoverPanel>
    </Popover>
  );
}
