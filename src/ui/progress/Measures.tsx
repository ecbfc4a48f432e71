'use client';
import { useState } from 'react';
import { Line, LineChart, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import type { Chapter } from '../../core/practice/chapters';
import { realChange } from '../../core/practice/change';
import { DayMeasures, daysWith, MEASURED } from '../../core/practice/measures';
import { DaySound } from './DaySound';
import { inWords, verdict } from './verdict';
import { useLanguage } from '../language/language';

/** The voice over time: each value by day, whether it has really moved, and any two days side by side; where chapters of the plan begin. */
export function Measures({ measured, sirens, chapters }: { measured: DayMeasures[]; sirens: Record<string, string>; chapters: Chapter[] }) {
  const { dateOf, t } = useLanguage();
  const [from, setFrom] = useState(0);
  const [to, setTo] = useState(measured.length - 1);
  if (measured.length === 0) return null;
  const span = [measured[0].day, measured[measured.length - 1].day].map((d) => Date.parse(d));
  const rows = MEASURED.filter((m) => measured.some((d) => d.values[m.id] !== undefined));
  const day = (label: string, value: number, onChange: (i: number) => void) => (
    <span className="flex items-center gap-1">
      <select aria-label={label} className="field min-h-9 px-1 text-sm" value={value} onChange={(e) => onChange(Number(e.target.value))}>
        {measured.map((d, i) => (
          <option key={d.day} value={i}>
            {dateOf(d.day)}
          </option>
        ))}
      </select>
      <DaySound key={measured[value]?.day} day={measured[value]?.day} takeId={sirens[measured[value]?.day]} />
    </span>
  );
  return (
    <section aria-label={t('The voice over time')} className="card overflow-x-auto">
      <h2 className="mb-1 text-lg font-bold">{t('The voice over time')}</h2>
      <table className="w-full text-left">
        <thead className="text-sm text-soft">
          <tr>
            <th className="py-1 pr-3 font-normal">{t('Measured on {n, plural, one {# day} other {# days}}', { n: measured.length })}</th>
            <th className="w-48 pr-3 font-normal">
              <span className="sr-only">{t('Day by day')}</span>
            </th>
            <th className="pr-3 font-normal">{day(t('One day'), from, setFrom)}</th>
            <th className="pr-3 font-normal">{day(t('Another day'), to, setTo)}</th>
            <th className="font-normal">{t('From the first days to the latest')}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((m) => {
            const series = measured.flatMap((d) =>
              d.values[m.id] === undefined ? [] : [{ at: Date.parse(d.day), value: d.values[m.id]! }],
            );
            const value = (i: number) => measured[i]?.values[m.id];
            const change = realChange(daysWith(measured, m.id), m.usual);
            return (
              <tr key={m.id} className="border-t border-line">
                <th scope="row" className="py-1 pr-3 font-semibold">
                  {t(m.name)}
                </th>
                <td className="pr-3">
                  <div aria-hidden className="h-9 w-44">
                    {series.length > 1 && (
                      <ResponsiveContainer>
                        <LineChart data={series} accessibilityLayer={false} margin={{ top: 4, bottom: 4, left: 4, right: 4 }}>
                          <XAxis hide dataKey="at" type="number" domain={span} />
                          <YAxis hide domain={['dataMin', 'dataMax']} />
                          {chapters.map((c) => (
                            <ReferenceLine key={c.from} x={Date.parse(c.from)} stroke="var(--soft)" strokeDasharray="3 2" />
                          ))}
                          <Line dataKey="value" stroke="var(--accent)" strokeWidth={2} dot={{ r: 2.5 }} isAnimationActive={false} />
                        </LineChart>
                      </ResponsiveContainer>
                    )}
                  </div>
                </td>
                {[from, to].map((i, n) => (
                  <td key={n} className="pr-3">
                    {value(i) === undefined ? (
                      <span className="text-sm text-soft">{t('not sung that day')}</span>
                    ) : (
                      t(inWords(m, value(i)!))
                    )}
                  </td>
                ))}
                <td className={change?.real ? 'font-semibold' : 'text-soft'}>{t(verdict(m, change))}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <p className="mt-2 text-sm text-soft">
        {t(
          'Each day from that day’s slides alone (off the note: from its scales). A value has moved when a straight trend through the days is more than days, and passes of one day, differ anyway: 95 % by Student’s t.',
        )}
        {chapters.length > 0 && t(' At a broken line a chapter of the plan begins.')}
      </p>
    </section>
  );
}
