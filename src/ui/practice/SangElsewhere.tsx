'use client';
import { useState } from 'react';
import { ELSEWHERE } from '../../core/practice/elsewhere';
import { Elsewhere, ELSEWHERE_IDS, ElsewhereId } from '../../core/practice/types';
import { WhenAndHowLong } from './WhenAndHowLong';

const MINUTES = [15, 30, 45, 60, 90, 120, 180, 240, 360];

/** Rehearsal, choir, a show, teaching: what else the voice did on a day, told by the singer. */
export function SangElsewhere({ today, onTell }: { today: string; onTell: (what: Elsewhere, day: string) => void }) {
  const [where, setWhere] = useState<ElsewhereId>('rehearsal');
  const [minutes, setMinutes] = useState(60);
  const [day, setDay] = useState(today);
  return (
    <details>
      <summary className="min-h-11 cursor-pointer content-center font-semibold">Sang elsewhere?</summary>
      <form
        aria-label="Sang elsewhere"
        className="flex flex-col gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          onTell({ kind: 'elsewhere', where, minutes }, day);
        }}
      >
        <label className="flex flex-col text-sm text-soft">
          What
          <select className="field text-base" value={where} onChange={(e) => setWhere(e.target.value as ElsewhereId)}>
            {ELSEWHERE_IDS.map((id) => (
              <option key={id} value={id}>
                {ELSEWHERE[id].name}
              </option>
            ))}
          </select>
        </label>
        <WhenAndHowLong choices={MINUTES} minutes={minutes} onMinutes={setMinutes} day={day} today={today} onDay={setDay} />
        <button className="button">Tell it</button>
      </form>
    </details>
  );
}
