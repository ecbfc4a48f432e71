import { noteName } from '../../core/music/pitch';
import { RealChange } from '../../core/practice/change';
import { MEASURED } from '../../core/practice/measures';

export type Measured = (typeof MEASURED)[number];

const places = (m: Measured) => (m.unit === 'cents' || m.unit === '%' ? 0 : 1);

export const inWords = (m: Measured, value: number): string =>
  m.unit === 'note' ? noteName(value) : `${value.toFixed(places(m))} ${m.unit}`;

const difference = (m: Measured, by: number): string => `${Math.abs(by).toFixed(places(m))} ${m.unit === 'note' ? 'st' : m.unit}`;

/** What has become of a value, in words that don't take scatter for a change. */
export function verdict(m: Measured, change: RealChange | null): string {
  if (!change) return 'four days are needed to tell';
  if (!change.real) return `within what days differ by (${difference(m, change.least)})`;
  const way = change.by > 0 ? 'up' : 'down';
  const good = m.better === 0 ? '' : Math.sign(change.by) === m.better ? ': better' : ': the other way';
  return `${way} by ${difference(m, change.by)}${good}`;
}
