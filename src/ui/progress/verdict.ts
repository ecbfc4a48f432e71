import { RealChange } from '../../core/practice/change';
import { MEASURED } from '../../core/practice/measures';
import { said, Said, texts } from '../../core/words/said';

export type Measured = (typeof MEASURED)[number];

const isWhole = (m: Measured) => m.unit === 'cents' || m.unit === '%';

const WHOLE = texts({ cents: '{n, number, ::.} cents', '%': '{n, number, ::.} %', st: '{n, number, ::.0} st', dB: '{n, number, ::.0} dB' });

/** A size in a measure's own unit; of notes, in semitones. */
const amount = (m: Measured, n: number): Said => said(m.unit === 'note' ? WHOLE.st : WHOLE[m.unit], { n: Math.abs(n) });

export const inWords = (m: Measured, value: number): Said =>
  m.unit === 'note' ? said('{note}', { note: { note: value } }) : said(WHOLE[m.unit], { n: value });

/** What has become of a value, with its 95 % interval, in words that don't take scatter for a change. */
export function verdict(m: Measured, change: RealChange | null): Said {
  if (!change) return said('three days are needed to tell');
  const { by, lowBy, highBy, real } = change;
  const of = { by: amount(m, by), give: amount(m, (highBy - lowBy) / 2) };
  if (!real)
    return Number(Math.abs(by).toFixed(isWhole(m) ? 0 : 1)) === 0
      ? said('no change (give or take {give})', of)
      : by < 0
        ? said('no sure change (−{by}, give or take {give})', of)
        : said('no sure change (+{by}, give or take {give})', of);
  const moved = by > 0 ? said('up by {by}, give or take {give}', of) : said('down by {by}, give or take {give}', of);
  if (m.better === 0) return moved;
  return Math.sign(by) === m.better ? said('{moved}: better', { moved }) : said('{moved}: the other way', { moved });
}
