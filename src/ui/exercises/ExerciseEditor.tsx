'use client';
import { useState } from 'react';
import { useFollowAlong } from '../../audio/follow-along';
import { renderKey } from '../../core/exercise/render';
import {
  AIMS,
  Anchor,
  Exercise,
  FAMILIES,
  GRADES,
  KeyPlace,
  LOUDNESS_SHAPES,
  MATERIAL_WORDS,
  MATERIALS,
  MEASURES,
  PLACES,
  ROLES,
  STRANDS,
} from '../../core/exercise/types';
import { SCHOOLS } from '../../core/map/schools';
import { FINDING_NAMES } from '../../core/map/types';
import { MEASURE_WORDS } from '../../core/plan/plan';
import { Choice } from '../kit/Choice';
import { HearIt } from '../kit/HearIt';
import { FINDING_WORDS } from '../kit/words';
import { AIM_WORDS, FAMILY_WORDS, LOUDNESS_WORDS, PLACE_WORDS, ROLE_WORDS, STRAND_WORDS, WEIGHT_WORDS } from '../kit/words-of-work';
import { PatternEditor } from './PatternEditor';
import { useLanguage } from '../language/language';

import { texts } from '../../core/words/said';

const TONIC = 60;
const ANCHOR_WORDS: Record<Anchor, string> = texts({
  low: 'the lowest comfortable note',
  speaking: 'the speaking pitch',
  change: 'the change',
  high: 'the highest note',
});

const options = <K extends string>(words: Record<K, string>, keys: readonly K[]) => keys.map((k) => [k, words[k]] as const);

/** An exercise being written: its pattern on a staff, where it is sung, what it is for. */
export function ExerciseEditor({
  exercise,
  shelf,
  onSave,
  onCancel,
}: {
  exercise: Exercise;
  shelf: readonly Exercise[];
  onSave: (exercise: Exercise) => void;
  onCancel: () => void;
}) {
  const { t } = useLanguage();
  const [e, setE] = useState(exercise);
  const along = useFollowAlong();
  const set = (part: Partial<Exercise>) => setE((old) => ({ ...old, ...part }));
  const text = (key: 'name' | 'how' | 'purpose' | 'caution', label: string, max: number, required = false) => (
    <label className="flex flex-col gap-1 text-sm text-soft">
      {label}
      <input
        className="field text-base"
        value={e[key]}
        maxLength={max}
        required={required}
        onChange={(event) => set({ [key]: event.target.value })}
      />
    </label>
  );
  const number = (label: string, value: number, [min, max, step]: [number, number, number], onChange: (value: number) => void) => (
    <label className="flex flex-col gap-1 text-sm text-soft">
      {label}
      <input
        className="field w-24 text-base"
        type="number"
        required
        min={min}
        max={max}
        step={step}
        value={value}
        onChange={(event) => !Number.isNaN(event.target.valueAsNumber) && onChange(event.target.valueAsNumber)}
      />
    </label>
  );
  return (
    <form
      aria-label={t('Write an exercise')}
      className="card flex flex-col gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        onSave({
          ...e,
          tempo: [Math.min(...e.tempo), [...e.tempo].sort((a, b) => a - b)[1], Math.max(...e.tempo)],
          sounds: e.sounds.map((s) => s.trim()).filter(Boolean),
        });
      }}
    >
      {text('name', t('Name'), 80, true)}
      <PatternEditor steps={e.steps} tonic={TONIC} onChange={(steps) => set({ steps })} />
      {text('how', t('What the singer does, in a sentence or two'), 600, true)}
      <label className="flex flex-col gap-1 text-sm text-soft">
        {t('What to sing it on, easiest first, with commas between')}
        <input
          className="field text-base"
          required
          value={e.sounds.join(',')}
          onChange={(event) => set({ sounds: event.target.value.split(',') })}
        />
      </label>
      <div className="grid gap-3 sm:grid-cols-2 xl:grid-cols-4">
        <Choice label={t('Family')} value={e.family} options={options(FAMILY_WORDS, FAMILIES)} onChange={(family) => set({ family })} />
        <Choice
          label={t('Makes better')}
          value={e.strand}
          options={options(STRAND_WORDS, STRANDS)}
          onChange={(strand) => set({ strand })}
        />
        <Choice label={t('Stands in a set as')} value={e.role} options={options(ROLE_WORDS, ROLES)} onChange={(role) => set({ role })} />
        <Choice
          label={t('Grade')}
          value={String(e.grade)}
          options={GRADES.map((g) => [String(g), String(g)] as const)}
          onChange={(g) => set({ grade: Number(g) })}
        />
        <Choice label={t('Register')} value={e.aim} options={options(AIM_WORDS, AIMS)} onChange={(aim) => set({ aim })} />
        <Choice label={t('Lies')} value={e.place} options={options(PLACE_WORDS, PLACES)} onChange={(place) => set({ place })} />
        <Choice
          label={t('Loudness')}
          value={e.loudness}
          options={options(LOUDNESS_WORDS, LOUDNESS_SHAPES)}
          onChange={(loudness) => set({ loudness })}
        />
        <Choice
          label={t('Weight')}
          value={`${e.weight}`}
          options={options(WEIGHT_WORDS, ['-1', '0', '1'])}
          onChange={(w) => set({ weight: Number(w) as Exercise['weight'] })}
        />
      </div>
      <div className="flex flex-wrap items-end gap-3">
        {[t('Slowest'), t('Usual tempo'), t('Fastest')].map((label, i) => (
          <span key={label}>
            {number(label, e.tempo[i], [30, 240, 1], (v) => set({ tempo: e.tempo.map((t, j) => (j === i ? v : t)) as Exercise['tempo'] }))}
          </span>
        ))}
        {number(t('Breath, crotchets'), e.breathBeats, [0, 16, 1], (breathBeats) => set({ breathBeats }))}
        {number(t('Minutes'), e.minutes, [0.5, 10, 0.5], (minutes) => set({ minutes }))}
        {number(t('Times a day'), e.timesADay, [1, 8, 1], (timesADay) => set({ timesADay }))}
      </div>
      <fieldset className="flex flex-wrap items-end gap-3">
        <legend className="mb-1 font-semibold">{t('Keys, from the singer’s own map')}</legend>
        <Place label={t('First key')} place={e.keys.from} onChange={(from) => set({ keys: { ...e.keys, from } })} />
        <Place label={t('Last key')} place={e.keys.to} onChange={(to) => set({ keys: { ...e.keys, to } })} />
      </fieldset>
      <Ticks label={t('Suits')} all={options(FINDING_WORDS, FINDING_NAMES)} chosen={e.suits} onChange={(suits) => set({ suits })} />
      <Ticks label={t('Not for')} all={options(FINDING_WORDS, FINDING_NAMES)} chosen={e.avoid} onChange={(avoid) => set({ avoid })} />
      <Ticks label={t('Needs')} all={options(MATERIAL_WORDS, MATERIALS)} chosen={e.needs} onChange={(needs) => set({ needs })} />
      <details>
        <summary className="min-h-11 cursor-pointer content-center font-semibold">
          {t('More: schools, what comes first, success, words')}
        </summary>
        <div className="mt-2 flex flex-col gap-3">
          <Ticks
            label={t('Taught by (none: by all)')}
            all={SCHOOLS.map((s) => [s.id, s.name] as const)}
            chosen={e.schools}
            onChange={(schools) => set({ schools })}
          />
          <label className="flex flex-col gap-1 text-sm text-soft">
            {t('Should be easy first')}
            <select
              className="field text-base"
              value={e.after[0] ?? ''}
              onChange={(event) => set({ after: event.target.value ? [event.target.value] : [] })}
            >
              <option value="">{t('nothing')}</option>
              {shelf
                .filter((x) => x.id !== e.id)
                .map((x) => (
                  <option key={x.id} value={x.id}>
                    {t(x.name)}
                  </option>
                ))}
            </select>
          </label>
          <Choice
            label={t('Succeeds when')}
            value={e.measure}
            options={options(MEASURE_WORDS, MEASURES)}
            onChange={(measure) => set({ measure })}
          />
          {text('purpose', t('Because … (completes the sentence)'), 600)}
          {text('caution', t('Caution'), 600)}
        </div>
      </details>
      <div className="flex flex-wrap gap-2">
        <button className="button-main">{t('Keep on the shelf')}</button>
        {along.problem && <p role="alert">{t(along.problem)}</p>}
        <HearIt along={along} id={e.id} keys={() => [renderKey(e, TONIC, e.tempo[1])]} className="button" />
        <button type="button" className="button" onClick={onCancel}>
          {t('Leave it')}
        </button>
      </div>
    </form>
  );
}

function Place({ label, place, onChange }: { label: string; place: KeyPlace; onChange: (place: KeyPlace) => void }) {
  const { t } = useLanguage();
  return (
    <div role="group" aria-label={label} className="flex flex-wrap items-center gap-1 text-sm text-soft">
      {t('{label}: its', { label })}
      <select
        aria-label={t('{label}: which note', { label })}
        className="field px-1 text-base"
        value={place.edge}
        onChange={(e) => onChange({ ...place, edge: e.target.value as KeyPlace['edge'] })}
      >
        <option value="bottom">{t('lowest note')}</option>
        <option value="top">{t('highest note')}</option>
      </select>
      <input
        aria-label={t('{label}: semitones', { label })}
        className="field w-16 px-1 text-base"
        type="number"
        min={-24}
        max={24}
        value={place.semitones}
        onChange={(e) => !Number.isNaN(e.target.valueAsNumber) && onChange({ ...place, semitones: e.target.valueAsNumber })}
      />
      {t('semitones over')}
      <select
        aria-label={t('{label}: over what', { label })}
        className="field px-1 text-base"
        value={place.anchor}
        onChange={(e) => onChange({ ...place, anchor: e.target.value as Anchor })}
      >
        {Object.entries(ANCHOR_WORDS).map(([k, words]) => (
          <option key={k} value={k}>
            {t(words)}
          </option>
        ))}
      </select>
    </div>
  );
}

function Ticks<K extends string>({
  label,
  all,
  chosen,
  onChange,
}: {
  label: string;
  all: readonly (readonly [K, string])[];
  chosen: K[];
  onChange: (chosen: K[]) => void;
}) {
  const { t } = useLanguage();
  return (
    <fieldset className="flex flex-wrap gap-x-4">
      <legend className="font-semibold">{label}</legend>
      {all.map(([key, words]) => (
        <label key={key} className="flex min-h-9 items-center gap-1 text-sm">
          <input
            type="checkbox"
            className="size-5"
            checked={chosen.includes(key)}
            onChange={(e) => onChange(e.target.checked ? [...chosen, key] : chosen.filter((k) => k !== key))}
          />
          {t(words)}
        </label>
      ))}
    </fieldset>
  );
}
