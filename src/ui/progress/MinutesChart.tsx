'use client';
import { Bar, BarChart, CartesianGrid, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';

/** Minutes practised, day by day. */
export function MinutesChart({ days }: { days: { day: string; minutes: number }[] }) {
  return (
    <ResponsiveContainer>
      <BarChart data={days} accessibilityLayer={false}>
        <CartesianGrid stroke="var(--line)" vertical={false} />
        <XAxis dataKey="day" stroke="var(--soft)" fontSize={12} />
        <YAxis stroke="var(--soft)" fontSize={12} unit=" min" width={60} />
        <Tooltip contentStyle={{ background: 'var(--card)', border: '1px solid var(--line)' }} />
        <Bar dataKey="minutes" fill="var(--accent)" radius={[4, 4, 0, 0]} isAnimationActive={false} />
      </BarChart>
    </ResponsiveContainer>
  );
}
