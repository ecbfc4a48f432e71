import { Play } from 'lucide-react';
import { noteName } from '../../core/music/pitch';
import type { Change } from '../../core/take/changes';
import type { TakeFindings } from '../../core/take/types';
import { EVENT_WORDS } from '../kit/words';

/** What was found in a take, in words; each change plays. */
export function Found({
  analysis,
  changes,
  onPlay,
}: {
  analysis: { findings: TakeFindings | null; error: string | null };
  changes: Change[];
  onPlay: (timeS: number) => void;
}) {
  const { findings, error } = analysis;
  if (!findings) return <p>{error ?? 'This take could not be analysed.'}</p>;
  return (
    <>
      {findings.quality.reasons.map((reason) => (
        <p key={reason} className="font-semibold">
          {reason}
        </p>
      ))}
      {findings.range && (
        <p className="text-2xl font-bold" data-testid="found-range">
          {noteName(findings.range.lowestMidi)} to {noteName(findings.range.highestMidi)}
        </p>
      )}
      {findings.speakingMidi !== null && <p>Speaks around {noteName(findings.speakingMidi)}.</p>}
      {findings.quality.usable && findings.task === 'siren' && changes.length === 0 && <p>No change was heard in this take.</p>}
      <ul className="flex flex-col gap-1">
        {changes.map((c) => (
          <li key={c.timeS}>
            <button
              className="flex min-h-11 w-full items-center gap-3 rounded-md px-2 text-left hover:bg-paper"
              onClick={() => onPlay(c.timeS)}
            >
              <Play aria-hidden size={18} className="shrink-0 text-accent" />
              <span className="w-10 text-xl font-bold">{noteName(c.midi)}</span>
              <span>
                {EVENT_WORDS[c.kind]}, going {c.direction}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}
