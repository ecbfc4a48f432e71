'use client';
import { useState } from 'react';
import { useFollowAlong } from '../../audio/follow-along';
import { renderKey } from '../../core/exercise/render';
import type { Exercise } from '../../core/exercise/types';
import { howSoftIn } from '../../core/exercise/how-soft';
import type { Ceiling } from '../../core/map/types';
import { keyLadder } from '../../core/music/scale';
import { Conflict } from '../../core/plan/check';
import { RULES } from '../../core/plan/rules';
import { LONGEST_CUE, MOST_CUES, PlanItem } from '../../core/plan/types';
import { HearIt } from '../kit/HearIt';
import { Staff } from '../staff/Staff';
import { useLanguage } from '../language/language';

const SMALL = 'field min-h-9 w-full px-1 text-sm';
/** Keys offered, F#1 to F#6. */
const KEYS = Array.from({ length: 61 }, (_, k) => 30 + k);
const TEMPO_REACH = 20;

/** One item of the week: its notes in each key, to hear and to change, and why it is there. */
export function ItemDetail({
  item,
  exercise,
  changeMidi,
  conflicts,
  ceiling,
  models,
  onEdit,
}: {
  item: PlanItem;
  exercise: Exercise;
  /** Where this voice changes. */
  changeMidi: number;
  /** How loud it stays joined, where that was tried. */
  ceiling: Ceiling | undefined;
  conflicts: Conflict[];
  /** The coach's own voice, as it should and should not sound. */
  models: React.ReactNode;
  onEdit: (part: Partial<PlanItem>) => void;
}) {
  const { keyNote, t } = useLanguage();
  const along = useFollowAlong();
  const { sounding, problem } = along;
  const [shown, setShown] = useState(0);
  const at = sounding ? sounding.key : Math.min(shown, item.keys.length - 1);
  const first = item.keys[0];
  const last = item.keys[item.keys.length - 1];
  const soft = howSoftIn(ceiling, exercise, item.keys);
  return (
    <section aria-label={t(exercise.name)} className="flex flex-col gap-2">
      <div className="flex items-center gap-2">
        <h2 className="min-w-0 flex-1 text-lg leading-tight font-bold">{t(exercise.name)}</h2>
        <HearIt
          along={along}
          id={exercise.id}
          keys={() => item.keys.map((k) => renderKey(exercise, k, item.tempo))}
          className="button-small min-h-11 px-3"
        />
      </div>
      {problem && <p role="alert">{t(problem)}</p>}
      {soft && <p className="text-sm font-semibold">{t(soft)}</p>}
      {conflicts.map((c) => (
        <p key={c.rule + t(c.says)} className="rounded-lg border-2 border-band px-2 py-1 text-sm">
          <b>{t(c.says)}</b> {t(RULES[c.rule])}
        </p>
      ))}
      <div role="group" aria-label={t('Key shown')} className="flex flex-wrap gap-0.5">
        {item.keys.map((k, i) => (
          <button
            key={k}
            aria-pressed={i === at}
            className={`min-h-9 min-w-9 rounded-md border px-1 text-sm ${i === at ? 'border-accent font-bold' : 'border-line text-soft'}`}
            onClick={() => setShown(i)}
          >
            {keyNote(k)}
          </button>
        ))}
      </div>
      <Staff exercise={exercise} tonic={item.keys[at]} leaning={{ sound: item.sound, changeMidi }} />
      <p className="text-sm">
        {t(item.reason)} {item.straws && <b>{t('Today: {straws}.', { straws: item.straws })}</b>}
      </p>
      <div className="grid grid-cols-3 gap-x-2 gap-y-1 text-xs text-soft">
        <label className="flex flex-col">
          {t('Sound')}
          <select className={SMALL} value={item.sound} onChange={(e) => onEdit({ sound: e.target.value })}>
            {[...new Set([...exercise.sounds, item.sound])].map((s) => (
              <option key={s} value={s}>
                {t(s)}
              </option>
            ))}
          </select>
        </label>
        <KeyField label={t('First key')} value={first} onChange={(key) => onEdit({ keys: keyLadder(key, last) })} />
        <KeyField label={t('Last key')} value={last} onChange={(key) => onEdit({ keys: keyLadder(first, key) })} />
        <NumberField
          label={t('Tempo')}
          value={item.tempo}
          min={Math.max(30, exercise.tempo[0] - TEMPO_REACH)}
          max={Math.min(240, exercise.tempo[2] + TEMPO_REACH)}
          step={2}
          onChange={(tempo) => onEdit({ tempo })}
        />
        <NumberField label={t('Minutes')} value={item.minutes} min={0.5} max={10} step={0.5} onChange={(minutes) => onEdit({ minutes })} />
        <NumberField
          label={t('Times a day')}
          value={item.timesADay}
          min={1}
          max={8}
          step={1}
          onChange={(timesADay) => onEdit({ timesADay })}
        />
      </div>
      <Cues cues={item.cues ?? []} onChange={(cues) => onEdit({ cues: cues.length ? cues : undefined })} />
      <p className="text-sm text-soft">{t(exercise.how)}</p>
      <p className="text-sm text-soft">{t(item.advance)}</p>
      {models}
      <details className="text-sm">
        <summary className="min-h-9 cursor-pointer content-center text-soft">{t('What decided')}</summary>
        <ul className="list-disc pl-5">
          {item.rules.map((r) => (
            <li key={r}>{t(RULES[r])}</li>
          ))}
        </ul>
      </details>
    </section>
  );
}

/** What the coach would say between the keys, a line each; kept when the field is left. */
function Cues({ cues, onChange }: { cues: readonly string[]; onChange: (cues: string[]) => void }) {
  const { t } = useLanguage();
  const said = cues.join('\n');
  return (
    <label className="flex flex-col text-xs text-soft">
      {t('Said between the keys, a line each')}
      <textarea
        key={said}
        className="field w-full px-2 py-1 text-sm text-ink"
        rows={Math.max(1, cues.length)}
        defaultValue={said}
        placeholder={t('less air')}
        onBlur={(e) => {
          const lines = e.target.value.split('\n').map((line) => line.trim().slice(0, LONGEST_CUE));
          const next = lines.filter(Boolean).slice(0, MOST_CUES);
          if (next.join('\n') !== said) onChange(next);
        }}
      />
    </label>
  );
}

function KeyField({ label, value, onChange }: { label: string; value: number; onChange: (key: number) => void }) {
  const { keyNote } = useLanguage();
  return (
    <label className="flex flex-col">
      {label}
      <select className={SMALL} value={value} onChange={(e) => onChange(Number(e.target.value))}>
        {KEYS.map((m) => (
          <option key={m} value={m}>
            {keyNote(m)}
          </option>
        ))}
      </select>
    </label>
  );
}

function NumberField({
  label,
  value,
  onChange,
  ...limits
}: {
  label: string;
  value: number;
  min: number;
  max: number;
  step: number;
  onChange: (value: number) => void;
}) {
  return (
    <label className="flex flex-col">
      {label}
      <input
        className={`${SMALL} px-2`}
        type="number"
        value={value}
        {...limits}
        onChange={(e) => {
          const next = e.target.valueAsNumber;
          if (next >= limits.min && next <= limits.max) onChange(next);
        }}
      />
    </label>
  );
}
