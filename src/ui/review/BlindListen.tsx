import type { CoachMark } from '../../core/map/types';
import { noteName } from '../../core/music/pitch';
import type { Change } from '../../core/take/changes';

/** A mark and a finding this close in time speak of the same moment. */
const SAME_S = 0.6;

export type Blind = 'off' | 'listening' | 'compared';

/** How the coach's ear and the machine agree, moment by moment. */
export function agreement(marks: CoachMark[], changes: Change[]) {
  const free = [...changes];
  const both = marks.map((mark) => {
    const at = free.findIndex((c) => Math.abs(c.timeS - mark.timeS) < SAME_S);
    return { mark, change: at < 0 ? null : free.splice(at, 1)[0] };
  });
  return { both, machineOnly: free };
}

/** The second listen without the machine: mark what is heard, then see both side by side. */
export function BlindListen({
  state,
  marks,
  changes,
  onState,
}: {
  state: Blind;
  marks: CoachMark[];
  changes: Change[];
  onState: (state: Blind) => void;
}) {
  if (state === 'off')
    return (
      <button className="button self-start" onClick={() => onState('listening')}>
        Listen without the machine
      </button>
    );
  if (state === 'listening')
    return (
      <div className="card flex flex-col gap-2" data-testid="blind">
        <p>
          The machine’s findings are hidden. Play, and press <b>M</b> wherever you hear a change.{' '}
          {marks.length === 0 ? 'Nothing marked yet.' : `${marks.length} marked.`}
        </p>
        <div className="flex gap-2">
          <button className="button-main" onClick={() => onState('compared')}>
            Compare
          </button>
          <button className="button" onClick={() => onState('off')}>
            Show everything
          </button>
        </div>
      </div>
    );
  const { both, machineOnly } = agreement(marks, changes);
  return (
    <div className="card flex flex-col gap-1" data-testid="compared">
      <h3 className="font-bold">Your ear and the machine</h3>
      <ul>
        {both.map(({ mark, change }) => (
          <li key={mark.id}>
            {mark.timeS.toFixed(1)} s: you <b>{noteName(mark.midi)}</b>,{' '}
            {change ? (
              <>
                the machine <b>{noteName(change.midi)}</b>
              </>
            ) : (
              'the machine nothing'
            )}
          </li>
        ))}
        {machineOnly.map((c) => (
          <li key={c.timeS}>
            {c.timeS.toFixed(1)} s: you nothing, the machine <b>{noteName(c.midi)}</b>
          </li>
        ))}
      </ul>
      <button className="button self-start" onClick={() => onState('off')}>
        Done
      </button>
    </div>
  );
}
