import { noteName } from '../../core/music/pitch';
import { RealChange } from '../../core/practice/change';
import { MEASURED } from '../../core/practice/measures';

export type Measured = (typeof MEASURED)[number];

const places = (m: Measured) => (m.unit === 'cents' || m.unit === '%' ? 0 : 1);

export const inWords = (m: Measured, value: number): string =>
  m.unit === 'note' ? noteName(value) : `${value.toFixed(places(m))} ${m.unit}`;

const step = (m: Measured) => (m.unit === 'note' ? 'st' : m.unit);
const amount = (m: Measured, by: number): string => Math.abs(by).toFixed(places(m));

/** What has become of a value, with its 95 % interval, in words that don't take scatter for a change. */
export function verdict(m: Measured, change: RealChange | null): string {
  if (!change) return 'three days are needed to tell';
  const { by, lowBy, highBy, real } = change;
  const sure = `give or take ${amount(m, (highBy - lowBy) / 2)} ${step(m)}`;
  if (!real) return Number(amount(m, by)) === 0 ? `no change (${sure})` : `no sure change (${by < 0 ? '−' : '+'}${amount(m, by)}, ${sure})`;
  const good = m.better === 0 ? '' : Math.sign(by) === m.better ? ': better' : ': the other way';
  return `${by > 0 ? 'up' : 'down'} by ${amount(m, by)} ${step(m)}, ${sure}${good}`;
}
