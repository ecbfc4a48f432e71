import { Play, Square, Trash2 } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { useClip } from '../../audio/clip';
import { addressOf, ask } from '../../sync/ask';
import type { Said } from '../../core/words/said';
import { saidOf } from '../../core/words/said-error';
import { ForCoaches } from '../kit/may-change';
import { useLanguage } from '../language/language';

/** A word a singer spoke after an exercise, to be heard, or deleted for good. `here`: its sound has arrived and is still kept. */
export function Spoken({
  entryId,
  seconds,
  here,
  clip,
}: {
  entryId: string;
  seconds: number;
  here: boolean;
  clip: ReturnType<typeof useClip>;
}) {
  const { t } = useLanguage();
  const router = useRouter();
  const [sure, setSure] = useState(false);
  const [problem, setProblem] = useState<Said | null>(null);
  if (!here) return <span className="text-soft"> {t('(spoken; its sound isn’t here)')}</span>;
  const playing = clip.playing === entryId;
  const press = () => (playing ? clip.stop() : void clip.play(entryId, addressOf('GET /api/practice/[entryId]/spoken', { entryId })));
  const remove = async () => {
    clip.stop();
    try {
      await ask('DELETE /api/practice/[entryId]/spoken', { params: { entryId } });
      router.refresh();
    } catch (error) {
      setProblem(saidOf(error));
    }
  };
  return (
    <span className="inline-flex items-center gap-1 pl-1 align-middle">
      <button className="button-small min-h-9 px-2 font-semibold" onClick={press}>
        {playing ? <Square aria-hidden size={16} /> : <Play aria-hidden size={16} />}{' '}
        {playing ? t('Stop') : t('Spoken, {seconds} s', { seconds: Math.ceil(seconds) })}
      </button>
      <ForCoaches>
        {sure ? (
          <>
            <button className="button-small min-h-9 px-2" onClick={() => void remove()}>
              {t('Delete for good')}
            </button>
            <button className="button-small min-h-9 px-2" onClick={() => setSure(false)}>
              {t('Keep it')}
            </button>
          </>
        ) : (
          <button className="button-small min-h-9 px-2" aria-label={t('Delete what was spoken')} onClick={() => setSure(true)}>
            <Trash2 aria-hidden size={16} />
          </button>
        )}
      </ForCoaches>
      {problem && <span role="alert">{t(problem)}</span>}
    </span>
  );
}
