import { Play, Square } from 'lucide-react';
import type { useClip } from '../../audio/clip';
import { addressOf } from '../../sync/ask';
import { useLanguage } from '../language/language';

/** A word a singer spoke after an exercise, to be heard. */
export function Spoken({ entryId, seconds, clip }: { entryId: string; seconds: number; clip: ReturnType<typeof useClip> }) {
  const { t } = useLanguage();
  const playing = clip.playing === entryId;
  const press = () => (playing ? clip.stop() : void clip.play(entryId, addressOf('GET /api/practice/[entryId]/spoken', { entryId })));
  return (
    <>
      {' '}
      <button className="button-small min-h-9 px-2 font-semibold" onClick={press}>
        {playing ? <Square aria-hidden size={16} /> : <Play aria-hidden size={16} />}{' '}
        {playing ? t('Stop') : t('Spoken, {seconds} s', { seconds: Math.ceil(seconds) })}
      </button>
    </>
  );
}
