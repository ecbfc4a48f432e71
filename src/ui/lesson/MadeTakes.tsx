import { Said, said } from '../../core/words/said';
import { Check, CloudOff, Ear, LoaderCircle, Play, Trash2 } from 'lucide-react';
import { Link } from '../kit/Link';
import { memo } from 'react';
import { useLanguage } from '../language/language';

/** A take made in this lesson, as far as it has got; of what was found in it the words, which is all that is shown. */
export interface Made {
  id: string;
  name: string;
  state: 'sending' | 'waiting' | 'listening' | 'found' | 'failed';
  found: readonly Said[] | null;
}

function wordsOf({ state, found }: Made): Said {
  const waits = state === 'waiting' ? [said('safe here, waiting for the server')] : [];
  if (!found) return waits[0] ?? (state === 'sending' ? said('storing') : said('listening closely'));
  return said('{all}', { all: { all: [...waits, ...found], as: 'dot' } });
}

const ICONS = { sending: LoaderCircle, waiting: CloudOff, listening: Ear, found: Check, failed: CloudOff };

/** The takes of this lesson, newest first: what was found in each; play, review or discard. The handlers must stay the same. */
export function MadeTakes({
  made,
  ...rest
}: {
  made: Made[];
  singerId: string;
  onPlay: (id: string) => void;
  onDiscard: (id: string) => void;
}) {
  const { t } = useLanguage();
  if (made.length === 0) return <p className="text-soft">{t('The takes of this lesson will stand here, with what was found in each.')}</p>;
  return (
    <ol aria-label={t('Takes of this lesson')} className="flex flex-col">
      {[...made].reverse().map((m) => (
        <MadeTake key={m.id} made={m} {...rest} />
      ))}
    </ol>
  );
}

// Remembered: with every take there are more of them, and the page draws the voice meanwhile.
const MadeTake = memo(function MadeTake({
  made: m,
  singerId,
  onPlay,
  onDiscard,
}: {
  made: Made;
  singerId: string;
  onPlay: (id: string) => void;
  onDiscard: (id: string) => void;
}) {
  const { t } = useLanguage();
  const Icon = ICONS[m.state];
  return (
    <li className="flex items-center gap-2 border-b border-line py-1 last:border-0" data-testid="made" data-state={m.state}>
      <Icon aria-hidden size={18} className="shrink-0 text-soft" />
      <span className="min-w-0 flex-1">
        <Link href={`/singers/${singerId}/takes/${m.id}`} className="font-semibold hover:underline">
          {t(m.name)}
        </Link>{' '}
        <span className="text-soft">{t(wordsOf(m))}</span>
      </span>
      {m.state === 'found' && (
        <>
          <button className="button-small min-h-11 min-w-11" aria-label={t('Play {name}', { name: m.name })} onClick={() => onPlay(m.id)}>
            <Play aria-hidden size={16} />
          </button>
          <button
            className="button-small min-h-11 min-w-11"
            aria-label={t('Discard {name}', { name: m.name })}
            onClick={() => onDiscard(m.id)}
          >
            <Trash2 aria-hidden size={16} />
          </button>
        </>
      )}
    </li>
  );
});
