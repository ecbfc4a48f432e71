import { exerciseHow, exerciseName } from '../../core/exercise/of-song';
import { notesInWords } from '../../core/exercise/keys';
import { leansIn } from '../../core/exercise/vowel-lean';
import { changeIn } from '../../core/plan/voice';
import { plain } from '../kit/pdf-words';
import type { Speaker } from '../language/language';
import { daysInWords } from '../plan/days';
import { engraveForPaper } from '../staff/engrave';
import type { SheetView } from './view';

const PAGE = { width: 595, height: 842, margin: 40 };
const LINE = 12;
const STAFF_SCALE = 0.42;
const GAP = 10;

/** A practice sheet as a PDF to send: A4, as many pages as it takes, no exercise broken over two. */
export async function sheetPdf(
  { singer, assignment, map }: SheetView,
  items: SheetView['items'],
  { t, dateOf, tongue }: Speaker,
): Promise<Blob> {
  const { jsPDF } = await import('jspdf');
  const doc = new jsPDF({ unit: 'pt', format: 'a4' });
  const width = PAGE.width - 2 * PAGE.margin;
  let y = PAGE.margin + 10;
  doc
    .setFont('helvetica', 'bold')
    .setFontSize(18)
    .text(plain(t('{name}: practice', { name: { own: singer.name } })), PAGE.margin, y);
  doc
    .setFont('helvetica', 'normal')
    .setFontSize(10)
    .text(plain(t('week from {date}', { date: dateOf(assignment.startsOn) })), PAGE.width - PAGE.margin, y, { align: 'right' });
  y += 2 * LINE;
  const write = (text: string, style: 'normal' | 'bold' = 'normal', size = 10) => {
    doc.setFont('helvetica', style).setFontSize(size);
    for (const line of doc.splitTextToSize(plain(text), width) as string[]) {
      doc.text(line, PAGE.margin, y);
      y += LINE;
    }
  };
  if (assignment.note) write(assignment.note);
  for (const [i, { item, exercise }] of items.entries()) {
    const leans = leansIn(exercise, item.sound, item.keys[0], changeIn(map, singer.voiceType));
    const staff = await engraveForPaper({ exercise, tonic: item.keys[0], voice: singer.voiceType, leans, movableDo: tongue.movableDo });
    const high = Math.min((staff.height / 4) * STAFF_SCALE * 1.6, 70);
    const wide = Math.min(width, (staff.width / staff.height) * high);
    const says = [exerciseHow(exercise), item.reason, item.caution].map((said) => t(said)).join(' ');
    const lines = doc.splitTextToSize(plain(says), width) as string[];
    if (y + high + (lines.length + 3) * LINE > PAGE.height - PAGE.margin) {
      doc.addPage();
      y = PAGE.margin + 10;
    }
    write(t('{n}. {exercise}, on “{sound}”', { n: i + 1, exercise: exerciseName(exercise), sound: item.sound }), 'bold', 12);
    write(
      [
        t('{minutes} min, {times} × a day, {days}; ♩ = {tempo}; {count, plural, one {key} other {keys}} {keys}', {
          minutes: item.minutes,
          times: item.timesADay,
          days: daysInWords(item.days, assignment.startsOn, tongue.language),
          tempo: item.tempo,
          count: item.keys.length,
          keys: notesInWords(item.keys),
        }),
        ...(item.straws ? [t(item.straws)] : []),
      ].join('; '),
    );
    doc.addImage(staff.toDataURL('image/png'), 'PNG', PAGE.margin, y - 6, wide, high);
    y += high + 2;
    write(says);
    y += GAP;
  }
  write(
    t(
      'Stop when it scratches, tickles, tightens or hurts, and rest as long as you sang. Still hoarse after a good rest? See a doctor if it does not clear.',
    ),
    'bold',
  );
  return doc.output('blob');
}
