import { Said, said, texts } from '../../core/words/said';
import { type Effect, MATTERS_ST, type Trial } from '../../core/practice/trial';
import { ARM_WORDS } from '../practice/words';
import { useLanguage } from '../language/language';

const WIDTH = 320;
const ROW = 34;
const LEAST_SPAN_ST = 1;

/** What straw and humming do to the leap at the change of this voice, against nothing; before its time, how far the trial is. */
export function TrialCard({ trial, name }: { trial: Trial & { underWay: boolean }; name: string }) {
  const { t } = useLanguage();
  const { days, of, effects, later, over, underWay } = trial;
  return (
    <section aria-label={t('Trial of one')} className="card flex flex-col gap-2">
      <h2 className="text-lg font-bold">{t('What helps this voice: a trial of one')}</h2>
      {!over && (
        <p>
          {t(
            underWay
              ? 'Day {days} of {of}: {name} sings the same slides before and after the straw, humming or silence, one a day, in an order that is drawn.'
              : 'Day {days} of {of}, and ended: {name} sang the same slides before and after the straw, humming or silence, one a day, in an order that was drawn.',
            { days, of, name: { own: name } },
          )}{' '}
          {effects.length === 0 && t('It is read on that day and not before: whoever looks every day finds something sooner or later.')}
        </p>
      )}
      <ul className="flex flex-col gap-1">
        {effects.map((e) => (
          <li key={e.arm}>{t(effectInWords(e, said('right after'), over))}</li>
        ))}
        {later.map((e) => (
          <li key={`${e.arm} later`}>{t(effectInWords(e, said('ten minutes later and more'), over))}</li>
        ))}
      </ul>
      {effects.length > 0 && <Intervals effects={effects} />}
      {over && (
        <p className="text-sm text-soft">
          {t('After {days} days. The trial has told what it can: end it in the plan, under “At hand”.', { days })}
        </p>
      )}
    </section>
  );
}

const ARMS: Record<Effect['arm'], string> = texts({ straw: 'The straw', hum: 'Humming' });

function effectInWords({ arm, by, lowBy, highBy, told }: Effect, when: Said, over: boolean): Said {
  const [low, high] = [lowBy, highBy].map(Math.abs).sort((a, b) => a - b);
  const of = { arm: ARMS[arm], when, by: Math.abs(by), low, high, matters: MATTERS_ST };
  switch (told) {
    case 'smaller':
      return said(
        '{arm}: {when}, the leap at the change is {by, number, ::.0} semitones smaller than after silence ({low, number, ::.0} to {high, number, ::.0}).',
        of,
      );
    case 'larger':
      return said(
        '{arm}: {when}, the leap at the change is {by, number, ::.0} semitones larger than after silence ({low, number, ::.0} to {high, number, ::.0}).',
        of,
      );
    case 'no difference':
      return said('{arm}: {when}, it makes no difference that matters: under {matters} semitones either way.', of);
    case 'not told':
      return over
        ? said('{arm}: {when}, can’t be told: whatever it does is less than this voice differs by from day to day.', of)
        : said('{arm}: {when}, can’t be told yet.', of);
  }
}

/** Each effect with its interval about none. */
function Intervals({ effects }: { effects: readonly Effect[] }) {
  const { t } = useLanguage();
  const span = Math.max(LEAST_SPAN_ST, ...effects.flatMap((e) => [Math.abs(e.lowBy), Math.abs(e.highBy)])) * 1.1;
  const x = (by: number) => WIDTH / 2 + (by / span) * (WIDTH / 2);
  return (
    <svg width={WIDTH} height={ROW * effects.length + 18} aria-hidden className="max-w-full">
      <line x1={x(0)} x2={x(0)} y1={0} y2={ROW * effects.length} stroke="var(--soft)" strokeDasharray="2 4" />
      {effects.map((e, i) => (
        <g key={e.arm} transform={`translate(0 ${ROW * i})`}>
          <text x={0} y={12} fontSize={12} fill="var(--ink)">
            {t(ARM_WORDS[e.arm])}
          </text>
          <line x1={x(e.lowBy)} x2={x(e.highBy)} y1={22} y2={22} stroke="var(--accent)" strokeWidth={3} strokeLinecap="round" />
          <circle cx={x(e.by)} cy={22} r={5} fill="var(--accent)" />
        </g>
      ))}
      <text x={0} y={ROW * effects.length + 13} fontSize={12} fill="var(--soft)">
        {t('smaller leap')}
      </text>
      <text x={WIDTH} y={ROW * effects.length + 13} fontSize={12} fill="var(--soft)" textAnchor="end">
        {t('larger leap')}
      </text>
    </svg>
  );
}
