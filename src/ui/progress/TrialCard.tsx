import { type Effect, MATTERS_ST, type Trial } from '../../core/practice/trial';
import { ARM_WORDS } from '../practice/words';

const WIDTH = 320;
const ROW = 34;
const LEAST_SPAN_ST = 1;

/** What straw and humming do to the leap at the change of this voice, against nothing; before its time, how far the trial is. */
export function TrialCard({ trial, name }: { trial: Trial & { underWay: boolean }; name: string }) {
  const { days, of, effects, later, over, underWay } = trial;
  return (
    <section aria-label="Trial of one" className="card flex flex-col gap-2">
      <h2 className="text-lg font-bold">What helps this voice: a trial of one</h2>
      {!over && (
        <p>
          Day {days} of {of}
          {underWay ? '' : ', and ended'}: {name} sings the same slides before and after the straw, humming or silence, one a day, in an
          order that is drawn.{' '}
          {effects.length === 0 && 'It is read on that day and not before: whoever looks every day finds something sooner or later.'}
        </p>
      )}
      <ul className="flex flex-col gap-1">
        {effects.map((e) => (
          <li key={e.arm}>{effectInWords(e, 'right after', over)}</li>
        ))}
        {later.map((e) => (
          <li key={`${e.arm} later`}>{effectInWords(e, 'ten minutes later and more', over)}</li>
        ))}
      </ul>
      {effects.length > 0 && <Intervals effects={effects} />}
      {over && <p className="text-sm text-soft">After {days} days. The trial has told what it can: end it in the plan, under “At hand”.</p>}
    </section>
  );
}

const st = (value: number) => Math.abs(value).toFixed(1);

function effectInWords({ arm, by, lowBy, highBy, told }: Effect, when: string, over: boolean): string {
  const words = ARM_WORDS[arm].replace(/^./, (c) => c.toUpperCase());
  switch (told) {
    case 'smaller':
    case 'larger':
      return `${words}: ${when}, the leap at the change is ${st(by)} semitones ${told} than after silence (${[lowBy, highBy]
        .sort((a, b) => Math.abs(a) - Math.abs(b))
        .map(st)
        .join(' to ')}).`;
    case 'no difference':
      return `${words}: ${when}, it makes no difference that matters: under ${MATTERS_ST} semitones either way.`;
    case 'not told':
      return `${words}: ${when}, can’t be told${over ? ': whatever it does is less than this voice differs by from day to day' : ' yet'}.`;
  }
}

/** Each effect with its interval about none. */
function Intervals({ effects }: { effects: readonly Effect[] }) {
  const span = Math.max(LEAST_SPAN_ST, ...effects.flatMap((e) => [Math.abs(e.lowBy), Math.abs(e.highBy)])) * 1.1;
  const x = (by: number) => WIDTH / 2 + (by / span) * (WIDTH / 2);
  return (
    <svg width={WIDTH} height={ROW * effects.length + 18} aria-hidden className="max-w-full">
      <line x1={x(0)} x2={x(0)} y1={0} y2={ROW * effects.length} stroke="var(--soft)" strokeDasharray="2 4" />
      {effects.map((e, i) => (
        <g key={e.arm} transform={`translate(0 ${ROW * i})`}>
          <text x={0} y={12} fontSize={12} fill="var(--ink)">
            {ARM_WORDS[e.arm]}
          </text>
          <line x1={x(e.lowBy)} x2={x(e.highBy)} y1={22} y2={22} stroke="var(--accent)" strokeWidth={3} strokeLinecap="round" />
          <circle cx={x(e.by)} cy={22} r={5} fill="var(--accent)" />
        </g>
      ))}
      <text x={0} y={ROW * effects.length + 13} fontSize={12} fill="var(--soft)">
        smaller leap
      </text>
      <text x={WIDTH} y={ROW * effects.length + 13} fontSize={12} fill="var(--soft)" textAnchor="end">
        larger leap
      </text>
    </svg>
  );
}
