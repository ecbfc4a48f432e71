'use client';
import { Plus, X } from 'lucide-react';
import dynamic from 'next/dynamic';
import { useMemo, useState } from 'react';
import {
  COMFORT,
  easier,
  feelOf,
  FLOWS,
  isSameSet,
  KINDS,
  MOST_SIDE_BY_SIDE,
  pressureOf,
  progression,
  setName,
  strawName,
  StrawSet,
  USUAL_FLOW,
} from '../../core/straw/choose';
import { CM_H2O_PA, Straw } from '../../core/straw/flow';
import { useLanguage } from '../language/language';

import { texts } from '../../core/words/said';

// The chart comes after the words; its place is kept.
const PressureChart = dynamic(() => import('./PressureChart').then((m) => m.PressureChart), {
  ssr: false,
  loading: () => <div className="card h-96" />,
});

const FEEL_WORDS = texts({
  'little to feel': 'Little to feel: take a narrower one, or the end a little under water.',
  comfortable: 'Comfortable for most.',
  'fights back': 'It may feel as if it fights back.',
});
const LIMITS = { diameterMm: { min: 1, max: 15, step: 0.5 }, lengthMm: { min: 30, max: 400, step: 5 } };
const DEEPEST_CM = 10;

/** Every set of like straws that is easily had, from least to most back pressure. */
const STEPS = progression(KINDS.map((k) => ({ ...k, count: MOST_SIDE_BY_SIDE })));

const inCm = (pa: number) => pa / CM_H2O_PA;
/** Any straws side by side, in air or water: how much they push back, and what to change. */
export function StrawBench() {
  const { t } = useLanguage();
  const [set, setSet] = useState<StrawSet>({ straws: [KINDS[1]], depthCm: 0 });
  const [flow, setFlow] = useState(USUAL_FLOW);
  const pressure = useMemo(() => pressureOf(set, flow), [set, flow]);
  const feel = feelOf(set, flow);
  const help = feel === 'fights back' ? easier(set) : null;
  const full = set.straws.length >= MOST_SIDE_BY_SIDE;
  const change = (i: number, to: Partial<Straw>) =>
    setSet({
      ...set,
      straws: set.straws.map((s, j) => (j === i ? { diameterMm: s.diameterMm, lengthMm: s.lengthMm, ...to } : s)),
    });
  return (
    <main className="mx-auto max-w-[1240px] px-4 py-4">
      <h1 className="text-2xl font-bold">{t('Straws')}</h1>
      <p className="mb-3 max-w-3xl text-soft">
        {t(
          'A straw pushes back on the breath and holds the folds in an easy setting. Narrower or longer pushes more; straws held together push less; under water each centimetre adds one. One’s own straw, clean; stop if dizzy.',
        )}
      </p>
      <div className="grid gap-4 lg:grid-cols-[22rem_1fr]">
        <section aria-label={t('The straws in hand')} className="flex flex-col gap-3">
          <ul className="flex flex-col gap-2">
            {set.straws.map((straw, i) => (
              <li key={i} className="card flex flex-col gap-2">
                <div className="flex items-center gap-2">
                  <b className="flex-1">{t(strawName(straw))}</b>
                  {set.straws.length > 1 && (
                    <button
                      className="button-small min-h-11 min-w-11"
                      aria-label={t('Put straw {i} away', { i: i + 1 })}
                      onClick={() => setSet({ ...set, straws: set.straws.filter((_, j) => j !== i) })}
                    >
                      <X aria-hidden size={18} />
                    </button>
                  )}
                </div>
                <Slider
                  label={t('Inner width')}
                  unit="mm"
                  {...LIMITS.diameterMm}
                  value={straw.diameterMm}
                  onChange={(diameterMm) => change(i, { diameterMm })}
                />
                <Slider
                  label={t('Length')}
                  unit="mm"
                  {...LIMITS.lengthMm}
                  value={straw.lengthMm}
                  onChange={(lengthMm) => change(i, { lengthMm })}
                />
              </li>
            ))}
          </ul>
          <div role="group" aria-label={t('Take a straw')} className="flex flex-wrap gap-1">
            {KINDS.map((kind) => (
              <button
                key={kind.id}
                className="button px-3"
                disabled={full}
                title={
                  full
                    ? t('No more than {most} fit between the lips', { most: MOST_SIDE_BY_SIDE })
                    : t('{diameterMm} mm × {lengthMm} cm', { diameterMm: kind.diameterMm, lengthMm: kind.lengthMm / 10 })
                }
                onClick={() => setSet({ ...set, straws: [...set.straws, kind] })}
              >
                <Plus aria-hidden size={16} /> {t(kind.name)}
              </button>
            ))}
          </div>
          <Slider
            label={t('Ends under water')}
            unit="cm"
            min={0}
            max={DEEPEST_CM}
            step={0.5}
            value={set.depthCm}
            onChange={(depthCm) => setSet({ ...set, depthCm })}
          />
          <Slider label={t('Breath')} unit="l/s" min={FLOWS.low} max={FLOWS.high} step={0.01} value={flow} onChange={setFlow} />
        </section>
        <section aria-label={t('How much they push back')} className="flex min-w-0 flex-col gap-3">
          <div aria-live="polite">
            <p className="text-[40px] leading-tight font-bold" data-testid="pressure">
              {Math.round(pressure)} Pa{' '}
              <span className="text-2xl font-semibold text-soft">{t('{pressure, number, ::.0} cmH₂O', { pressure: inCm(pressure) })}</span>
            </p>
            <p className="text-lg">{t('at a breath of {flow, number, ::.00} l/s. {feel}', { flow, feel: FEEL_WORDS[feel] })}</p>
          </div>
          {help && (
            <button className="button self-start" onClick={() => setSet(help.set)}>
              {t(help.how)}
            </button>
          )}
          <PressureChart set={set} flow={flow} />
          <div>
            <h2 className="font-bold">{t('From easy to narrow')}</h2>
            <ol className="mt-1 flex flex-wrap gap-1">
              {STEPS.map((step) => {
                const chosen = isSameSet(step, set);
                return (
                  <li key={t(setName(step))}>
                    <button
                      aria-pressed={chosen}
                      className={`min-h-11 rounded-lg border px-2 text-left text-sm leading-tight ${chosen ? 'border-accent font-semibold' : 'border-line'} ${feelOf(step, flow) === 'comfortable' ? 'bg-card' : 'text-soft'}`}
                      onClick={() => setSet(step)}
                    >
                      {t(setName(step))}
                      <span className="block text-xs">
                        {t('{pressure, number, ::.0} cmH₂O, {feel}', { pressure: inCm(pressureOf(step, flow)), feel: feelOf(step, flow) })}
                      </span>
                    </button>
                  </li>
                );
              })}
            </ol>
          </div>
          <p className="text-sm text-soft">
            {t(
              'The band is where it feels easy for most ({low, number, ::.0} to {high, number, ::.0} cmH₂O, common practice): the singer’s own feeling decides. Worked out for plain round tubes and air at 37 °C, by Hagen and Poiseuille where the flow is smooth and by Blasius where it is turbulent, with the loss at the ends.',
              { low: inCm(COMFORT.low), high: inCm(COMFORT.high) },
            )}
          </p>
        </section>
      </div>
    </main>
  );
}

function Slider({
  label,
  unit,
  value,
  onChange,
  ...limits
}: {
  label: string;
  unit: string;
  value: number;
  onChange: (value: number) => void;
  min: number;
  max: number;
  step: number;
}) {
  const { decimal } = useLanguage();
  return (
    <label className="flex min-h-11 items-center gap-3 text-sm">
      <span className="w-28 text-soft">{label}</span>
      <input type="range" className="min-w-0 flex-1" {...limits} value={value} onChange={(e) => onChange(e.target.valueAsNumber)} />
      <span className="w-16 text-right font-semibold tabular-nums">
        {decimal(value)} {unit}
      </span>
    </label>
  );
}
