'use client';
import { Pin, PinOff } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { FormEvent, useState } from 'react';
import { PIN_NAMES, PinName, VoiceMap } from '../../core/map/types';
import { ForCoaches, useMayChange } from '../kit/may-change';
import { Notice } from '../kit/Notice';
import type { LadderScale } from '../ladder/scale';
import { ask } from '../../sync/ask';
import { Form } from '../kit/Form';
import { useLanguage } from '../language/language';

import { texts, Said } from '../../core/words/said';
import { saidOf } from '../../core/words/said-error';

export const PIN_WORDS: Record<PinName, string> = texts({
  'usable-low': 'lowest usable note',
  'usable-high': 'highest usable note',
  change: 'the change',
  'second-change': 'the second change',
  speaking: 'speaking pitch',
});

/** The present value of what can be pinned. */
const valueOf = (map: VoiceMap, what: PinName): number | null =>
  ({
    'usable-low': map.usable?.low.midi ?? null,
    'usable-high': map.usable?.high.midi ?? null,
    change: map.passaggi[0]?.midi ?? null,
    'second-change': map.passaggi[1]?.midi ?? null,
    speaking: map.speakingMidi,
  })[what];

/** Values set by the coach's hand, each beside what the machine says; and the way to set another. */
export function Pins({ singerId, map, scale }: { singerId: string; map: VoiceMap; scale: LadderScale }) {
  const { note, t } = useLanguage();
  const router = useRouter();
  const [problem, setProblem] = useState<Said | null>(null);
  const [what, setWhat] = useState<PinName>('change');
  const put = (name: PinName, midi: number | null) =>
    ask('PUT /api/singers/[singerId]/pins', { params: { singerId }, body: { what: name, midi } }).then(
      () => (setProblem(null), router.refresh()),
      (error: unknown) => setProblem(saidOf(error)),
    );
  const pin = (event: FormEvent<HTMLFormElement>) => {
    void put(what, Number(new FormData(event.currentTarget).get('midi')));
  };
  const pinned = PIN_NAMES.filter((n) => n in map.pinned);
  const mayChange = useMayChange();
  if (!mayChange && pinned.length === 0) return null;
  const notes = Array.from({ length: scale.high - scale.low + 1 }, (_, i) => scale.high - i);
  return (
    <details className={`card ${pinned.length ? '' : 'no-print'}`} open={pinned.length > 0}>
      <summary className="cursor-pointer font-semibold">{mayChange ? t('Pinned by you') : t('Pinned by the coach')}</summary>
      <ul>
        {pinned.map((n) => (
          <li key={n} className="flex items-center gap-2">
            <Pin aria-hidden size={16} className="text-coach" />
            <span className="flex-1">
              {t(PIN_WORDS[n])}: <b>{note(valueOf(map, n)!)}</b>{' '}
              <span className="text-sm text-soft">
                {map.pinned[n] === null ? t('the machine: nothing yet') : t('the machine: {note}', { note: { note: map.pinned[n]! } })}
              </span>
            </span>
            <ForCoaches>
              <button
                className="button-small min-h-11 min-w-11"
                aria-label={t('Take the pin out of {pin}', { pin: PIN_WORDS[n] })}
                onClick={() => void put(n, null)}
              >
                <PinOff aria-hidden size={16} />
              </button>
            </ForCoaches>
          </li>
        ))}
      </ul>
      <ForCoaches>
        <Form onSubmit={pin} className="no-print mt-1 flex flex-wrap items-end gap-2">
          <label className="flex flex-col gap-1 text-sm text-soft">
            {t('What')}
            <select className="field" value={what} onChange={(e) => setWhat(e.target.value as PinName)}>
              {PIN_NAMES.map((n) => (
                <option key={n} value={n}>
                  {t(PIN_WORDS[n])}
                </option>
              ))}
            </select>
          </label>
          <label className="flex flex-col gap-1 text-sm text-soft">
            {t('Note')}
            <select className="field" name="midi" key={what} defaultValue={Math.round(valueOf(map, what) ?? (scale.low + scale.high) / 2)}>
              {notes.map((m) => (
                <option key={m} value={m}>
                  {note(m)}
                </option>
              ))}
            </select>
          </label>
          <button className="button">
            <Pin aria-hidden size={18} /> {t('Pin')}
          </button>
        </Form>
      </ForCoaches>
      {problem && <Notice>{t(problem)}</Notice>}
    </details>
  );
}
