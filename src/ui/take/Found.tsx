import { Play } from 'lucide-react';
import type { Change } from '../../core/take/changes';
import type { TakeFindings } from '../../core/take/types';
import { EVENT_WORDS } from '../kit/words';
import { useLanguage } from '../language/language';

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
  const { note, t } = useLanguage();
  const { findings, error } = analysis;
  if (!findings) return <p>{error ?? t('This take could not be analysed.')}</p>;
  return (
    <>
      {findings.quality.reasons.map((reason) => (
        <p key={t(reason)} className="font-semibold">
          {t(reason)}
        </p>
      ))}
      {findings.range && (
        <p className="text-2xl font-bold" data-testid="found-range">
          {t('{lowestMidi} to {highestMidi}', {
            lowestMidi: { note: findings.range.lowestMidi },
            highestMidi: { note: findings.range.highestMidi },
          })}
        </p>
      )}
      {findings.speakingMidi !== null && <p>{t('Speaks around {speakingMidi}.', { speakingMidi: { note: findings.speakingMidi } })}</p>}
      {findings.quality.usable && findings.task === 'siren' && changes.length === 0 && <p>{t('No change was heard in this take.')}</p>}
      <ul className="flex flex-col gap-1">
        {changes.map((c) => (
          <li key={c.timeS}>
            <button
              className="flex min-h-11 w-full items-center gap-3 rounded-md px-2 text-left hover:bg-paper"
              onClick={() => onPlay(c.timeS)}
            >
              <Play aria-hidden size={18} className="shrink-0 text-accent" />
              <span className="w-10 text-xl font-bold">{note(c.midi)}</span>
              <span>{t('{event}, going {direction}', { event: EVENT_WORDS[c.kind], direction: c.direction })}</span>
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}
