import { realChange } from '../../core/practice/change';
import type { Chapter } from '../../core/practice/chapters';
import { DayLog } from '../../core/practice/log';
import { DayMeasures, daysWith, MEASURED } from '../../core/practice/measures';
import { plain } from '../kit/pdf-words';
import type { Speaker } from '../language/language';
import { inWords, verdict } from './verdict';

const PAGE = { width: 595, margin: 50 };
const LINE = 15;
const COLUMNS = [0, 150, 225, 300];
const WEEK_DAYS = 7;
const DAY_MS = 86_400_000;

/** A page for the singer or the parents: what was practised, and what the voice does now that it didn't before. */
export async function reportPdf(
  report: {
    name: string;
    days: DayLog[];
    measured: DayMeasures[];
    chapters: Chapter[];
    now: number;
    word: string;
  },
  { t, dateOf }: Speaker,
): Promise<Blob> {
  const { jsPDF } = await import('jspdf');
  const doc = new jsPDF({ unit: 'pt', format: 'a4' });
  let y = PAGE.margin;
  const line = (text: string, size = 11, style: 'normal' | 'bold' = 'normal') => {
    doc.setFont('helvetica', style).setFontSize(size);
    for (const part of doc.splitTextToSize(plain(text), PAGE.width - 2 * PAGE.margin) as string[]) {
      doc.text(part, PAGE.margin, y);
      y += LINE;
    }
  };
  line(report.name, 20, 'bold');
  y += 6;
  line(t('Report of {date}', { date: dateOf(new Date(report.now)) }));
  y += LINE;
  if (report.word) {
    line(report.word, 12);
    y += LINE;
  }
  line(t('Practice'), 14, 'bold');
  const since = (days: number) => report.days.filter((d) => report.now - Date.parse(d.day) < days * DAY_MS);
  for (const [name, days] of [
    [t('The last week'), since(WEEK_DAYS)],
    [t('The last four weeks'), since(4 * WEEK_DAYS)],
  ] as const) {
    const minutes = Math.round(days.reduce((s, d) => s + d.minutes, 0));
    line(
      t('{name}: {minutes, plural, one {# minute} other {# minutes}} on {days, plural, one {# day} other {# days}}.', {
        name,
        minutes,
        days: days.filter((d) => d.items > 0).length,
      }),
    );
  }
  y += LINE;
  if (report.chapters.length > 0) {
    line(t('The work'), 14, 'bold');
    for (const c of report.chapters)
      line(
        t('{phase}: {weeks, plural, one {# week} other {# weeks}} from {date}.', { phase: c.phase, weeks: c.weeks, date: dateOf(c.from) }),
      );
    y += LINE;
  }
  line(t('The voice'), 14, 'bold');
  const row = (cells: string[], style: 'normal' | 'bold' = 'normal') => {
    doc.setFont('helvetica', style).setFontSize(10);
    cells.forEach((cell, i) => doc.text(plain(cell), PAGE.margin + COLUMNS[i], y));
    y += LINE;
  };
  row(['', t('first days'), t('latest days'), ''], 'bold');
  for (const m of MEASURED) {
    const change = realChange(daysWith(report.measured, m.id), m.usual);
    if (change) row([m.name, inWords(m, change.first), inWords(m, change.latest), verdict(m, change)].map((cell) => t(cell)));
  }
  y += LINE;
  line(
    t(
      'A value counts as changed when it moved by more than days differ anyway. A voice differs from day to day; that is normal. Hoarseness that stays belongs to a doctor.',
    ),
    9,
  );
  return doc.output('blob');
}
