import type { Ceiling } from '../../core/map/types';
import { useWidth } from '../kit/useWidth';
import { Rungs } from '../ladder/Ladder';
import { ladderScale } from '../ladder/scale';
import { useLanguage } from '../language/language';

const HEIGHT = 260;
const LEFT = 40;
const RIGHT = 12;
const MARGIN_DB = 2;
const DOT = 2;
const CROSS = 4;

const signed = (db: number) => `${db < -0.5 ? '−' : db > 0.5 ? '+' : ''}${Math.abs(Math.round(db))} dB`;

/** How loud the voice stays joined on the way up: what was sung, softer to the left and louder to the right, and the ceiling over it. */
export function CeilingCard({ ceiling: { notes, passes } }: { ceiling: Ceiling }) {
  const { note, rich, t } = useLanguage();
  const [box, width] = useWidth();
  const joined = passes.flatMap((p) => p.joined);
  const broke = passes.flatMap((p) => (p.broke ? [p.broke] : []));
  const sung = [...joined, ...broke];
  const levels = sung.map((l) => l.db);
  const [softest, loudest] = [Math.min(...levels) - MARGIN_DB, Math.max(...levels) + MARGIN_DB];
  const midis = sung.map((l) => l.midi);
  const scale = ladderScale(Math.min(...midis) - 1, Math.max(...midis) + 1, HEIGHT);
  const x = (db: number) => LEFT + ((db - softest) / (loudest - softest)) * (width - LEFT - RIGHT);
  const lowest = notes.length ? notes.reduce((a, b) => (b.db < a.db ? b : a)) : null;
  return (
    <section aria-label={t('How loud it stays joined')} className="card flex flex-col gap-2">
      <h2 className="font-bold">{t('How loud it stays joined')}</h2>
      <p>
        {broke.length === 0 ? (
          <>{t('It stayed joined in all {n} slides up, soft, medium and full.', { n: passes.length })}</>
        ) : (
          <>
            {t('Going up it broke in {broke} of {of} slides.', { broke: broke.length, of: passes.length })}{' '}
            {lowest ? (
              <>
                {rich(
                  'Lowest at <b>{note}</b>: joined up to <b>{db}</b>, give or take {by, number, ::.0}, against the middle of these slides.',
                  { note: { note: lowest.midi }, db: signed(lowest.db), by: lowest.sdDb },
                  { b: (inside) => <b>{inside}</b> },
                )}
              </>
            ) : (
              t('Slides of more loudnesses would tell over which level.')
            )}
          </>
        )}
      </p>
      <div ref={box} aria-hidden>
        <svg width={width} height={HEIGHT} className="rounded-lg border border-line">
          <Rungs scale={scale} width={width} />
          {[Math.min(...midis), ...(lowest ? [lowest.midi] : []), Math.max(...midis)].map((m) => (
            <text key={m} x={4} y={scale.y(m)} dominantBaseline="central" fontSize={12} fill="var(--ink)">
              {note(m)}
            </text>
          ))}
          <line x1={x(0)} x2={x(0)} y1={0} y2={HEIGHT} stroke="var(--soft)" strokeDasharray="2 4" />
          {joined.map((l, i) => (
            <circle key={i} cx={x(l.db)} cy={scale.y(l.midi)} r={DOT} fill="var(--soft)" />
          ))}
          {broke.map((l, i) => (
            <path
              key={i}
              d={`M${x(l.db) - CROSS},${scale.y(l.midi) - CROSS}l${2 * CROSS},${2 * CROSS}m0,${-2 * CROSS}l${-2 * CROSS},${2 * CROSS}`}
              stroke="var(--warn)"
              strokeWidth={2}
            />
          ))}
          {notes.map((n) => (
            <circle key={n.midi} cx={x(n.db)} cy={scale.y(n.midi)} r={CROSS} fill="var(--accent)" />
          ))}
          <polyline
            points={notes.map((n) => `${x(n.db)},${scale.y(n.midi)}`).join(' ')}
            fill="none"
            stroke="var(--accent)"
            strokeWidth={3}
            strokeLinejoin="round"
          />
        </svg>
        <p className="flex justify-between text-sm text-soft">
          <span>{t('softer')}</span>
          <span>{t('louder')}</span>
        </p>
        <p className="text-sm text-soft">{t('Dots came through joined, crosses broke; the line is the ceiling, where it is known.')}</p>
      </div>
      {notes.length > 0 && (
        <table className="sr-only">
          <caption>{t('Ceiling by note')}</caption>
          <tbody>
            {notes.map((n) => (
              <tr key={n.midi}>
                <th scope="row">{note(n.midi)}</th>
                <td>{signed(n.db)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
