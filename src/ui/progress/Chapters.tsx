import { STRANDS } from '../../core/exercise/types';
import type { Chapter } from '../../core/practice/chapters';
import { dateOf } from '../kit/dates';
import { STRAND_WORDS } from '../kit/words-of-work';

/** The chapters of the plan, and the grade on each strand at the end of each. */
export function Chapters({ chapters }: { chapters: Chapter[] }) {
  if (chapters.length === 0) return null;
  return (
    <section aria-label="Chapters of the plan" className="card overflow-x-auto">
      <h2 className="mb-1 text-lg font-bold">Chapters of the plan</h2>
      <table className="w-full text-left tabular-nums">
        <thead className="text-sm text-soft">
          <tr>
            <th className="py-1 pr-3 font-normal">Phase</th>
            <th className="pr-3 font-normal">Weeks</th>
            {STRANDS.map((s) => (
              <th key={s} className="pr-3 font-normal">
                {STRAND_WORDS[s]}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {chapters.map((c, i) => (
            <tr key={c.from} className="border-t border-line">
              <th scope="row" className="py-1 pr-3 font-semibold">
                {c.phase}
              </th>
              <td className="pr-3">
                {c.weeks === 1 ? `the week of ${dateOf(c.from)}` : `${c.weeks}, from ${dateOf(c.from)} to the week of ${dateOf(c.to)}`}
              </td>
              {STRANDS.map((s) => {
                const by = i > 0 ? c.grades[s] - chapters[i - 1].grades[s] : 0;
                return (
                  <td key={s} className="pr-3">
                    {c.grades[s]}
                    {by !== 0 && <b> {by > 0 ? `up ${by}` : `down ${-by}`}</b>}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-sm text-soft">
        The grade of each strand as it stood, confirmed or expected, in a chapter’s last assigned week.
      </p>
    </section>
  );
}
