'use client';
import { useMemo } from 'react';
import { CartesianGrid, Line, LineChart, ReferenceArea, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { COMFORT, FLOWS, pressureOf, StrawSet } from '../../core/straw/choose';
import { CM_H2O_PA } from '../../core/straw/flow';
import { useLanguage } from '../language/language';

const POINTS = 31;
const TICKS = [0.05, 0.1, 0.15, 0.2, 0.25, 0.3, 0.35];
/** The chart reaches at least this far, so that light sets look light. */
const LEAST_TOP = 1.25 * COMFORT.high;

/** Back pressure against breath, with the comfortable band; a table behind it for those who don't see it. */
export function PressureChart({ set, flow }: { set: StrawSet; flow: number }) {
  const { decimal, t } = useLanguage();
  const data = useMemo(
    () =>
      Array.from({ length: POINTS }, (_, i) => {
        const at = FLOWS.low + ((FLOWS.high - FLOWS.low) * i) / (POINTS - 1);
        return { flow: Math.round(100 * at) / 100, pressure: pressureOf(set, at), cm: pressureOf(set, at) / CM_H2O_PA };
      }),
    [set],
  );
  const top = Math.ceil(Math.max(LEAST_TOP, ...data.map((d) => d.pressure)) / 200) * 200;
  return (
    <>
      <div aria-hidden="true" className="card h-96 p-2">
        <ResponsiveContainer>
          <LineChart accessibilityLayer={false} data={data} margin={{ left: 8, right: 8, top: 12, bottom: 18 }}>
            <ReferenceArea yAxisId="pa" y1={COMFORT.low} y2={COMFORT.high} fill="var(--band)" fillOpacity={0.3} />
            <CartesianGrid stroke="var(--line)" vertical={false} />
            <XAxis
              dataKey="flow"
              type="number"
              domain={[FLOWS.low, FLOWS.high]}
              ticks={TICKS}
              tickFormatter={(v: number) => decimal(v)}
              stroke="var(--soft)"
              fontSize={12}
              label={{ value: t('breath, litres a second'), position: 'insideBottom', offset: -10, fill: 'var(--soft)', fontSize: 12 }}
            />
            <YAxis
              yAxisId="pa"
              domain={[0, top]}
              stroke="var(--soft)"
              fontSize={12}
              label={{ value: 'Pa', position: 'insideTopLeft', offset: -6, fill: 'var(--soft)', fontSize: 12 }}
            />
            <YAxis
              yAxisId="cm"
              orientation="right"
              domain={[0, top / CM_H2O_PA]}
              tickFormatter={(v: number) => decimal(v, 0)}
              stroke="var(--soft)"
              fontSize={12}
              label={{ value: 'cmH₂O', position: 'insideTopRight', offset: -6, fill: 'var(--soft)', fontSize: 12 }}
            />
            <ReferenceLine yAxisId="pa" x={flow} stroke="var(--ink)" strokeDasharray="4 4" />
            <Line yAxisId="pa" dataKey="pressure" stroke="var(--accent)" strokeWidth={3} dot={false} isAnimationActive={false} />
            {/* An axis without a line of its own shows no figures. */}
            <Line yAxisId="cm" dataKey="cm" stroke="none" dot={false} isAnimationActive={false} />
          </LineChart>
        </ResponsiveContainer>
      </div>
      <table className="sr-only">
        <caption>{t('Back pressure by breath')}</caption>
        <tbody>
          {data
            .filter((_, i) => i % 5 === 0)
            .map((d) => (
              <tr key={d.flow}>
                <th scope="row">{t('{flow} litres a second', { flow: d.flow })}</th>
                <td>{t('{pressure} pascals', { pressure: Math.round(d.pressure) })}</td>
              </tr>
            ))}
        </tbody>
      </table>
    </>
  );
}
