import { STRANDS } from '../../core/exercise/types';
import type { Chapter } from '../../core/practice/chapters';
import { STRAND_WORDS } from '../kit/words-of-work';
import { useLanguage } from '../language/language';

/** The chapters of the plan, and the grade on each strand at the end of each. */
export function Chapters({ chapters }: { chapters: Chapter[] }) {
  const { dateOf, t } = useLanguage();
  if (chapters.length === 0) return null;
  return (
    <section aria-label={t('Chapters of the plan')} className="card overflow-x-auto">
      <h2 className="mb-1 text-lg font-bold">{t('Chapters of the plan')}</h2>
      <table className="w-full text-left tabular-nums">
        <thead className="text-sm text-soft">
          <tr>
            <th className="py-1 pr-3 font-normal">{t('Phase')}</th>
            <th className="pr-3 font-normal">{t('Weeks')}</th>
            {STRANDS.map((s) => (
              <th key={s} className="pr-3 font-normal">
                {t(STRAND_WORDS[s])}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {chapters.map((c, i) => (
            <tr key={c.from} className="border-t border-line">
              <th scope="row" className="py-1 pr-3 font-semibold">
                {t(c.phase)}
              </th>
              <td className="pr-3">
                {c.weeks === 1
                  ? t('the week of {from}', { from: dateOf(c.from) })
                  : t('{weeks}, from {from} to the week of {to}', { weeks: c.weeks, from: dateOf(c.from), to: dateOf(c.to) })}
              </td>
              {STRANDS.map((s) => {
                const by = i > 0 ? c.grades[s] - chapters[i - 1].grades[s] : 0;
                return (
                  <td key={s} className="pr-3">
                    {c.grades[s]}
                    {by !== 0 && <b> {by > 0 ? t('up {by}', { by }) : t('down {by}', { by: -by })}</b>}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-sm text-soft">
        {t('The grade of each strand as it stood, confirmed or expected, in a chapter’s last assigned week.')}
      </p>
    </section>
  );
}
